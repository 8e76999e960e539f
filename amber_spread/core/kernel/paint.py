"""What a drawn part or a flat piece is filled with: a colour of the order or of its medium, else a material by name.

How a material looks is for each drawing to choose.
"""

from typing import Literal, TypeAlias

Material = Literal["sponge", "board", "support", "dowel", "paper", "film", "printed"]
Paint: TypeAlias = str
"""A colour as "#RRGGBB", or a Material."""
