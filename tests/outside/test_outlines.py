"""Outlines against an independent geometry kernel (shapely, over GEOS) and handbook formulas."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely import Point, Polygon, box

from amber_spread.core.geometry.flat import outline
from amber_spread.core.geometry.flat.outline import Cornered, Oval, Regular, Round
from amber_spread.core.geometry.flat.traced import heart, petal

DRAWN = 3e-3  # curves are drawn with a corner every 6 degrees, which leaves out 0.2 per cent of a circle
KINDS = {
    "round": lambda size: Round(size / 2),
    "square": lambda size: Cornered(size, size),
    "rounded rectangle": lambda size: Cornered(size, size * 1.5, size / 8),
    "hexagon": lambda size: Regular(size, 6),
    "rounded octagon": lambda size: Regular(size, 8, size / 10),
    "oval": lambda size: Oval(size, size * 1.4),
    "heart": heart,
    "petal": lambda size: petal(size, 8),
}
kinds = pytest.mark.parametrize("kind", KINDS)


@kinds
@pytest.mark.parametrize("grown", [0.0, 7.5, -4.0, 30.0])
def test_area_length_and_size_are_those_of_the_polygon_drawn(kind, grown):
    found = KINDS[kind](200).offset(grown)
    drawn = Polygon(found.points)
    assert drawn.is_valid
    assert found.area_mm2 == pytest.approx(drawn.area, rel=DRAWN)
    assert found.perimeter_mm == pytest.approx(drawn.length, rel=DRAWN)
    left, front, right, back = drawn.bounds
    assert 2 * found.half_width_mm == pytest.approx(right - left, rel=DRAWN)
    assert 2 * found.half_length_mm == pytest.approx(back - front, rel=DRAWN)
    assert found.reach_mm == pytest.approx(max(math.hypot(*point) for point in found.points), rel=DRAWN)
    assert found.area_figure().value == pytest.approx(found.area_mm2)


@kinds
@pytest.mark.parametrize("grown", [5.0, 25.0])
def test_growing_is_what_the_kernel_makes_of_the_same_outline_with_sharp_corners(kind, grown):
    found = KINDS[kind](200)
    kernel = Polygon(found.points).buffer(grown, join_style="mitre", mitre_limit=5)
    assert found.offset(grown).area_mm2 == pytest.approx(kernel.area, rel=DRAWN)
    assert found.offset(grown).perimeter_mm == pytest.approx(kernel.length, rel=DRAWN)


@kinds
@given(st.floats(120, 500), st.floats(-10, 40), st.floats(0.1, 20))
def test_outlines_grow_and_keep_their_width(kind, size, grown, more):
    found = KINDS[kind](size)
    assert 2 * found.half_width_mm == pytest.approx(size, rel=1e-3)
    one, two = found.offset(grown), found.offset(grown + more)
    assert two.area_mm2 > one.area_mm2
    assert two.half_width_mm == pytest.approx(one.half_width_mm + more, rel=1e-3)


def test_a_heart_and_a_petal_are_their_parts():
    """Handbook mensuration: discs joined by a general geometry library; a polygon and its half circles."""
    lobes = [Point(side * 45, 0).buffer(55, quad_segs=256) for side in (-1, 1)]
    cheeks = [Point(side * -55.125, 0).buffer(155.125, quad_segs=256) for side in (-1, 1)]
    lower = cheeks[0].intersection(cheeks[1]).intersection(box(-100, -200, 100, 0))
    upper = lobes[0].union(lobes[1]).intersection(box(-100, 0, 100, 100))
    drawn = lower.union(upper)
    assert heart(200).area_mm2 == pytest.approx(drawn.area, rel=1e-3)
    assert heart(200).perimeter_mm == pytest.approx(drawn.length, rel=2e-3)
    assert 2 * heart(200).half_length_mm == pytest.approx(200, rel=2e-3)


def test_a_heart_tin_holds_what_sold_ones_do():
    """Cookbook tables of tins: a heart 8 in wide and 2 1/2 in deep holds about 8 cups of 236.6 ml, a round one of 8 by
    2 in about 7 to the brim (from memory; closed form)."""
    cups = heart(203.2).area_mm2 * 63.5 / 1000 / 236.6
    assert cups == pytest.approx(8, rel=0.06)
    assert math.pi / 4 * 203.2**2 * 50.8 / 1000 / 236.6 == pytest.approx(7, rel=0.02)
    turn = math.pi / 8
    edge = 200 / (1 / math.tan(turn) + 1)
    area = 8 * edge**2 / (4 * math.tan(turn)) + 8 * math.pi * edge**2 / 8
    assert petal(200, 8).area_mm2 == pytest.approx(area, rel=1e-3)


@given(st.floats(25, 300), st.floats(0.34, 1))
def test_the_ellipse_agrees_with_ramanujans_second_formula(a, ratio):
    """S. Ramanujan, Modular equations and approximations to pi, 1914: better than 1e-5 for such ovals."""
    b = a * ratio
    h = ((a - b) / (a + b)) ** 2
    ramanujan = math.pi * (a + b) * (1 + 3 * h / (10 + math.sqrt(4 - 3 * h)))
    assert outline.ellipse_perimeter(a, b) == pytest.approx(ramanujan, rel=1e-5)
    assert outline.ellipse_perimeter(a, b) == outline.ellipse_perimeter(b, a)


def test_the_ellipse_has_its_tabled_length():
    """Abramowitz and Stegun, table 17.1: E(m = 0.75) = 1.21105 60275 68, so with a = 2 and b = 1 once round is 8 E."""
    assert outline.ellipse_perimeter(2, 1) == pytest.approx(8 * 1.2110560275684595, rel=1e-12)


def test_what_cannot_be_is_refused():
    for make in (
        lambda: Round(10).offset(-10),
        lambda: Cornered(50, 80, 26),
        lambda: Cornered(50, 80).offset(-25),
        lambda: Regular(50, 6, 30),
        lambda: Oval(50, 150).offset(-10),
        lambda: heart(100).offset(-60),
    ):
        with pytest.raises(ValueError, match=r"left|rounder|pointed|narrow"):
            make()
