"""The kitchen as the clock sees it: its hands and places, and what its recipes make."""

from typing import Annotated

from fastapi import Depends

from amber_spread.core.clock import Kitchen
from amber_spread.core.stock.composition import Compositions, compositions_of
from amber_spread.web.pantry import KeptPantry
from amber_spread.web.places import PlacesNow


def _made_of(pantry: KeptPantry) -> Compositions:
    return compositions_of(pantry)


MadeOf = Annotated[Compositions, Depends(_made_of)]


def _kitchen(places: PlacesNow, made_of: MadeOf) -> Kitchen:
    return Kitchen(places, made_of)


KitchenOf = Annotated[Kitchen, Depends(_kitchen)]
