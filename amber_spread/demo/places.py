"""The hands and places of the demo: two pairs of hands, one oven, a fridge of three shelves and one freezer drawer."""

from amber_spread.core.clock import Places
from amber_spread.core.clock.places import ColdShelf, Hands, WorkingDay
from amber_spread.demo.inches import inches

_EARLY, _DAY, _SHORT = (
    WorkingDay(begins_min=begins * 60.0, ends_min=ends * 60.0) for begins, ends in ((6, 15), (8, 18), (8, 13))
)
PLACES = Places(
    hands=(
        Hands(name="Wren", week=(_DAY, _DAY, _DAY, _DAY, _DAY, _DAY, _SHORT)),
        Hands(name="Linnet", week=(None, _EARLY, _EARLY, _EARLY, _EARLY, _EARLY, None)),
    ),
    fridge=(ColdShelf(width_mm=inches(24), depth_mm=inches(24), height_mm=inches(16)),) * 3,
    freezer=(ColdShelf(width_mm=inches(16), depth_mm=inches(16), height_mm=inches(9)),),
)
"""Linnet begins with the ovens at six; on Sundays there is a morning for what is due at the fair's end."""
