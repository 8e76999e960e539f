"""What may be made of what: a medium where it cannot be worked so, and coats and sheets no hand would spread."""

import itertools

import pytest

from amber_spread.core.design.builds import BallBuild
from amber_spread.core.design.design import Layers
from amber_spread.core.design.finishes import (
    Border,
    CollarCover,
    CrumbCoat,
    DrapeCover,
    FreehandFinal,
    NoFinal,
    OnTop,
    PanelCover,
    PipedRegion,
    PlainFilling,
    SemiNakedFinal,
    SoftFilling,
    Syrup,
    TexturedFinal,
)
from amber_spread.core.design.shapes import HeartShape
from amber_spread.core.document.document import plan_document
from amber_spread.core.line import read_line
from amber_spread.core.stock.media import LIBRARY
from tests import kinds
from tests.designs import MEDIA, document, planned, tier


def said(whole, code):
    return [check for check in whole.checks if check.code == code]


USES = {
    "filling": (lambda key: {"filling": PlainFilling(medium=key)}, "layers", {"buttercream", "ganache", "frosting", "filling"}),
    "soft filling": (lambda key: {"filling": SoftFilling(medium=key)}, "layers", {"buttercream", "ganache", "frosting", "filling"}),
    "crumb coat": (lambda key: {"crumb": CrumbCoat(medium=key)}, "coats", {"buttercream", "ganache", "frosting"}),
    "final coat": (lambda key: {"final": FreehandFinal(medium=key)}, "coats", {"buttercream", "ganache", "frosting", "glaze"}),
    "drape": (lambda key: {"cover": DrapeCover(medium=key)}, "cover", {"fondant"}),
    "panel": (lambda key: {"cover": PanelCover(medium=key)}, "cover", {"fondant"}),
    "collar": (lambda key: {"cover": CollarCover(medium=key)}, "cover", {"chocolate"}),
    "border": (lambda key: {"borders": (Border(medium=key),)}, "cover", {"buttercream", "ganache", "frosting"}),
    "region": (lambda key: {"regions": (PipedRegion(medium=key),)}, "cover", {"buttercream", "ganache", "frosting"}),
    "syrup": (lambda key: {"layers": Layers(syrup=Syrup(medium=key))}, "layers", {"syrup"}),
    "on top": (lambda key: {"on_top": (OnTop(medium=key, shape=HeartShape(), across_mm=60),)}, "cover", {"fondant"}),
}  # fmt: skip


@pytest.mark.parametrize("use", USES)
def test_every_medium_is_said_to_be_unfit_where_the_trade_does_not_work_it_so_and_only_there(use):
    """Common practice, medium by medium: what is spread, what is rolled, what is poured."""
    made, subject, fit = USES[use]
    for medium in LIBRARY:
        found = said(planned(tier(**made(medium.key))), "media.unfit")
        assert bool(found) == (medium.kind not in fit), medium.name
        for check in found:
            assert check.severity == "trouble" and check.subject == subject and medium.name in check.text


def test_a_dam_of_what_runs_is_said_and_a_stiff_one_is_not():
    for medium in LIBRARY:
        found = said(planned(tier(filling=SoftFilling(medium="lemon_curd", dam_medium=medium.key))), "media.unfit")
        stands = medium.kind in ("buttercream", "ganache", "frosting") and not medium.soft
        assert bool(found) != stands, medium.name


def test_a_medium_of_ones_own_is_judged_by_its_kind():
    jam = MEDIA["raspberry_jam"].model_copy(update={"key": "plum_butter", "name": "Plum butter"})
    found = said(plan_document(document(tier(final=FreehandFinal(medium="plum_butter")), media=(jam,))), "media.unfit")
    assert len(found) == 1 and "Plum butter" in found[0].text and "It can be spread between layers" in found[0].text


def test_from_the_quick_line_it_is_said_too():
    read = read_line("8in round | fill fondant | coat raspberry jam", MEDIA, ())
    whole = planned(*read.design.tiers) if read.design is not None else None
    assert whole is not None and len(said(whole, "media.unfit")) == 2


def test_no_pair_of_everyday_kinds_is_called_unfit():
    for filling, final, cover in itertools.product(kinds.FILLINGS, kinds.FINALS, kinds.COVERS):
        one = tier(filling=kinds.example(filling), final=kinds.example(final), cover=kinds.example(cover))
        assert not said(planned(one), "media.unfit")


@pytest.mark.parametrize(
    ("parts", "code", "severity"),
    [
        ({"final": TexturedFinal(relief_mm=8), "cover": DrapeCover()}, "cover.over_piping", "trouble"),
        ({"crumb": CrumbCoat(thickness_mm=0), "final": NoFinal(), "cover": DrapeCover()}, "cover.over_bare", "trouble"),
        ({"cover": DrapeCover(thickness_mm=1)}, "cover.sheet_thin", "trouble"),
        ({"cover": PanelCover(thickness_mm=15)}, "cover.sheet_thick", "trouble"),
        ({"final": FreehandFinal(side_mm=40)}, "coats.thick", "trouble"),
        ({"final": FreehandFinal(top_mm=15)}, "coats.thick", "care"),
        ({"crumb": CrumbCoat(thickness_mm=9)}, "coats.crumb_thick", "care"),
        ({"build": BallBuild()}, "layers.rolls", "trouble"),
    ],
)
def test_what_no_hand_would_spread_roll_or_stand_is_said(parts, code, severity):
    assert [check.severity for check in said(planned(tier(**parts)), code)] == [severity]


@pytest.mark.parametrize(
    "parts",
    [
        {"cover": DrapeCover(thickness_mm=3)},
        {"cover": PanelCover(thickness_mm=5)},
        {"final": TexturedFinal(relief_mm=8)},
        {"final": FreehandFinal(side_mm=8, top_mm=8)},
        {"final": SemiNakedFinal()},
        {"build": BallBuild(foot_mm=60)},
        {"final": NoFinal(), "cover": DrapeCover()},
        {"cover": CollarCover()},
        {"build": BallBuild(halves=1)},
    ],
)
def test_what_hands_do_is_not_complained_of(parts):
    new = {
        "cover.over_piping",
        "cover.over_bare",
        "cover.sheet_thin",
        "cover.sheet_thick",
        "coats.thick",
        "coats.crumb_thick",
        "layers.rolls",
    }
    assert not new & {check.code for check in planned(tier(**parts)).checks}
