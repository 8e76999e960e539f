"""What one order or many take to the shop: packs, pooled bowls, money."""

from amber_spread.core.shop.shopping import GROUPS, Asked, Bought, Shopping, Want, shop

__all__ = ["Asked", "Bought", "GROUPS", "Shopping", "Want", "shop"]
