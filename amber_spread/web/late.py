"""What the core reads only where it is needed, read before anybody waits for it."""

from importlib import import_module

READ_LATE = (
    "contourpy", "pygeodesic.geodesic", "scipy.interpolate", "scipy.ndimage", "scipy.optimize", "scipy.sparse.csgraph",
    "scipy.sparse.linalg", "scipy.spatial",
)  # fmt: skip


def read_late() -> None:
    """Read all of it."""
    for name in READ_LATE:
        import_module(name)
