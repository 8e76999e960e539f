"""How many supports stand under a board, by each of three schools, and the dab that holds what stands on it."""

import math

from amber_spread.core.kernel.figures import COMMON_PRACTICE, FROM_MEMORY, rule


@rule(
    "stack.supports", unit="each", formula="max(3, floor(board / 25.4 + 0.5) - 1)", source=COMMON_PRACTICE,
    rounding="up",
    words="One fewer than the upper tier's width in inches, and never fewer than three. Your local practice and the "
    "weight above decide.",
)  # fmt: skip
def supports_by_inches(board_mm: float) -> float:
    """Supports under an upper tier: its width in inches - 1, at least 3. Source: common practice.

    >>> supports_by_inches(123)
    4
    """
    return max(3, math.floor(board_mm / 25.4 + 0.5) - 1)


@rule(
    "stack.supports.band", unit="each",
    formula="min(6, max(3, ceil(board / 50.8 - 0.01) + 1))", source=COMMON_PRACTICE,
    rounding="up",
    words="Three under a tier of 4 in, four to six under a larger one: one more for every 2 in.",
)  # fmt: skip
def supports_in_band(board_mm: float) -> float:
    """Supports: 3 under a 4 in tier, 4 to 6 under larger ones, one more for every 2 in. Source: common practice for
    three and for four to six; how they rise from four to six is from memory.

    >>> supports_in_band(150)
    4
    """
    return min(6, max(3, math.ceil(board_mm / 50.8 - 0.01) + 1))


@rule(
    "stack.supports.load", unit="each", formula="max(3, ceil(load * factor / bears - 1e-9))", source=FROM_MEMORY,
    rounding="up",
    words="As many as bear what stands above so many times over, and never fewer than three.",
)  # fmt: skip
def supports_by_load(load_g: float, bears_g: float, factor: float) -> float:
    """Supports: load x factor / what one bears, up, at least 3. The factor and the strength are from memory, or tested.

    >>> supports_by_load(5200, 4000, 3)
    4
    """
    return max(3, math.ceil(load_g * factor / bears_g - 1e-9))


@rule(
    "stack.supports.fewer", unit="each", formula="max(3, supports - 1)", source=COMMON_PRACTICE, rounding="up",
    words="One fewer, since the cake is not driven; the rest carry more, and three is the least a tier stands on.",
)  # fmt: skip
def one_fewer(supports_count: float) -> float:
    """Supports of a cake that does not travel: one fewer, at least 3. Source: common practice.

    >>> one_fewer(5)
    4
    """
    return max(3, supports_count - 1)
