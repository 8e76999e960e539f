"""How a tier sweats when it leaves the cold: water from the kitchen's air settles on its face while that is colder than
the dew point, and dries off again.

Heat and water pass between face and air alike (Lewis relation), so the film of air says how fast both do. The heat that
settling water gives off is left out: it warms the face a little, so that the minutes are rather too many.
"""

from collections.abc import Sequence
from typing import Literal, NamedTuple

import numpy as np
import psychrolib
from scipy.integrate import cumulative_trapezoid

from amber_spread.core.clock.heat.air import Rooms
from amber_spread.core.clock.heat.conduction import TIMES_MIN, Array, Cooling, Layers, last_crossing
from amber_spread.core.kernel.caching import cached

psychrolib.SetUnitSystem(psychrolib.SI)
Wetness = Literal["", "a film", "beads", "runs"]
CONVECTION_FILM = 4.0
"""The part of the film on the bench that moving air makes, without radiation, W/(m² K) (from memory)."""
AIR_J_PER_M3_K = 1200.0
"""What warms a cubic metre of air by a degree (handbook value, from memory)."""
VAPOUR_J_PER_KG_K = 461.5
"""The gas constant of water vapour."""
KELVIN = 273.15
BEADS_G_PER_M2, RUNS_G_PER_M2 = 15.0, 60.0
"""From so much water on, a film becomes beads, and beads run (from memory)."""
_GRID_DEGC: Array = np.arange(-40.0, 60.0, 0.25)


class Sweat(NamedTuple):
    """The dew point, °C; how long a face is wet, min (0 if it stays dry; infinite if it does not dry); and how much
    water is on it at most, g/m².
    """

    dew_degc: float
    wet_min: float
    most_g_per_m2: float

    @property
    def wetness(self) -> Wetness:
        """How wet it looks."""
        if not self.wet_min:
            return ""
        most = self.most_g_per_m2
        return "a film" if most < BEADS_G_PER_M2 else "beads" if most < RUNS_G_PER_M2 else "runs"


def dew_point_degc(air_degc: float, humidity: float) -> float:
    """The temperature at which air of a relative humidity (0 to 1) gives off water, °C: psychrolib, after ASHRAE's
    Handbook of Fundamentals (2017), chapter 1.
    """
    return float(psychrolib.GetTDewPointFromRelHum(air_degc, humidity))


def sweat_of(faces: Sequence[Layers], rooms: Rooms, cold_degc: float) -> Sweat:
    """How the wettest of some faces sweats on the bench, if the tier comes out at `cold_degc` right through.

    Water settles at h / (rho c R T) x (pressure of vapour in the air - at the face), with h the film of moving air.
    """
    dew = dew_point_degc(rooms.bench.degc, rooms.humidity)
    if cold_degc >= dew:
        return Sweat(dew, 0.0, 0.0)
    in_air = float(psychrolib.GetVapPresFromRelHum(rooms.bench.degc, rooms.humidity))
    g_per_pa = 1000 / (VAPOUR_J_PER_KG_K * (rooms.bench.degc + KELVIN))
    per_min = 60 * CONVECTION_FILM / AIR_J_PER_M3_K * g_per_pa
    wet, most = 0.0, 0.0
    for layers in faces:
        face = Cooling(layers, rooms.bench, np.full(len(layers.degc), cold_degc)).face()
        water = cumulative_trapezoid(
            per_min * (in_air - np.interp(face, _GRID_DEGC, _saturated())), TIMES_MIN, initial=0.0
        )
        most = max(most, float(water.max()))
        wet = max(wet, last_crossing(water) if water.max() > 0 else 0.0)
    return Sweat(dew, wet, most)


@cached(1)
def _saturated() -> Array:
    """The pressure of vapour over water or ice at the temperatures of the grid, Pa."""
    found: Array = np.array([psychrolib.GetSatVapPres(float(one)) for one in _GRID_DEGC])
    return found
