"""What the made-up cake room buys, at made-up prices, what is in its larder, and what its work costs."""

from amber_spread.core.stock.pantry import Pack, Pantry, Stock, Terms

_WEIGHED: dict[str, tuple[tuple[float, float], ...]] = {
    "butter": ((250, 2.45), (1000, 9.10)),
    "sugar": ((1000, 1.35), (5000, 6.20)),
    "icing_sugar": ((500, 1.15), (2500, 4.90)),
    "brown_sugar": ((1000, 2.10),),
    "plain_flour": ((1000, 0.95), (10000, 7.90)),
    "cornflour": ((400, 1.25),),
    "cocoa": ((250, 3.60),),
    "ground_almonds": ((500, 6.80),),
    "baking_powder": ((150, 1.30),),
    "honey": ((500, 5.40), (2500, 23.50)),
    "cream_cheese": ((300, 2.25), (1500, 10.40)),
    "glucose_syrup": ((1000, 4.70),),
    "salt": ((500, 0.60),),
    "fondant": ((1000, 5.60), (2500, 12.90), (5000, 23.80)),
    "dark_chocolate": ((1000, 11.40), (2500, 26.90)),
    "white_chocolate": ((1000, 12.20),),
    "raspberry_jam": ((450, 3.10), (1200, 7.40)),
}
_POURED: dict[str, tuple[tuple[float, float], ...]] = {
    "whole_milk": ((1000, 1.10),),
    "cream": ((250, 1.60), (1000, 5.30)),
    "lemon_juice": ((500, 2.80),),
    "vanilla": ((100, 7.50),),
    "oil": ((1000, 2.40),),
    "egg_white": ((1000, 4.90),),
}
_COUNTED: dict[str, tuple[tuple[float, float], ...]] = {
    "egg": ((12, 3.30), (30, 7.40)),
    "board_127": ((5, 2.50),),
    "board_152": ((5, 2.75),),
    "board_203": ((5, 3.40),),
    "board_254": ((5, 4.20),),
    "base_board_254": ((1, 2.30),),
    "base_board_305": ((1, 2.90),),
    "base_board_330": ((1, 3.20),),
    "base_board_406": ((1, 4.60),),
    "wide_straw_240": ((50, 3.60),),
    "wooden_dowel_300": ((12, 4.80),),
    "dowel_6": ((1, 1.10),),
    "dowel_8": ((1, 1.30),),
    "dowel_10": ((1, 1.60),),
    "plastic_tube_300": ((4, 3.90),),
}


def _packs(unit: str, offers: dict[str, tuple[tuple[float, float], ...]]) -> list[dict[str, object]]:
    return [
        {"item": item, "size": size, "unit": unit, "price": price}
        for item, sizes in offers.items()
        for size, price in sizes
    ]


PANTRY = Pantry(
    packs=tuple(
        Pack.model_validate(one) for one in (*_packs("g", _WEIGHED), *_packs("ml", _POURED), *_packs("each", _COUNTED))
    ),
    larder=(
        Stock(item="butter", amount=1500),
        Stock(item="sugar", amount=2200),
        Stock(item="icing_sugar", amount=400),
        Stock(item="salt", amount=450),
        Stock(item="vanilla", amount=120, unit="ml"),
        Stock(item="egg", amount=24, unit="each"),
        Stock(item="board_203", amount=2, unit="each"),
    ),
    terms=Terms(currency="EUR", hour_price=19.5, minutes_per_tier=110, overhead=0.18, profit=0.12, round_to=1),
)
"""The demo's pantry. Meringue powder, gelatine and a few more have no price there, as in any real one."""
