"""Templates as a DXF drawing in millimetres: edges on the layer CUT, lines on MARK, words on TEXT."""

import io
from collections.abc import Sequence

from ezdxf import units
from ezdxf.document import Drawing
from ezdxf.filemanagement import new
from ezdxf.layouts.layout import Modelspace

from amber_spread.papers.templates import SMALL_MM, Template

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
        wide, high = one.size
        corners = [(x, y + up, bulge) for x, y, bulge in one.corners]
        space.add_lwpolyline(corners, format="xyb", close=True, dxfattribs={"layer": "CUT"})
        for mark in one.marks:
            ends = (mark.x0, mark.y0 + up), (mark.x1, mark.y1 + up)
            space.add_line(*ends, dxfattribs={"layer": "MARK"})
            _write(space, mark.name, mark.x0 + 1, mark.y0 + up + 0.8, 3.0)
        for index, words in enumerate(one.words):
            if one.words_turned:
                _write(space, words, wide * one.words_across + 4.5 * (index - 1.5), up + 4, SMALL_MM, turned=90)
            else:
                _write(space, words, wide / 2 - 20, up + high * one.words_up - 7 * (index - 1.5), 5.0)
        up += high + GAP_MM
    return drawing


def write_dxf(templates: Sequence[Template]) -> str:
    """The drawing as DXF text."""
    stream = io.StringIO()
    draw_dxf(templates).write(stream)
    return stream.getvalue()


def _write(space: Modelspace, words: str, x: float, y: float, high: float, turned: float = 0) -> None:
    space.add_text(words, height=high, rotation=turned, dxfattribs={"layer": "TEXT", "insert": (x, y)})
