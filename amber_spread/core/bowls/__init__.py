"""What one bowl must hold for all its steps, how far that may run over, how mixes are split, and what is left."""

from amber_spread.core.bowls.bases import Base, plan_bases
from amber_spread.core.bowls.bowl_checks import bought_coloured, checks_of_bowls
from amber_spread.core.bowls.bowls import Bowl, Mixer, fill_bowl
from amber_spread.core.bowls.leftovers import leftovers_of
from amber_spread.core.bowls.reserve import forget_walks, normals

__all__ = [
    "Base",
    "Bowl",
    "Mixer",
    "bought_coloured",
    "checks_of_bowls",
    "fill_bowl",
    "forget_walks",
    "leftovers_of",
    "normals",
    "plan_bases",
]
