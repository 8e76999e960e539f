"""How materials look, on paper and on screen: `./amber schemas` writes this table into the frontend."""

from types import MappingProxyType

from amber_spread.core.kernel.paint import Material, Paint

PALETTE: MappingProxyType[str, str] = MappingProxyType[Material, str](
    {
        "sponge": "#E5C489",
        "board": "#D9BF8C",
        "support": "#BFE0DF",
        "dowel": "#D9B98A",
        "paper": "#FFFDF7",
        "film": "#DCE7E6",
        "printed": "#FBF7EE",
    }
)


def hex_of(paint: Paint) -> str:
    """The colour of what is drawn, as "#RRGGBB"."""
    return PALETTE.get(paint, paint)
