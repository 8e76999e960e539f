"""What a kitchen has to do with: media, recipes, ingredients and goods, its pantry and its kit."""

from amber_spread.core.stock.contents import Contents
from amber_spread.core.stock.ingredients import Ingredient
from amber_spread.core.stock.kit import Kit, KitNeed
from amber_spread.core.stock.media import Medium
from amber_spread.core.stock.pantry import Pantry
from amber_spread.core.stock.recipes import Recipe

__all__ = ["Contents", "Ingredient", "Kit", "KitNeed", "Medium", "Pantry", "Recipe"]
