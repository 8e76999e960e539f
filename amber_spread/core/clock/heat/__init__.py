"""How a tier cools and warms: its materials, the air round it, and how long its coats take to firm."""

from amber_spread.core.clock.heat.air import Air, Rooms
from amber_spread.core.clock.heat.firming import Firming, Level, Shell, Spread, firming_of, minutes_of, pace_from

__all__ = ["Air", "Firming", "Level", "Rooms", "Shell", "Spread", "firming_of", "minutes_of", "pace_from"]
