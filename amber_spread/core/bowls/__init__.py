"""What one bowl must hold for all its steps, how far that may run over, how mixes are split, and what is left."""

from amber_spread.core.bowls.bases import Base, plan_bases
from amber_spread.core.bowls.bowl_checks import bought_coloured, checks_of_bowls
from amber_spread.core.bowls.bowls import Bowl, fill_bowl
from amber_spread.core.bowls.leftovers import leftovers_of
from amber_spread.core.bowls.reserve import normals
from amber_spread.core.bowls.served import Covering, bowls_of, covering_of, forget_bowls

__all__ = [
    "Base",
    "Bowl",
    "Covering",
    "bought_coloured",
    "bowls_of",
    "checks_of_bowls",
    "covering_of",
    "fill_bowl",
    "forget_bowls",
    "leftovers_of",
    "normals",
    "plan_bases",
]
