"""3D files written by another library, or by hand after the formats' own descriptions, read back to the same body."""

import io
import struct
import zipfile

import numpy
import pytest
import trimesh

from amber_spread.core.design.builds import ModelledBuild
from amber_spread.core.geometry.bodies.packed import MOST_TEXT, MOST_TRIANGLES
from amber_spread.papers.model_reading import ModelError, read_model

BALL = trimesh.creation.icosphere(subdivisions=4, radius=100)
RING = trimesh.creation.torus(80, 30)
CONE = trimesh.creation.cone(70, 130)
BOX = trimesh.creation.box([200, 120, 90])


def beads(apart_mm, count=150):
    """So many equal boxes of 10 mm in a row."""
    one = trimesh.creation.box([10, 10, 10])
    return trimesh.util.concatenate([one.copy().apply_translation([apart_mm * at, 0, 0]) for at in range(count)])


BODIES = {"ball": BALL, "ring": RING, "cone": CONE}


def written(mesh, kind):
    data = mesh.export(file_type=kind)
    return data.encode() if isinstance(data, str) else data


def threemf(mesh, unit="millimeter", more="", item='<item objectid="1"/>'):
    """A 3MF archive by hand: a part that says triangles (3MF Core Specification 1.3; from memory)."""
    corners = "".join(f'<vertex x="{x}" y="{y}" z="{z}"/>' for x, y, z in mesh.vertices.tolist())
    faces = "".join(f'<triangle v1="{a}" v2="{b}" v3="{c}"/>' for a, b, c in mesh.faces.tolist())
    body = f'<object id="1" type="model"><mesh><vertices>{corners}</vertices><triangles>{faces}</triangles></mesh></object>'
    core = "http://schemas.microsoft.com/3dmanufacturing/core/2015/02"
    text = f'<model unit="{unit}" xmlns="{core}"><resources>{body}{more}</resources><build>{item}</build></model>'
    kept = io.BytesIO()
    with zipfile.ZipFile(kept, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("3D/3dmodel.model", text)
    return kept.getvalue()


def back(read):
    """The body that a design file holds then, at the size it was brought in."""
    found = ModelledBuild(mesh=read.mesh, error_mm=read.error_mm).own()
    return trimesh.Trimesh(found.corners, found.triangles, process=False)


@pytest.mark.parametrize("name", BODIES)
@pytest.mark.parametrize("kind", ["stl", "stl_ascii", "obj", "ply", "3mf"])
def test_a_body_of_every_format_is_read_back_to_the_same_volume(name, kind):
    mesh = BODIES[name]
    read = read_model(threemf(mesh) if kind == "3mf" else written(mesh, kind), "mm", "z")
    assert read.volume_ml == pytest.approx(mesh.volume / 1000, rel=1e-3)
    sizes = numpy.ptp(mesh.vertices, axis=0)
    assert (read.width_mm, read.length_mm, read.height_mm) == pytest.approx(tuple(sizes), abs=0.05)
    kept = back(read)
    assert kept.is_watertight
    assert kept.volume == pytest.approx(mesh.volume, rel=1e-3)
    assert (read.brought, read.kept) == (len(mesh.faces), len(kept.faces))


def test_very_many_equal_parts_that_run_into_each_other_are_one_body():
    read = read_model(written(beads(8.0), "stl"), "mm", "z")
    assert read.volume_ml == pytest.approx((149 * 8 + 10) * 10 * 10 / 1000, rel=1e-3)
    assert read.notes == ["150 bodies that run into each other are made one."]


def test_a_fine_body_is_made_smaller_within_what_is_said():
    fine = trimesh.creation.icosphere(subdivisions=6, radius=100)
    read = read_model(written(fine, "stl"), "mm", "z")
    assert read.kept <= MOST_TRIANGLES < read.brought
    assert len(read.mesh) <= MOST_TEXT
    off = numpy.abs(numpy.linalg.norm(back(read).vertices - [0, 0, 100], axis=1) - 100)
    assert off.max() <= read.error_mm + 0.1
    middles = back(read).triangles_center - [0, 0, 100]
    assert (100 - numpy.linalg.norm(middles, axis=1)).max() <= 2 * read.error_mm


def test_units_and_which_way_is_up():
    read = read_model(written(trimesh.creation.box([8, 5, 3]), "stl"), "in", "z")
    assert (read.width_mm, read.length_mm, read.height_mm) == pytest.approx((203.2, 127, 76.2), abs=0.01)
    up = {"x": (90, 120, 200), "y": (200, 90, 120), "z": (200, 120, 90)}
    for axis, sizes in up.items():
        read = read_model(written(BOX, "obj"), "mm", axis)
        assert (read.width_mm, read.length_mm, read.height_mm) == pytest.approx(sizes, abs=0.01)
    # A cone drawn with y up stands on its foot once that is said: it is widest below.
    lying = CONE.copy()
    lying.apply_transform(trimesh.transformations.rotation_matrix(-numpy.pi / 2, [1, 0, 0]))
    stood = back(read_model(written(lying, "ply"), "mm", "y"))
    assert stood.center_mass[2] - stood.bounds[0][2] == pytest.approx(130 / 4, rel=0.02)


def test_a_3mf_file_says_its_unit_and_places_its_bodies():
    read = read_model(threemf(trimesh.creation.box([8, 5, 3]), "inch"), "mm", "z")
    assert (read.width_mm, read.length_mm) == pytest.approx((203.2, 127), abs=0.01)
    assert any("unit" in note for note in read.notes)
    # Two of the same box, one of them turned by a component of another object and lifted on top.
    more = '<object id="2"><components><component objectid="1" transform="0 1 0 -1 0 0 0 0 1 0 0 89"/></components></object>'
    stacked = read_model(threemf(BOX, more=more, item='<item objectid="1"/><item objectid="2"/>'), "mm", "z")
    assert stacked.height_mm == pytest.approx(179, abs=0.05)
    assert stacked.length_mm == pytest.approx(200, abs=0.05)
    assert stacked.volume_ml == pytest.approx(2 * 2160 - 120 * 120 / 1000, rel=1e-3)


def test_what_can_be_mended_is_and_is_told():
    inside_out = BALL.copy()
    inside_out.invert()
    read = read_model(written(inside_out, "stl"), "mm", "z")
    assert read.volume_ml == pytest.approx(BALL.volume / 1000, rel=1e-3)
    assert "inside out" in read.notes[0]
    faces = BALL.faces.copy()
    faces[::7] = faces[::7, ::-1]
    turned = read_model(written(trimesh.Trimesh(BALL.vertices, faces, process=False), "stl"), "mm", "z")
    assert turned.volume_ml == pytest.approx(BALL.volume / 1000, rel=1e-3)
    assert "faced the other way" in turned.notes[0]
    open_ = BALL.copy()
    open_.update_faces(numpy.arange(len(BALL.faces)) != 5)
    mended = read_model(written(open_, "obj"), "mm", "z")
    assert "closed there" in mended.notes[0]
    assert mended.volume_ml == pytest.approx(BALL.volume / 1000, rel=1e-3)
    two = trimesh.util.concatenate([BALL, BALL.copy().apply_translation([120, 0, 0])])
    joined = read_model(written(two, "stl"), "mm", "z")
    assert "2 bodies that run into each other" in joined.notes[0]
    # published: two balls that meet, V = 2 * 4/3 pi r³ - pi (4 r + d) (2 r - d)² / 12 (MathWorld, Sphere-Sphere
    # Intersection; from memory)
    apart = 2 * 4 / 3 * numpy.pi * 1e6 - numpy.pi * (400 + 120) * 80**2 / 12
    assert joined.volume_ml == pytest.approx(apart / 1000, rel=6e-3)


def nan():
    data = bytearray(written(BOX, "stl"))
    data[84 + 12 : 84 + 16] = struct.pack("<f", float("nan"))
    return bytes(data)


def bomb():
    kept = io.BytesIO()
    with zipfile.ZipFile(kept, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("3D/3dmodel.model", b" " * (120 * 1024 * 1024))
    return kept.getvalue()


def endless():
    part = '<component objectid="2"/>' * 60
    return threemf(BOX, more=f'<object id="2"><components>{part}</components></object>', item='<item objectid="2"/>')


def opened():
    left = BALL.copy()
    left.update_faces(BALL.triangles_center[:, 2] < 60)
    return left


FAR = trimesh.util.concatenate([BALL, BALL.copy().apply_translation([300, 0, 0])])
LINES = trimesh.Trimesh([[0, 0, 0], [90, 0, 0], [45, 0, 0]], [[0, 1, 2]], process=False)
GARBLED = b"solid x\nfacet normal 0 0 0\nouter loop\nvertex 1 2\nvertex a b c\nendloop\nendfacet\nendsolid x"
BIG_ENDIAN = b"\0" * 80 + struct.pack(">I", 12) + written(BOX, "stl")[84:]
REFUSED = {
    "nothing": (b"", "no 3D file that is read"),
    "words": (b"hello there", "no 3D file that is read"),
    "a picture": (b"\x89PNG\r\n\x1a\n" + bytes(200), "no 3D file that is read"),
    "a drawing": (b"<svg xmlns='http://www.w3.org/2000/svg'/>", "no 3D file that is read"),
    "cut short": (written(BALL, "stl")[:-9000], "ends early"),
    "cut short in words": (written(BALL, "stl_ascii")[:-9000], "ends early"),
    "cut short in a header": (written(BALL, "ply")[:-9000], "ends early"),
    "garbled": (GARBLED, "garbled"),
    "bytes the other way round": (BIG_ENDIAN, "no 3D file that is read"),
    "nowhere": (nan(), "lie nowhere"),
    "wide open": (written(opened(), "stl"), "there is a hole"),
    "without thickness": (written(LINES, "stl"), "no triangles|does not close|do not close|hole"),
    "in very many": (written(beads(12.0), "stl"), "150 bodies in this file that do not touch"),
    "in two": (written(FAR, "stl"), "2 bodies in this file that do not touch"),
    "specks": (written(trimesh.creation.box([0.1, 0.1, 0.1]), "stl"), "which unit"),
    "a mountain": (written(trimesh.creation.box([9000, 9000, 9000]), "stl"), "which unit"),
    "claims too many": (b"\0" * 80 + struct.pack("<I", 600_000) + bytes(50 * 600_000), "at most 500,000"),
    "corners it has not": (b"v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 9\nf 1 2 3\n", "garbled|does not have"),
    "a zip of something else": (threemf(BOX).replace(b"3dmodel.model", b"3dmodel.mxdel"), "no model in it"),
    "a bomb": (bomb(), "unpacks to more than"),
    "made of itself": (endless(), "more than 200 others"),
    "a unit of its own": (threemf(BOX, "furlong"), "no unit that is known"),
    "entities": (threemf(BOX).replace(b"PK", b"PK", 1)[:120], "damaged"),
}


@pytest.mark.parametrize("name", REFUSED)
def test_what_cannot_be_used_is_refused_with_a_reason(name):
    data, words = REFUSED[name]
    with pytest.raises(ModelError, match=words):
        read_model(data, "mm", "z")


def test_a_hole_is_said_with_its_place():
    with pytest.raises(ModelError, match=r"a hole 16\d\.\d mm wide at x 100, y 100, z 160 mm"):
        read_model(written(opened(), "stl"), "mm", "z")


def test_what_a_file_names_is_not_opened(tmp_path):
    other = tmp_path / "other.mtl"
    other.write_text("newmtl x\nmap_Kd http://127.0.0.1:1/x.png\n")
    data = f"mtllib {other}\nusemtl x\n".encode() + written(BOX, "obj")
    assert read_model(data, "mm", "z").volume_ml == pytest.approx(2160, rel=1e-3)
    hostile = b'<?xml version="1.0"?><!DOCTYPE m [<!ENTITY a "b">]><model unit="millimeter">&a;</model>'
    kept = io.BytesIO()
    with zipfile.ZipFile(kept, "w") as archive:
        archive.writestr("3D/3dmodel.model", hostile)
    with pytest.raises(ModelError, match="garbled"):
        read_model(kept.getvalue(), "mm", "z")
