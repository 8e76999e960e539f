"""Thermal properties of what a tier is made of, from its composition and its density.

Each component follows the polynomials of Y. Choi and M. R. Okos, "Effects of temperature and composition on the thermal
properties of foods" (Food Engineering and Process Applications, vol. 1, 1986), as ASHRAE's handbook on refrigeration
prints them; cited from memory. Water stays liquid here: sugar keeps a coat from freezing in the minutes it firms in.
"""

import math
from collections.abc import Iterable
from typing import NamedTuple

import numpy as np

from amber_spread.core.kernel.caching import cached
from amber_spread.core.stock.composition import Composition

AIR_W_PER_MK = 0.025
"""Conductivity of still air near 10 °C (published: handbooks of heat transfer; from memory)."""


class Polynomial(NamedTuple):
    """a + b T + c T², T in °C."""

    a: float
    b: float
    c: float = 0.0

    def at(self, degc: float) -> float:
        """Its value at a temperature, °C."""
        return self.a + (self.b + self.c * degc) * degc


class Component(NamedTuple):
    """Conductivity, W/(m K), density, kg/m³, and heat capacity, kJ/(kg K), by temperature."""

    conductivity: Polynomial
    density: Polynomial
    heat_capacity: Polynomial


class Fat(NamedTuple):
    """A fat that melts: the heat it takes to melt all of it, kJ/kg, how much of it is solid at some temperatures, °C,
    and the temperature below which a coat made with it keeps its shape.
    """

    latent_kj_per_kg: float
    solid: tuple[tuple[float, float], ...]
    holds_degc: float


_FAT = Component(
    Polynomial(0.18071, -2.7604e-4, -1.7749e-7),
    Polynomial(925.59, -0.41757),
    Polynomial(1.9842, 1.4733e-3, -4.8008e-6),
)
COMPONENTS: dict[str, Component] = {
    "water": Component(
        Polynomial(0.57109, 1.7625e-3, -6.7036e-6),
        Polynomial(997.18, 3.1439e-3, -3.7574e-3),
        Polynomial(4.1762, -9.0864e-5, 5.4731e-6),
    ),
    "protein": Component(
        Polynomial(0.17881, 1.1958e-3, -2.7178e-6),
        Polynomial(1329.9, -0.5184),
        Polynomial(2.0082, 1.2089e-3, -1.3129e-6),
    ),
    "milk_fat": _FAT,
    "cocoa_butter": _FAT,
    "shortening": _FAT,
    "oil": _FAT,
    "carbohydrate": Component(
        Polynomial(0.20141, 1.3874e-3, -4.3312e-6),
        Polynomial(1599.1, -0.31046),
        Polynomial(1.5488, 1.9625e-3, -5.9399e-6),
    ),
    "fibre": Component(
        Polynomial(0.18331, 1.2497e-3, -3.1683e-6),
        Polynomial(1311.5, -0.36589),
        Polynomial(1.8459, 1.8306e-3, -4.6509e-6),
    ),
    "ash": Component(
        Polynomial(0.32962, 1.4011e-3, -2.9069e-6),
        Polynomial(2423.8, -0.28063),
        Polynomial(1.0926, 1.8896e-3, -3.6817e-6),
    ),
}
"""Every part of a composition, by its name and in its order there."""
FATS: dict[str, Fat] = {
    "milk_fat": Fat(
        80.0, ((0, 0.55), (5, 0.48), (10, 0.42), (15, 0.30), (20, 0.17), (25, 0.09), (30, 0.04), (36, 0)), 12.0
    ),
    "cocoa_butter": Fat(150.0, ((0, 0.95), (10, 0.90), (20, 0.76), (25, 0.70), (30, 0.42), (33, 0.10), (36, 0)), 18.0),
    "shortening": Fat(100.0, ((0, 0.45), (10, 0.32), (20, 0.22), (30, 0.13), (40, 0.05), (48, 0)), 14.0),
}
"""The fats that firm in the cold (from memory; butter holds a coat below about 12 °C)."""
LEAST_FAT = 0.1
"""What has less of these fats does not firm in the cold (from memory)."""


