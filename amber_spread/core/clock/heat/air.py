"""The air a tier stands in: on the bench, in the fridge and in the freezer.

Films are handbook values for free convection with radiation, 5 to 25 W/(m² K); from memory.
"""

from typing import NamedTuple

from amber_spread.core.design.practice import Practice

FRIDGE_FILM = 9.0
"""A fridge without a fan; with one it is 15 or more."""
FREEZER_FILM = 12.0
BENCH_FILM = 8.0
ON_A_BOARD_FILM = 4.0
"""A face that lies on a board on a shelf."""


class Air(NamedTuple):
    """The air round a tier: its temperature, °C, and its film, W/(m² K): how well it takes heat off a face."""

    degc: float
    film: float


class Rooms(NamedTuple):
    """The air on the bench, in the fridge and in the freezer of a kitchen, and its relative `humidity` on the bench."""

    bench: Air
    fridge: Air
    freezer: Air
    humidity: float

    @classmethod
    def of(cls, usual: Practice) -> "Rooms":
        """Those of a kitchen, by how warm they are and how well they cool."""
        return cls(
            Air(usual.kitchen_degc, BENCH_FILM),
            Air(usual.fridge_degc, usual.fridge_pace * FRIDGE_FILM),
            Air(usual.freezer_degc, usual.freezer_pace * FREEZER_FILM),
            usual.kitchen_humidity,
        )
