"""What a medium is: anything spread, piped, poured or rolled, with how heavy it is and how it behaves."""

from typing import Annotated, Literal

from amber_spread.core.base import Frozen, Hex, Key, Name
from amber_spread.core.figures import DEFINITION, FROM_MEMORY, Source, rule
from amber_spread.core.limits import DENSITY

MediumKind = Literal["buttercream", "ganache", "frosting", "filling", "fondant", "chocolate", "syrup"]
Allergen = Literal["milk", "egg", "wheat", "nuts", "soya"]


class Medium(Frozen):
    """One medium. `soft` runs when pressed and needs a dam; `perishable` must not stand out of the fridge long."""

    key: Key
    name: Name
    kind: MediumKind
    density_g_per_ml: Annotated[float, DENSITY.field()]
    density_source: Source = Source(origin="this kitchen")
    hex: Hex = "#EFE3CC"
    soft: bool = False
    crusting: bool = False
    suits_under_fondant: bool = True
    perishable: bool = False
    raw_egg: bool = False
    allergens: tuple[Allergen, ...] = ()


@rule(
    "media.weight", unit="g", formula="volume * density", source=DEFINITION,
    words="The volume, times how heavy the medium is.",
)  # fmt: skip
def weight(volume_ml: float, density_g_per_ml: float) -> float:
    """Weight, g: volume x density. Source: definition of density."""
    return volume_ml * density_g_per_ml


LIBRARY: tuple[Medium, ...] = (
    Medium(
        key="american_buttercream", name="American buttercream", kind="buttercream", density_g_per_ml=0.95,
        density_source=FROM_MEMORY, hex="#F3E3B5", crusting=True, allergens=("milk",),
    ),
    Medium(
        key="meringue_buttercream", name="Meringue buttercream", kind="buttercream", density_g_per_ml=0.75,
        density_source=FROM_MEMORY, hex="#F6ECCB", allergens=("milk", "egg"),
    ),
    Medium(
        key="dark_ganache", name="Dark ganache", kind="ganache", density_g_per_ml=1.2,
        density_source=FROM_MEMORY, hex="#5A3524", allergens=("milk", "soya"),
    ),
    Medium(
        key="cream_cheese_frosting", name="Cream-cheese frosting", kind="frosting", density_g_per_ml=1.0,
        density_source=FROM_MEMORY, hex="#F7EFDF", suits_under_fondant=False, perishable=True, allergens=("milk",),
    ),
    Medium(
        key="raspberry_jam", name="Raspberry jam", kind="filling", density_g_per_ml=1.35,
        density_source=Source(
            origin="from memory",
            reference="a US tablespoon (14.79 ml) of jam weighs 20 g in the USDA's food-composition table",
        ),
        hex="#B4374A", soft=True,
    ),
    Medium(
        key="lemon_curd", name="Lemon curd", kind="filling", density_g_per_ml=1.15,
        density_source=FROM_MEMORY, hex="#E8B02A", soft=True, perishable=True, allergens=("milk", "egg"),
    ),
    Medium(
        key="fondant", name="Fondant", kind="fondant", density_g_per_ml=1.35,
        density_source=FROM_MEMORY, hex="#EFE0DA",
    ),
    Medium(
        key="modelling_chocolate", name="Modelling chocolate", kind="fondant", density_g_per_ml=1.3,
        density_source=FROM_MEMORY, hex="#E9DCC4", allergens=("milk", "soya"),
    ),
    Medium(
        key="dark_chocolate", name="Dark chocolate", kind="chocolate", density_g_per_ml=1.3,
        density_source=FROM_MEMORY, hex="#4A2A1B", allergens=("milk", "soya"),
    ),
    Medium(
        key="syrup", name="Sugar syrup", kind="syrup", density_g_per_ml=1.23,
        density_source=Source(
            origin="from memory", reference="sugar and water in equal weights, 50 degrees Brix, at room temperature",
        ),
        hex="#E8D6A8",
    ),
)  # fmt: skip
"""The media that come with the program. A design file may replace any of them, by key, or add its own."""


BEATEN: tuple[MediumKind, ...] = ("buttercream", "ganache", "frosting")
"""The kinds that are beaten in a mixer, and so come in batches."""


def shelf(own: tuple[Medium, ...] = ()) -> dict[str, Medium]:
    """Every medium within reach, by key: the library with a kitchen's own laid over it."""
    return {medium.key: medium for medium in (*LIBRARY, *own)}
