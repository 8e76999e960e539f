"""The recipes that come with the program: plain starting points, to be replaced by each kitchen's own.

Amounts are common practice where a ratio is named, and this program's own starting values otherwise.
"""

from amber_spread.core.kernel.base import Key
from amber_spread.core.stock.recipes import LineUnit, Recipe, RecipeLine

HOT_SUGAR = "Boiling sugar burns deep: keep children away, and a bowl of cold water beside you."
RAW_EGG = "Use pasteurised egg where your local food code asks for it."


def _line(item: Key, amount: float, unit: LineUnit = "g", whole: bool = False) -> RecipeLine:
    return RecipeLine(item=item, amount=amount, unit=unit, whole=whole)


def _recipe(key: Key, name: str, lines: tuple[RecipeLine, ...], *steps: str, makes: Key | None = None) -> Recipe:
    return Recipe(key=key, name=name, makes=makes or key, lines=lines, steps=steps)


def _cake(key: Key, name: str, batter: float, lines: tuple[RecipeLine, ...], *steps: str) -> Recipe:
    return Recipe(
        key=key, name=name, makes=key, cake=True, batter_g_per_ml=batter, lines=lines, steps=steps, by_quarters=True
    )


def _ganache(key: Key, name: str, chocolate: Key, ratio: float, makes: Key) -> Recipe:
    """Chocolate to cream by weight, as many to one (common practice)."""
    return _recipe(
        key,
        name,
        (_line(chocolate, 250 * ratio), _line("cream", 250)),
        "Bring the cream just to the boil; it rises in the pan, so leave room.",
        "Pour it over the chopped chocolate, wait two minutes, and stir from the middle until it shines.",
        "Leave it covered until it spreads like butter, some hours or overnight.",
        makes=makes,
    )


