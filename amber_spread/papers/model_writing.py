"""A body as a 3D file: STL, OBJ or 3MF, its lengths in mm and z up."""

import io
import zipfile
from typing import Literal

from amber_spread.core.geometry.bodies.triangles import Triangles
from amber_spread.core.geometry.rows import Numbers

ModelKind = Literal["stl", "obj", "3mf"]
MEDIA_TYPES: dict[ModelKind, str] = {"stl": "model/stl", "obj": "model/obj", "3mf": "model/3mf"}
CORE = "http://schemas.microsoft.com/3dmanufacturing/core/2015/02"
TYPES = (
    '<?xml version="1.0" encoding="UTF-8"?>'
    '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types">'
    '<Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/>'
    '<Default Extension="model" ContentType="application/vnd.ms-package.3dmanufacturing-3dmodel+xml"/></Types>'
)
RELATIONS = (
    '<?xml version="1.0" encoding="UTF-8"?>'
    '<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">'
    '<Relationship Target="/3D/3dmodel.model" Id="body" '
    'Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel"/></Relationships>'
)
"""What a 3MF archive holds beside its model (published: 3MF Core Specification 1.3, section 2; from memory)."""


def write_model(corners: Numbers, triangles: Triangles, kind: ModelKind) -> bytes:
    """A closed body as a file of that kind; binary STL."""
    if kind == "3mf":
        return _threemf(corners, triangles)
    import trimesh

    found = trimesh.Trimesh(corners, triangles, process=False).export(file_type=kind)
    return found.encode() if isinstance(found, str) else bytes(found)


def _threemf(corners: Numbers, triangles: Triangles) -> bytes:
    places = "".join(f'<vertex x="{x:.4f}" y="{y:.4f}" z="{z:.4f}"/>' for x, y, z in corners.tolist())
    faces = "".join(f'<triangle v1="{a}" v2="{b}" v3="{c}"/>' for a, b, c in triangles.tolist())
    model = (
        f'<?xml version="1.0" encoding="UTF-8"?><model unit="millimeter" xml:lang="en" xmlns="{CORE}"><resources>'
        f'<object id="1" type="model"><mesh><vertices>{places}</vertices><triangles>{faces}</triangles></mesh></object>'
        '</resources><build><item objectid="1"/></build></model>'
    )
    kept = io.BytesIO()
    with zipfile.ZipFile(kept, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, text in (("[Content_Types].xml", TYPES), ("_rels/.rels", RELATIONS), ("3D/3dmodel.model", model)):
            archive.writestr(name, text)
    return kept.getvalue()
