"""Hollows of carved bodies against closed forms: a dish, a groove and an inner corner of known radius."""

import pytest
from manifold3d import Manifold

from amber_spread.core.geometry.bodies.meshed import meshed
from amber_spread.core.geometry.bodies.sculpted import Sculpted
from amber_spread.core.geometry.sheets.hollows import hollows_of

COAT = 6.0


def coated(solid):
    return Sculpted(meshed(solid)).envelope(COAT, COAT)


@pytest.mark.parametrize(
    "solid",
    [
        Manifold.cube([200, 140, 90], True),
        Manifold.sphere(100, 72).trim_by_plane([0, 0, 1], -20),
        Manifold.cylinder(90, 110, 60, 72),
    ],
    ids=["box", "ball", "cone"],
)
def test_what_bulges_everywhere_is_reached_by_a_flat_smoother(solid):
    found = hollows_of(coated(solid))
    assert found.flat > 0.97
    assert found.radius is None


@pytest.mark.parametrize("radius", [45.0, 70.0])
def test_a_dish_asks_for_its_own_radius(radius):
    """A ball let into the top by all but a quarter of it; under a coat its radius is that much less."""
    block = Manifold.cube([200, 200, 100], True).translate([0, 0, 50])
    dish = block - Manifold.sphere(radius, 96).translate([0, 0, 100 + radius / 2 - 20])
    found = hollows_of(coated(dish))
    assert found.flat < 0.95
    assert found.radius == pytest.approx(radius - COAT, rel=0.2)


def test_a_groove_asks_for_its_own_radius_and_a_wider_one_for_more():
    block = Manifold.cube([200, 160, 100], True).translate([0, 0, 50])
    asked = []
    for radius in (35.0, 60.0):
        rod = Manifold.cylinder(400, radius, radius, 96, True).rotate([90, 0, 0])
        asked.append(hollows_of(coated(block - rod.translate([0, 0, 100]))).radius)
    assert asked[0] == pytest.approx(35 - COAT, rel=0.3)
    assert asked[1] == pytest.approx(60 - COAT, rel=0.3)
    assert asked[0] < asked[1]
