"""Outlines read from DXF: at true size in any unit, put together from pieces, or refused with what would do."""

import io
import math

import ezdxf
import pytest
from ezdxf.enums import InsertUnits
from shapely import Polygon

from amber_spread.papers.outline_files import read_outline
from amber_spread.papers.outline_reading import OutlineError


def drawing(*draw, unit=InsertUnits.Millimeters):
    made = ezdxf.new("R2010")
    made.header["$INSUNITS"] = int(unit)
    for one in draw:
        one(made.modelspace())
    stream = io.StringIO()
    made.write(stream)
    return stream.getvalue().encode()


def square(side, x=0.0, y=0.0):
    corners = [(x, y), (x + side, y), (x + side, y + side), (x, y + side)]
    return lambda space: space.add_lwpolyline(corners, close=True)


def line(*ends):
    return lambda space: space.add_line(*ends)


def block(space):
    space.doc.blocks.new("COMB").add_circle((0, 0), radius=90)
    space.add_blockref("COMB", (0, 0))


@pytest.mark.parametrize(
    ("unit", "mm"),
    [
        (InsertUnits.Millimeters, 1),
        (InsertUnits.Centimeters, 10),
        (InsertUnits.Inches, 25.4),
        (InsertUnits.Meters, 1000),
    ],
)
def test_an_outline_is_as_large_as_its_unit_says(unit, mm):
    found = read_outline(drawing(square(200 / mm), unit=unit))
    assert (found.width_mm, found.length_mm) == pytest.approx((200, 200))
    assert Polygon(found.points_mm).area == pytest.approx(200 * 200)
    assert found.notes == []


def test_a_drawing_without_a_unit_is_in_millimetres_and_says_so():
    found = read_outline(drawing(square(150), unit=InsertUnits.Unitless))
    assert found.width_mm == pytest.approx(150)
    assert "names no unit" in found.notes[0]


def test_circles_ellipses_and_bulges_are_drawn_out_true():
    circle = read_outline(drawing(lambda space: space.add_circle((40, -7), radius=100)))
    assert Polygon(circle.points_mm).area == pytest.approx(math.pi * 100**2, rel=2e-3)
    ellipse = read_outline(drawing(lambda space: space.add_ellipse((0, 0), major_axis=(120, 0), ratio=0.5)))
    assert Polygon(ellipse.points_mm).area == pytest.approx(math.pi * 120 * 60, rel=2e-3)
    assert (ellipse.width_mm, ellipse.length_mm) == pytest.approx((240, 120), rel=1e-3)
    stadium = [(0, 0, 0), (200, 0, 1), (200, 100, 0), (0, 100, 1)]
    rounded = read_outline(drawing(lambda space: space.add_lwpolyline(stadium, format="xyb", close=True)))
    assert Polygon(rounded.points_mm).area == pytest.approx(200 * 100 + math.pi * 50**2, rel=2e-3)


def test_lines_and_arcs_whose_ends_meet_are_one_outline_whichever_way_each_was_drawn():
    found = read_outline(
        drawing(
            line((0, 0), (200, 0)),
            lambda space: space.add_arc((200, 50), radius=50, start_angle=270, end_angle=90),
            line((0, 100), (200, 100)),
            line((0, 100), (0, 0)),
        )
    )
    assert Polygon(found.points_mm).area == pytest.approx(200 * 100 + math.pi * 50**2 / 2, rel=2e-3)


def test_a_closed_spline_is_read():
    ring = [(100 * math.cos(turn), 100 * math.sin(turn)) for turn in (math.pi * step / 6 for step in range(13))]
    found = read_outline(drawing(lambda space: space.add_spline([(*point, 0) for point in ring])))
    assert Polygon(found.points_mm).area == pytest.approx(math.pi * 100**2, rel=0.03)


def test_writing_beside_the_outline_is_left_out():
    found = read_outline(drawing(square(150), lambda space: space.add_text("the punt", height=5)))
    assert found.width_mm == pytest.approx(150)


@pytest.mark.parametrize(
    ("data", "says"),
    [
        (drawing(), "no closed shape"),
        (drawing(square(100), square(100, x=300)), "separate shapes"),
        (drawing(line((0, 0), (200, 0)), line((200, 0), (200, 90))), "open"),
        (drawing(block), "by reference"),
        (drawing(square(5)), "5.0 mm wide"),
        (b"Some Binary DXF\r\n\x1a\x00\x00", "binary form"),
        (b"0\nSECTION\n2\nENTITIES\n0\nLWPOL", "not DXF"),
        (b"12 buns and a cup of tea", "not DXF"),
        (b"0\nSECTION\n" + b"9" * 600_000, "larger than"),
        (drawing(*(square(3, x=at) for at in range(2100))), "parts"),
    ],
)
def test_what_is_no_outline_is_refused_with_what_would_do(data, says):
    with pytest.raises(OutlineError, match=says):
        read_outline(data)


def test_an_edge_that_crosses_itself_is_refused_where_it_does():
    bow = [(0, 0), (200, 200), (200, 0), (0, 200)]
    with pytest.raises(OutlineError, match="crosses itself"):
        read_outline(drawing(lambda space: space.add_lwpolyline(bow, close=True)))
