"""Templates as a DXF drawing in millimetres: edges on the layer CUT, lines on MARK, words on TEXT."""

import io
from collections.abc import Sequence

from ezdxf import units
from ezdxf.document import Drawing
from ezdxf.enums import TextEntityAlignment
from ezdxf.filemanagement import new
from ezdxf.layouts.layout import Modelspace

from amber_spread.papers.templates import Template

GAP_MM = 15.0
LAYERS = {"CUT": 1, "MARK": 4, "TEXT": 7}


def draw_dxf(templates: Sequence[Template]) -> Drawing:
    """Every template above the one before it; arcs stay arcs, as bulges of closed polylines."""
    drawing = new("R2010", setup=False)
    drawing.units = units.MM
    for name, colour in LAYERS.items():
        drawing.layers.add(name, color=colour)
    space, up = drawing.modelspace(), 0.0
    for one in templates:
        high = one.size[1]
        corners = [(x, y + up, bulge) for x, y, bulge in one.corners]
        space.add_lwpolyline(corners, format="xyb", close=True, dxfattribs={"layer": "CUT"})
        for mark in one.marks:
            ends = (mark.x0, mark.y0 + up), (mark.x1, mark.y1 + up)
            space.add_line(*ends, dxfattribs={"layer": "MARK"})
            _write(space, mark.name, mark.x0 + 1, mark.y0 + up + 0.8, 3.0)
        for line in one.lines:
            _write(space, line.text, line.x, up + line.y, line.high, centred=True, turned=90 if one.words_turned else 0)
        up += high + GAP_MM
    return drawing


def write_dxf(templates: Sequence[Template]) -> str:
    """The drawing as DXF text."""
    stream = io.StringIO()
    draw_dxf(templates).write(stream)
    return stream.getvalue()


def _write(
    space: Modelspace, words: str, x: float, y: float, high: float, centred: bool = False, turned: float = 0
) -> None:
    text = space.add_text(words, height=high, rotation=turned, dxfattribs={"layer": "TEXT"})
    text.set_placement((x, y), align=TextEntityAlignment.CENTER if centred else TextEntityAlignment.LEFT)
