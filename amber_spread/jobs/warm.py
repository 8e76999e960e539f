"""What a process does before anyone waits for it: the work that all plans share, and short garbage collections."""

import gc
from importlib import import_module

from amber_spread.core.bowls import normals
from amber_spread.core.design import Design, Tier
from amber_spread.core.document import FORMAT, Document
from amber_spread.jobs.designs import written

READ_LATE = (
    "contourpy", "pygeodesic.geodesic", "scipy.interpolate", "scipy.ndimage", "scipy.optimize", "scipy.sparse.csgraph",
    "scipy.sparse.linalg", "scipy.spatial",
)  # fmt: skip
"""Libraries that the core imports only where it needs them."""
FIRST_CAKE = Document(format=FORMAT, title="A first cake", design=Design(tiers=(Tier(tin_diameter_mm=200.0),)))
GC_THRESHOLDS = (5_000, 3, 3)
"""A full collection looks at 80,000 new objects at most (some 50 ms); with the usual thresholds at a million."""


def warm() -> None:
    """Import what is imported late, and compute what every plan shares by planning a first cake."""
    for name in READ_LATE:
        import_module(name)
    normals()
    written(FIRST_CAKE, None, None)


def short_collections() -> None:
    """Keep the pauses of the garbage collector short, however much the caches hold."""
    gc.collect()
    gc.freeze()
    # A plan makes some five thousand objects and no cycles. A third of them stay, in caches.
    gc.set_threshold(*GC_THRESHOLDS)
    if set_aside not in gc.callbacks:
        gc.callbacks.append(set_aside)


def set_aside(phase: str, found: dict[str, int]) -> None:
    """Set aside all that survives a full collection: the next one does not look at it again, and stays short."""
    if phase == "stop" and found["generation"] == 2:
        gc.freeze()
