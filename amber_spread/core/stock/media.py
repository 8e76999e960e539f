"""What a medium is: anything spread, piped, poured or rolled, with how heavy it is and how it behaves."""

from functools import cache
from typing import Annotated, Any, Literal

from amber_spread.core.kernel.base import Frozen, Hex, Key, Name, Note
from amber_spread.core.kernel.figures import DEFINITION, FROM_MEMORY, Source, rule
from amber_spread.core.kernel.limits import DENSITY
from amber_spread.core.kernel.units import ML_PER_US_CUP

MediumKind = Literal["buttercream", "ganache", "frosting", "filling", "fondant", "chocolate", "syrup", "glaze"]
MEDIUM_KINDS: dict[MediumKind, str] = {
    "buttercream": "buttercream", "ganache": "ganache", "frosting": "frosting", "filling": "filling", "glaze": "glaze",
    "fondant": "fondant or another sheet", "chocolate": "chocolate", "syrup": "syrup",
}  # fmt: skip
"""Every kind of medium, and what people call it."""
Ability = Literal["fill", "dam", "coat", "pour", "roll", "set", "soak"]
ABILITIES: dict[Ability, str] = {
    "fill": "be spread between layers",
    "dam": "be piped as a dam that stands up",
    "coat": "be spread as a coat or piped, and hold its form",
    "pour": "be poured over as a glaze",
    "roll": "be rolled out into a sheet",
    "set": "set as a thin collar",
    "soak": "soak into cake",
}
"""What a medium may have to do, in the words of a sentence."""
CAN: dict[MediumKind, tuple[Ability, ...]] = {
    "buttercream": ("fill", "dam", "coat"),
    "ganache": ("fill", "dam", "coat"),
    "frosting": ("fill", "dam", "coat"),
    "filling": ("fill",),
    "glaze": ("pour",),
    "fondant": ("roll",),
    "chocolate": ("set",),
    "syrup": ("soak",),
}
"""What each kind of medium can do (common practice)."""
Allergen = Literal["milk", "egg", "wheat", "nuts", "peanut", "soya", "sesame", "sulphites"]


class Medium(Frozen):
    """One medium. `soft` runs when pressed and needs a dam; `perishable` must not stand out of the fridge long.

    `firms` says in words how it sets, and so what can be done with it when.
    """

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
    firms: Note = ""

    def can(self, *abilities: Ability) -> bool:
        """Whether it can do one of these; what runs when it is pressed stands up as no dam."""
        return _can(self.kind, self.soft, abilities)


@cache
def _can(kind: MediumKind, soft: bool, abilities: tuple[Ability, ...]) -> bool:
    return any(one in CAN[kind] and not (one == "dam" and soft) for one in abilities)


def kinds_that(*abilities: Ability) -> tuple[MediumKind, ...]:
    """Every kind of medium that can do one of these, in their order."""
    return tuple(kind for kind, can in CAN.items() if any(one in can for one in abilities))


@rule(
    "media.weight",
    unit="g",
    formula="volume * density",
    source=DEFINITION,
    words="The volume, times how heavy the medium is.",
)
def weight(volume_ml: float, density_g_per_ml: float) -> float:
    """Weight, g: volume x density. Source: definition of density.

    >>> weight(649, 0.75)
    486.75
    """
    return volume_ml * density_g_per_ml


_TABLE = "the USDA's food-composition table (FoodData Central, SR Legacy); cited from memory"


def _weighed(of: str, grams: float, measure: str, ml: float) -> dict[str, Any]:
    """A density from a household measure in an official food-composition table."""
    source = Source(origin="published", reference=f"{measure} of {of} weighs {grams:g} g in {_TABLE}")
    return {"density_g_per_ml": round(grams / ml, 3), "density_source": source}


def _guessed(density: float) -> dict[str, Any]:
    return {"density_g_per_ml": density, "density_source": FROM_MEMORY}


_BUTTERY = "Firms in the fridge in about 30 minutes and softens again in a warm room."
_CRUSTED = "Dries to a thin crust within some ten minutes; firms in the fridge in about 30."
_SET = "Sets within hours at room temperature, sooner in the fridge, and stays firm longer than buttercream."
_NEVER = "Stays soft."

