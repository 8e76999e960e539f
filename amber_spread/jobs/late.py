"""Libraries the core imports only where it needs them, imported before anybody waits."""

from importlib import import_module

READ_LATE = (
    "contourpy", "pygeodesic.geodesic", "scipy.interpolate", "scipy.ndimage", "scipy.optimize", "scipy.sparse.csgraph",
    "scipy.sparse.linalg", "scipy.spatial",
)  # fmt: skip


def read_late() -> None:
    """Import all of them."""
    for name in READ_LATE:
        import_module(name)
