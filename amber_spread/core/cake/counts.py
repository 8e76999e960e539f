"""How many supports stand under a board: by each of three schools, and which of them is taken."""

import math
from typing import Literal, NamedTuple

from amber_spread.core.cake.bearing import Bearing, Kitchen
from amber_spread.core.design.stands import School
from amber_spread.core.kernel import limits
from amber_spread.core.kernel.figures import COMMON_PRACTICE, FROM_MEMORY, Figure, carry_over, decided, rule
from amber_spread.core.stock.supports import Support

MOST = int(limits.SUPPORTS.high)
"""No more supports are set under one tier."""
SCHOOLS: tuple[School, ...] = ("inches", "band", "load")
"""The schools, in the order in which one is taken where two ask for the same."""
Why = Literal["school", "most", "decided", "free"]


class Counted(NamedTuple):
    """The supports by each rule, why and by which their number was taken, and that number."""

    schools: dict[str, Figure]
    why: Why
    taken: School | None
    number: Figure

    @property
    def differ(self) -> bool:
        """Whether the rules ask for different numbers."""
        return len({one.value for one in self.schools.values()}) > 1

    @property
    def one_left_out(self) -> bool:
        """Whether there is one fewer than the rule asks for."""
        return self.taken is not None and self.number.value < self.schools[self.taken].value


@rule(
    "stack.supports",
    unit="each",
    formula="max(3, floor(board / 25.4 + 0.5) - 1)",
    source=COMMON_PRACTICE,
    rounding="up",
    words="One fewer than the upper tier's width in inches, and never fewer than three. Your local practice and the "
    "weight above decide.",
)
def supports_by_inches(board_mm: float) -> float:
    """Supports under an upper tier: its width in inches - 1, at least 3. Source: common practice.

    >>> supports_by_inches(123)
    4
    """
    return max(3, math.floor(board_mm / 25.4 + 0.5) - 1)


@rule(
    "stack.supports.band",
    unit="each",
    formula="min(6, max(3, ceil(board / 50.8 - 0.01) + 1))",
    source=COMMON_PRACTICE,
    rounding="up",
    words="Three under a tier of 4 in, four to six under a larger one: one more for every 2 in.",
)
def supports_in_band(board_mm: float) -> float:
    """Supports: 3 under a 4 in tier, 4 to 6 under larger ones, one more for every 2 in. Source: common practice for
    three and for four to six; how they rise from four to six is from memory.

    >>> supports_in_band(150)
    4
    """
    return min(6, max(3, math.ceil(board_mm / 50.8 - 0.01) + 1))


@rule(
    "stack.supports.load",
    unit="each",
    formula="max(3, ceil(load * factor / bears - 1e-9))",
    source=FROM_MEMORY,
    rounding="up",
    words="As many as bear what stands above so many times over, and never fewer than three.",
)
def supports_by_load(load_g: float, bears_g: float, factor: float) -> float:
    """Supports: load x factor / what one bears, up, at least 3. The factor and the strength are from memory, or tested.

    >>> supports_by_load(5200, 4000, 3)
    4
    """
    return max(3, math.ceil(load_g * factor / bears_g - 1e-9))


@rule(
    "stack.supports.fewer",
    unit="each",
    formula="max(3, supports - 1)",
    source=COMMON_PRACTICE,
    rounding="up",
    words="One fewer, since the cake is not driven; the rest carry more, and three is the least a tier stands on.",
)
def one_fewer(supports_count: float) -> float:
    """Supports of a cake that does not travel: one fewer, at least 3. Source: common practice.

    >>> one_fewer(5)
    4
    """
    return max(3, supports_count - 1)


def counted(kitchen: Kitchen, bearing: Bearing, support: Support) -> Counted:
    """How many supports a board stands on."""
    stand, across_mm = bearing.stand, 2 * max(bearing.board.half_width_mm, bearing.board.half_length_mm)
    load, factor = bearing.above.whole.weight_g, kitchen.usual.support_factor
    schools = {
        "inches": supports_by_inches.figure(across_mm),
        "band": supports_in_band.figure(across_mm),
        "load": supports_by_load.figure(load, support.bears_g, factor),
    }
    if stand.places == "free":
        return Counted(schools, "free", None, carry_over("supports set one by one", len(stand.points_mm), "each"))
    if stand.count is not None:
        return Counted(schools, "decided", None, decided(stand.count, "each"))
    # Common practice: four pieces under the 6 in board of a 7 in tier, unless the load asks for more.
    among: tuple[School, ...] = ("band", "load") if bearing.inside else SCHOOLS
    why: Why = "most" if stand.school is None else "school"
    taken = max(among, key=lambda one: schools[one].value) if stand.school is None else stand.school
    count = schools[taken]
    if count.value > MOST:
        return Counted(
            schools, why, None, carry_over("as many as are ever set; the load asks for stronger ones", MOST, "each")
        )
    return Counted(schools, why, taken, one_fewer.figure(count.value) if stand.fewer and not kitchen.driven else count)
