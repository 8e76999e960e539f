"""What one order or many take to the shop: packs, pooled bowls, money."""

from amber_spread.core.shop.bill import Bill, bill_of
from amber_spread.core.shop.shopping import GROUPS, Asked, Bought, Shopping, Want, shop

__all__ = ["Asked", "Bill", "Bought", "GROUPS", "Shopping", "Want", "bill_of", "shop"]