class Material(NamedTuple):
    """Conductivity, W/(m K), and heat capacity by volume, kJ/(m³ K), between two temperatures."""

    conductivity: float
    heat_capacity: float


def _parts(composition: Composition) -> Iterable[tuple[float, Component]]:
    return zip(composition, COMPONENTS.values(), strict=True)


def _fats(composition: Composition) -> list[tuple[float, Fat]]:
    shares = dict(zip(COMPONENTS, composition, strict=True))
    return [(shares[name], fat) for name, fat in FATS.items()]


def holds_degc(composition: Composition) -> float | None:
    """The temperature below which it keeps its shape, °C: that of its fats, by their weights. None where fats that firm
    make up less than `LEAST_FAT` of it, so that no fridge makes it firm. Source: from memory.

    >>> holds_degc(Composition(milk_fat=0.5, water=0.5))
    12.0
    """
    fats = _fats(composition)
    weight = sum(share for share, _ in fats)
    return None if weight < LEAST_FAT else sum(share * fat.holds_degc for share, fat in fats) / weight


def solid_share(fat: Fat, degc: float) -> float:
    """How much of a fat is solid at a temperature, between its points in straight lines."""
    at, shares = zip(*fat.solid, strict=True)
    return float(np.interp(degc, at, shares))


def true_density(composition: Composition, degc: float) -> float:
    """Density without the air beaten in, kg/m³: 1 / sum (share / density of the component)."""
    return 1 / sum(share / one.density.at(degc) for share, one in _parts(composition))


def conductivity(composition: Composition, degc: float) -> float:
    """Conductivity without the air beaten in, W/(m K): the geometric mean of the components by their volumes, as of
    a mixture without order. Source: K. Lichtenecker (1926); from memory. Side by side they would carry a fifth more
    heat than butter does.
    """
    density = true_density(composition, degc)
    return math.exp(
        sum(
            share * density / one.density.at(degc) * math.log(one.conductivity.at(degc))
            for share, one in _parts(composition)
        )
    )


def heat_capacity(composition: Composition, warm_degc: float, cold_degc: float) -> float:
    """Mean heat capacity between two temperatures, kJ/(kg K): by weight, and what fats give off as they set.

    Apparent heat capacity of a fat: c + latent heat x (solid at the cold end - solid at the warm end) / difference.
    """
    degc, apart = (warm_degc + cold_degc) / 2, warm_degc - cold_degc
    found = sum(share * one.heat_capacity.at(degc) for share, one in _parts(composition))
    if apart > 0:
        for share, fat in _fats(composition):
            setting = solid_share(fat, cold_degc) - solid_share(fat, warm_degc)
            found += share * fat.latent_kj_per_kg * setting / apart
    return found


def with_air(solid: float, porosity: float) -> float:
    """Conductivity of a food with bubbles of air in it, W/(m K), by Maxwell's formula for spheres in a medium:
    k (2k + a - 2p (k - a)) / (2k + a + p (k - a)). Source: J. C. Maxwell, A Treatise on Electricity and Magnetism
    (1873), as Eucken applied it to heat; from memory.
    """
    apart = solid - AIR_W_PER_MK
    sum_of_both = 2 * solid + AIR_W_PER_MK
    return solid * (sum_of_both - 2 * porosity * apart) / (sum_of_both + porosity * apart)


@cached(256)
def material(composition: Composition, density_g_per_ml: float, warm_degc: float, cold_degc: float) -> Material:
    """What something of this composition and density is between two temperatures, °C. The porosity is what its density
    lacks of the density of its components.
    """
    degc, density = (warm_degc + cold_degc) / 2, 1000 * density_g_per_ml
    porosity = min(0.95, max(0.0, 1 - density / true_density(composition, degc)))
    return Material(
        with_air(conductivity(composition, degc), porosity),
        density * heat_capacity(composition, warm_degc, cold_degc),
    )
