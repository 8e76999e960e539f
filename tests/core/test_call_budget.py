"""What planning costs, counted without a clock: Python calls and bytes of an answer, against a table of their limits.

If a change raises a number, say why beside it. If it lowers one by more than a twentieth, the test asks you to write the
new one down, so that the next change cannot take it back unseen.
"""

import pytest

from amber_spread.core.design.builds import BallBuild, CarvedBuild, TaperedBuild
from amber_spread.core.design.design import Tier
from amber_spread.core.design.finishes import DrapeCover, FreehandFinal, GoresCover, PanelCover
from amber_spread.core.design.shapes import HeartShape
from amber_spread.core.document import plan_document
from amber_spread.core.kernel.caching import forget
from amber_spread.jobs.designs import without_its_workings
from amber_spread.speed.calls import calls_of
from tests.designs import STONE, document, tier

TIERS = {
    "1 straight": [tier(203.2)],
    "3 straight": [tier(254), tier(203.2), tier(152.4)],
    "10 straight": [tier(150)] * 10,
    "30 straight": [tier(150)] * 30,
    "3 mixed": [
        Tier(tin_diameter_mm=254, build=TaperedBuild(narrow_mm=200), cover=PanelCover(top="over")),
        Tier(tin_diameter_mm=203.2, shape=HeartShape(), cover=DrapeCover()),
        Tier(tin_diameter_mm=152.4, build=BallBuild(foot_mm=60), cover=GoresCover()),
    ],
    "1 carved": [Tier(tin_diameter_mm=210, build=CarvedBuild(points_mm=STONE), cover=DrapeCover())],
}  # fmt: skip
# Last lowered: pieces of a plan are found again by identity, and what holds a cake from inside is drawn by the screen.
# Last raised: what is drawn says its `paint` (two letters more than `hex`); chilling is a call of its own, and so is the
# oven of a kitchen.
LIMITS = {
    "1 straight": (1255, 358, 1191, 22328),
    "3 straight": (3741, 521, 1959, 77476),
    "10 straight": (12188, 888, 3377, 259090),
    "30 straight": (38569, 1848, 7754, 837621),
    "3 mixed": (12013, 552, 3827, 116594),
    "1 carved": (114825, 614, 2833, 106400),
}


def edited(tiers, step):
    """The tiers with the middle one's tin a little wider; a carved one keeps its tin, and its coat gets another colour."""
    middle = len(tiers) // 2
    one = tiers[middle]
    wider = {"tin_diameter_mm": one.tin_diameter_mm + step / 2}
    other = {"final": FreehandFinal(colour=("ivory", "blush")[step])}
    return document(*tiers[:middle], one.model_copy(update=other if one.build.carved else wider), *tiers[middle + 1 :])


@pytest.fixture(scope="module", autouse=True)
def libraries_loaded():
    for tiers in TIERS.values():
        plan_document(document(*tiers))


def cost_of(tiers):
    """Calls of a plan from nothing, of the same plan again and of an edit, and the bytes of the answer to an edit."""
    cake, first, edit = document(*tiers), edited(tiers, 0), edited(tiers, 1)
    forget()
    nothing, again = (calls_of(lambda: plan_document(cake)) for _ in range(2))
    plan_document(first)
    change = calls_of(lambda: plan_document(edit))
    return nothing, again, change, len(without_its_workings(edit, None, None))


@pytest.mark.parametrize("name", TIERS)
def test_planning_keeps_to_its_budget_of_calls_and_bytes(name):
    costs = zip(("from nothing", "again", "an edit", "bytes"), cost_of(TIERS[name]), LIMITS[name], strict=True)
    for what, cost, limit in costs:
        assert cost <= limit, f"{what}: {cost}, at most {limit}"
        assert cost > 0.95 * limit, f"{what}: only {cost} now; write that down instead of {limit}"
