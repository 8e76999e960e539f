"""What the clock of an order needs to know of the kitchen: hands, places and recipes."""

from typing import NamedTuple

from amber_spread.core.clock.places import Places
from amber_spread.core.stock.composition import NO_RECIPES, Compositions


class Kitchen(NamedTuple):
    """Its hands and places, and the compositions of its media by the recipes in use."""

    places: Places = Places()
    made_of: Compositions = NO_RECIPES


STARTING_KITCHEN = Kitchen()
"""A kitchen with nothing set."""
