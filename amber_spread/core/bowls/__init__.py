"""What one bowl must hold for all its steps, how far that may run over, how mixes are split, and what is left."""

from amber_spread.core.bowls.bases import Base
from amber_spread.core.bowls.bowl_checks import bought_coloured
from amber_spread.core.bowls.bowls import Bowl, Care, fill_bowl
from amber_spread.core.bowls.cover_tasks import COVER_TASKS
from amber_spread.core.bowls.sample import normals
from amber_spread.core.bowls.served import Mixed, mix

__all__ = [
    "Base",
    "Bowl",
    "COVER_TASKS",
    "Care",
    "Mixed",
    "bought_coloured",
    "fill_bowl",
    "mix",
    "normals",
]