LIBRARY: tuple[Medium, ...] = (
    Medium(
        key="american_buttercream", name="American buttercream", kind="buttercream", **_guessed(0.95), hex="#F3E3B5",
        crusting=True, allergens=("milk",), firms=_CRUSTED,
    ),
    Medium(
        key="shortening_buttercream", name="Shortening buttercream", kind="buttercream", **_guessed(0.92),
        hex="#FBF8F0", crusting=True, firms=_CRUSTED,
    ),
    Medium(
        key="meringue_buttercream", name="Meringue buttercream", kind="buttercream", **_guessed(0.75), hex="#F6ECCB",
        allergens=("milk", "egg"), firms=_BUTTERY,
    ),
    Medium(
        key="custard_buttercream", name="Custard buttercream", kind="buttercream", **_guessed(0.85), hex="#F5E2A0",
        perishable=True, allergens=("milk", "egg"), firms=_BUTTERY,
    ),
    Medium(
        key="flour_buttercream", name="Cooked-flour buttercream", kind="buttercream", **_guessed(0.80), hex="#F8F0DC",
        allergens=("milk", "wheat"), firms=_BUTTERY,
    ),
    Medium(
        key="dark_ganache", name="Dark ganache", kind="ganache", **_guessed(1.2), hex="#5A3524",
        allergens=("milk", "soya"), firms=_SET,
    ),
    Medium(
        key="milk_ganache", name="Milk ganache", kind="ganache", **_guessed(1.18), hex="#8E6142",
        allergens=("milk", "soya"), firms=f"{_SET} Softer than dark at the same ratio.",
    ),
    Medium(
        key="white_ganache", name="White ganache", kind="ganache", **_guessed(1.15), hex="#F0E3C2",
        allergens=("milk", "soya"), firms=f"{_SET} The softest of the three, so it takes the most chocolate.",
    ),
    Medium(
        key="cream_cheese_frosting", name="Cream-cheese frosting", kind="frosting", **_guessed(1.0), hex="#F7EFDF",
        suits_under_fondant=False, perishable=True, allergens=("milk",), firms="Firms a little in the fridge only.",
    ),
    Medium(
        key="whipped_cream", name="Whipped cream", kind="frosting",
        **_weighed("heavy cream, whipped,", 120, "a US cup", ML_PER_US_CUP), hex="#FBF6EA", soft=True,
        suits_under_fondant=False, perishable=True, allergens=("milk",), firms="Stays soft and weeps in time.",
    ),
    Medium(
        key="raspberry_jam", name="Raspberry jam", kind="filling",
        **_weighed("jam", 20, "a US tablespoon", ML_PER_US_CUP / 16), hex="#B4374A", soft=True, firms=_NEVER,
    ),
    Medium(
        key="lemon_curd", name="Lemon curd", kind="filling", **_guessed(1.15), hex="#E8B02A", soft=True,
        perishable=True, allergens=("milk", "egg"), firms="Thickens in the fridge and never sets hard.",
    ),
    Medium(
        key="pastry_cream", name="Pastry cream", kind="filling", **_guessed(1.08), hex="#F1DC94", soft=True,
        perishable=True, allergens=("milk", "egg"), firms="Thickens in the fridge and never sets hard.",
    ),
    Medium(
        key="caramel", name="Soft caramel", kind="filling", **_guessed(1.3), hex="#B9742C", soft=True,
        allergens=("milk",), firms="Thickens as it cools and runs again in the warm.",
    ),
    Medium(
        key="mirror_glaze", name="Mirror glaze", kind="glaze", **_guessed(1.25), hex="#E7DCCB", soft=True,
        suits_under_fondant=False, perishable=True, allergens=("milk", "soya"),
        firms="Is poured at about 32 °C over a frozen face and sets to a soft gel within minutes.",
    ),
    Medium(
        key="fondant", name="Fondant", kind="fondant", **_guessed(1.35), hex="#FBFAF6",
        firms="Skins over in minutes when left open; firms over a day.",
    ),
    Medium(
        key="gum_paste", name="Gum paste", kind="fondant", **_guessed(1.35), hex="#F6F0E6",
        firms="Dries hard within hours to days: for pieces that stand, not for covering.",
    ),
    Medium(
        key="modelling_chocolate", name="Modelling chocolate", kind="fondant", **_guessed(1.3), hex="#E9DCC4",
        allergens=("milk", "soya"), firms="Firms as it cools; warm hands soften it again.",
    ),
    Medium(
        key="dark_chocolate", name="Dark chocolate", kind="chocolate", **_guessed(1.3), hex="#4A2A1B",
        allergens=("milk", "soya"), firms="Sets within minutes once tempered.",
    ),
    Medium(
        key="milk_chocolate", name="Milk chocolate", kind="chocolate", **_guessed(1.3), hex="#7B4E32",
        allergens=("milk", "soya"), firms="Sets within minutes once tempered.",
    ),
    Medium(
        key="white_chocolate", name="White chocolate", kind="chocolate", **_guessed(1.3), hex="#F3E8CB",
        allergens=("milk", "soya"), firms="Sets within minutes once tempered.",
    ),
    Medium(
        key="syrup", name="Sugar syrup", kind="syrup", density_g_per_ml=1.23,
        density_source=Source(
            origin="from memory", reference="sugar and water in equal weights, 50 degrees Brix, at room temperature",
        ),
        hex="#E8D6A8", firms=_NEVER,
    ),
)  # fmt: skip
"""The media that come with the program. A design file may replace any of them, by key, or add its own."""


LEFTOVER: dict[MediumKind, str] = {
    "buttercream": "Freeze it flat in a bag for the next crumb coat or filling, where crumbs and tint do not show.",
    "ganache": "Warm it for drips, roll it into truffles, or chill it for the next crumb coat.",
    "frosting": "Fill small cakes with it the same day; it does not keep.",
    "filling": "Layer it in jars with the offcuts of the cake.",
    "fondant": "Wrap it airtight; cut leaves and borders from it, or knead in gum for pieces that stand.",
    "chocolate": "Let it set on paper and melt it again for ganache.",
    "syrup": "Chill it in a clean bottle for the next layers.",
    "glaze": "Sieve and chill it; warmed again it covers small cakes.",
}
"""What is usually done with what is left of each kind (common practice)."""


BEATEN: tuple[MediumKind, ...] = ("buttercream", "ganache", "frosting")
"""The kinds that are beaten in a mixer, and so come in batches."""


def shelf(own: tuple[Medium, ...] = ()) -> dict[str, Medium]:
    """Every medium within reach, by key: the library with a kitchen's own laid over it."""
    return {medium.key: medium for medium in (*LIBRARY, *own)}
