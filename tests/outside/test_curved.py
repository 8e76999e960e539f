"""Lines through smooth corners, against circles and what is made of them."""

import json
import math
from itertools import accumulate
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError
from shapely import LineString, Point, Polygon

from amber_spread.core.design.builds import CarvedBuild, SectionAt
from amber_spread.core.design.shapes import FreeShape, RoundShape
from amber_spread.core.geometry.flat.curved import _handles, curved
from tests.designs import LOAF, STONE, carved, planned, tier

CASES = json.loads((Path(__file__).parents[1] / "curves.json").read_text())
gaps = st.lists(st.floats(0.5, 1), min_size=8, max_size=14)


def around(turns, radius=100.0):
    return tuple((radius * math.cos(turn), radius * math.sin(turn)) for turn in turns)


@pytest.mark.parametrize("case", CASES, ids=lambda case: str(case["smooth"]))
def test_the_handles_are_those_of_the_table_that_holds_the_client_too(case):
    """The first is published: four arcs of a circle have handles of 0.5523 of its radius (from memory)."""
    corners = tuple(tuple(map(float, corner)) for corner in case["corners"])
    for at, expected in enumerate(case["handles"]):
        if expected is None:
            assert at not in case["smooth"] and (at + 1) % len(corners) not in case["smooth"]
        else:
            for found, wanted in zip(_handles(corners, at, case["smooth"]), expected, strict=True):
                assert found == pytest.approx(wanted, abs=1e-4)


@given(gaps)
def test_through_corners_on_a_circle_it_is_that_circle(gaps):
    """However they lie on it, while no two are farther apart than a quarter of it."""
    turns = [2 * math.pi * up / sum(gaps) for up in accumulate(gaps)]
    line = curved(around(turns), range(len(turns)))
    assert all(math.hypot(x, y) == pytest.approx(100, rel=1e-3) for x, y in line)
    assert Polygon(line).area == pytest.approx(math.pi * 100**2, rel=2e-3)


@given(st.sets(st.integers(0, len(STONE) - 1)))
def test_it_runs_through_every_corner_and_is_straight_where_none_is_smooth(smooth):
    line = curved(STONE, smooth)
    assert [point for point in line if point in STONE] == list(STONE)
    around = LineString([*line, line[0]])
    for at, corner in enumerate(STONE):
        after = STONE[(at + 1) % len(STONE)]
        assert around.distance(Point(corner)) == 0
        if at not in smooth and (at + 1) % len(STONE) not in smooth:
            assert LineString([corner, after]).difference(around.buffer(1e-9)).is_empty


def test_a_dome_of_five_corners_is_half_a_ball_and_eight_make_a_round_tin():
    """Half a ball of 150 cut out of round slices, by its closed form; and a round tin by another name."""
    half = around([math.pi * step / 4 for step in range(5)], 75)
    one = carved([(75 + x, y) for x, y in half], 154, rounded=1.0)
    ball_ml = math.pi / 12 * 150**3 / 1000
    assert planned(one).tiers[0].carving.volume.value < 0.95 * ball_ml
    dome = one.model_copy(update={"build": one.build.model_copy(update={"smooth_corners": (1, 2, 3)})})
    # At the foot the line leaves its corners straight, so that a little is wanting there.
    assert planned(dome).tiers[0].carving.volume.value == pytest.approx(ball_ml, rel=0.03)
    eight = around([math.pi * step / 4 for step in range(8)])
    free = tier(200, shape=FreeShape(points_mm=eight, smooth_corners=range(8)))
    own, plain = (planned(one).tiers[0] for one in (free, tier(200, shape=RoundShape())))
    assert own.coats.crumb_stays.value == pytest.approx(plain.coats.crumb_stays.value, rel=0.005)
    assert own.layers.cake_volume.value == pytest.approx(plain.layers.cake_volume.value, rel=0.005)


def test_views_and_sections_are_curved_alike():
    smooth = tuple(range(2, len(LOAF)))
    plain, side, front, along = (
        planned(carved(LOAF, 204, rounded=0.0, **more)).tiers[0].carving.volume.value
        for more in (
            {},
            {"smooth_corners": smooth},
            {"front_mm": LOAF, "front_smooth_corners": smooth},
            {"sections": [SectionAt(at=at, points_mm=LOAF, smooth_corners=smooth) for at in (0, 1)]},
        )
    )
    assert side != pytest.approx(plain, rel=0.01)
    assert front == pytest.approx(along, rel=1e-3)
    # Drawn out to the same box, the loaf's own form from the front is as large a share of it as the curved line encloses.
    line = Polygon(curved(LOAF, smooth))
    left, low, right, high = line.bounds
    assert front / plain == pytest.approx(line.area / ((right - left) * (high - low)), rel=0.06)


@pytest.mark.parametrize(
    ("make", "field"),
    [
        (lambda: CarvedBuild(points_mm=LOAF, smooth_corners=(2, 6)), ("smooth_corners", 1)),
        (lambda: CarvedBuild(points_mm=LOAF, front_smooth_corners=(0,)), ("front_smooth_corners", 0)),
        (lambda: FreeShape(points_mm=LOAF, smooth_corners=(99,)), ("smooth_corners", 0)),
        (lambda: SectionAt(at=0.5, smooth_corners=(1,)), ("smooth_corners", 0)),
    ],
)
def test_a_smooth_corner_that_is_not_drawn_is_refused_where_it_stands(make, field):
    with pytest.raises(ValidationError) as wrong:
        make()
    assert [error["ctx"]["path"] for error in wrong.value.errors()] == [list(field)]