RECIPES: tuple[Recipe, ...] = (
    _recipe(
        "american_buttercream", "American buttercream",
        (_line("butter", 250), _line("icing_sugar", 500), _line("whole_milk", 30, "ml"), _line("vanilla", 5, "ml")),
        "Beat the soft butter pale.", "Beat in the sugar in three lots, then the milk and vanilla.",
    ),
    _recipe(
        "shortening_buttercream", "Shortening buttercream",
        (_line("shortening", 250), _line("icing_sugar", 500), _line("water", 40, "ml"), _line("vanilla", 5, "ml")),
        "Beat the fat smooth.", "Beat in the sugar in three lots, then the water and vanilla.",
    ),
    _recipe(
        "meringue_buttercream", "Meringue buttercream",
        (_line("egg_white", 5, "each", True), _line("sugar", 330), _line("butter", 500), _line("vanilla", 10, "ml")),
        f"Warm whites and sugar over simmering water, stirring, until no grain is felt. {RAW_EGG}",
        "Whisk to a stiff, cool meringue.", "Beat in the butter piece by piece; if it curdles, keep beating.",
    ),
    _recipe(
        "custard_buttercream", "Custard buttercream",
        (_line("whole_milk", 250, "ml"), _line("egg_yolk", 3, "each", True), _line("sugar", 120),
         _line("cornflour", 25), _line("butter", 350)),
        f"Cook milk, yolks, sugar and cornflour to a thick custard, let it boil a minute, and chill. {RAW_EGG}",
        "Beat the soft butter pale, then beat in the cold custard by spoonfuls.",
    ),
    _recipe(
        "flour_buttercream", "Cooked-flour buttercream",
        (_line("whole_milk", 250, "ml"), _line("plain_flour", 45), _line("sugar", 200), _line("butter", 230)),
        "Cook milk, flour and sugar to a thick paste, stirring all the time, and chill.",
        "Beat the soft butter pale, then beat in the cold paste by spoonfuls.",
    ),
    _ganache("dark_ganache", "Dark ganache, 2 : 1", "dark_chocolate", 2.0, "dark_ganache"),
    _ganache("dark_ganache_hot", "Dark ganache for hot weather, 2.5 : 1", "dark_chocolate", 2.5, "dark_ganache"),
    _ganache("milk_ganache", "Milk ganache, 2.5 : 1", "milk_chocolate", 2.5, "milk_ganache"),
    _ganache("milk_ganache_hot", "Milk ganache for hot weather, 3 : 1", "milk_chocolate", 3.0, "milk_ganache"),
    _ganache("white_ganache", "White ganache, 3 : 1", "white_chocolate", 3.0, "white_ganache"),
    _ganache("white_ganache_hot", "White ganache for hot weather, 3.5 : 1", "white_chocolate", 3.5, "white_ganache"),
    _recipe(
        "cream_cheese_frosting", "Cream-cheese frosting",
        (_line("butter", 200), _line("icing_sugar", 300), _line("cream_cheese", 400)),
        "Beat the soft butter and sugar pale.", "Fold in the cold cheese and stop as soon as it is smooth.",
    ),
    _recipe(
        "whipped_cream", "Whipped cream", (_line("cream", 500), _line("icing_sugar", 40)),
        "Whisk cold cream and sugar until it holds its shape, and keep it cold.",
    ),
    _recipe(
        "lemon_curd", "Lemon curd",
        (_line("lemon_juice", 200, "ml"), _line("sugar", 250), _line("egg", 4, "each", True), _line("butter", 150)),
        f"Cook juice, sugar and eggs over simmering water, stirring, until it coats the spoon. {RAW_EGG}",
        "Off the heat, beat in the butter; sieve, cover and chill.",
    ),
    _recipe(
        "pastry_cream", "Pastry cream",
        (_line("whole_milk", 500, "ml"), _line("egg_yolk", 6, "each", True), _line("sugar", 110),
         _line("cornflour", 40), _line("butter", 30)),
        f"Cook milk, yolks, sugar and cornflour, stirring, and let it boil a minute. {RAW_EGG}",
        "Beat in the butter, lay film on the face, and chill.",
    ),
    _recipe(
        "caramel", "Soft caramel", (_line("sugar", 300), _line("cream", 250), _line("butter", 60), _line("salt", 3)),
        f"Melt the sugar dry until it is amber. {HOT_SUGAR}",
        "Off the heat, pour in the warm cream little by little; it spits. Stir in butter and salt and let it cool.",
    ),
    _recipe(
        "mirror_glaze", "Mirror glaze",
        (_line("water", 150, "ml"), _line("sugar", 300), _line("glucose_syrup", 300), _line("condensed_milk", 200),
         _line("white_chocolate", 300), _line("gelatine", 3, "each", True)),
        "Soak the gelatine in a little of the water.",
        f"Boil the rest of the water with sugar and glucose. {HOT_SUGAR}",
        "Pour over chocolate, condensed milk and gelatine, blend without air, and use at about 32 °C.",
    ),
    _recipe(
        "syrup", "Sugar syrup", (_line("sugar", 250), _line("water", 250)),
        f"Bring sugar and water just to the boil and leave it to cool. {HOT_SUGAR}",
    ),
    _recipe(
        "modelling_chocolate", "Modelling chocolate", (_line("white_chocolate", 500), _line("glucose_syrup", 130)),
        "Melt the chocolate to body warmth, fold in the warmed glucose and stop as it seizes.",
        "Wrap it, leave it overnight, and knead it smooth.",
    ),
    _recipe(
        "gum_paste", "Gum paste from fondant", (_line("fondant", 500), _line("cmc", 5)),
        "Knead the gum into the fondant, wrap it, and leave it overnight.",
    ),
    _cake(
        "vanilla_sponge", "Vanilla sponge", 0.9,
        (_line("butter", 500), _line("sugar", 500), _line("egg", 10, "each", True), _line("plain_flour", 500),
         _line("baking_powder", 16), _line("whole_milk", 60, "ml"), _line("vanilla", 10, "ml")),
        "Beat butter and sugar pale, then the eggs one by one.", "Fold in flour and baking powder, then the milk.",
        "Bake at about 170 °C until a skewer comes out clean.",
    ),
    _cake(
        "chocolate_cake", "Chocolate cake", 1.0,
        (_line("plain_flour", 450), _line("cocoa", 120), _line("sugar", 600), _line("bicarbonate", 10),
         _line("salt", 6), _line("egg", 6, "each", True), _line("oil", 300, "ml"), _line("whole_milk", 450, "ml")),
        "Whisk what is dry, then what is wet, and stir the two together.",
        "Bake at about 165 °C until a skewer comes out clean.",
    ),
    _cake(
        "honey_cake", "Honey cake", 0.95,
        (_line("butter", 400), _line("brown_sugar", 250), _line("honey", 350), _line("egg", 7, "each", True),
         _line("plain_flour", 550), _line("baking_powder", 14), _line("bicarbonate", 4),
         _line("whole_milk", 120, "ml")),
        "Melt butter, sugar and honey together and let it cool.",
        "Beat in the eggs, then flour, raising agents and milk.",
        "Bake at about 160 °C until a skewer comes out clean.",
    ),
    _cake(
        "almond_cake", "Almond cake", 0.95,
        (_line("butter", 450), _line("sugar", 450), _line("egg", 9, "each", True), _line("ground_almonds", 300),
         _line("plain_flour", 250), _line("baking_powder", 12)),
        "Beat butter and sugar pale, then the eggs one by one.", "Fold in almonds, flour and baking powder.",
        "Bake at about 160 °C until a skewer comes out clean.",
    ),
)  # fmt: skip
"""Fondant and jam have no recipe here: they are bought. Where two make one medium, the first counts until another is
chosen."""
