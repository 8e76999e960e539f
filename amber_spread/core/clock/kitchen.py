"""What the clock of an order depends on beside the order: the kitchen's hands and places, and what its recipes make."""

from typing import NamedTuple

from amber_spread.core.clock.places import Places
from amber_spread.core.stock.composition import NO_RECIPES, Compositions


class Kitchen(NamedTuple):
    """Who works where, and what the recipes in use make media of."""

    places: Places = Places()
    made_of: Compositions = NO_RECIPES


STARTING_KITCHEN = Kitchen()
"""A kitchen that has set nothing yet."""
