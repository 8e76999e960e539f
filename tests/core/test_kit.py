"""The kit held against a plan: what is owned, what would do instead, what is to be got."""

import pytest
from pydantic import ValidationError

from amber_spread.core.design.builds import BallBuild
from amber_spread.core.design.design import Design
from amber_spread.core.design.finishes import DiscFinal, DrapeCover, InvertedFinal, PrintedCover
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.shapes import HeartShape
from amber_spread.core.kernel.base import interned
from amber_spread.core.plan import plan
from amber_spread.core.stock.kit import Kit, Mat, Measure, Need, PrintedSheet, Tin, kit_of
from tests.designs import MEDIA, tier


def needs_of(*tiers, kit=None):
    whole = plan(Design(tiers=tiers), Practice(), MEDIA, kit)
    return whole, {(need.tool, need.tier): need for need in whole.kit.values()}


def matched(size, owned, least=0.0, wider=False, tool="disc"):
    kit = Kit(discs_mm=owned, scrapers_mm=owned)
    (found,) = kit_of([Need(tool, 1, Measure(size), least, wider)], interned(kit)).values()
    return found.status, found.owned and found.owned.value, bool(found.changes)


def test_what_is_owned_to_a_hair_is_had_and_the_nearest_that_serves_is_next_best():
    assert matched(200, (200.5, 210)) == ("have", 200.5, False)
    assert matched(200, (190, 230), least=180) == ("next best", 190, True)
    assert matched(200, (150, 240), least=180) == ("next best", 240, True)
    assert matched(200, (150, 400), least=180) == ("get", None, False)
    assert matched(200, ()) == ("get", None, False)


def test_a_taller_scraper_does_as_well_and_a_shorter_one_less_well():
    assert matched(120, (100, 254), wider=True, tool="scraper") == ("have", 254, False)
    assert matched(120, (100,), least=60, wider=True, tool="scraper") == ("next best", 100, True)


def test_every_step_asks_for_its_tools():
    _, needs = needs_of(tier(254, cover=DrapeCover()), tier(203.2, final=DiscFinal(disc_diameter_mm=209.55)))
    tools = {"tin", "disc", "scraper", "smoother", "mat", "pin", "board", "base board"}
    assert {tool for tool, _ in needs} == tools
    assert needs["tin", 1].status == "have"
    assert needs["disc", 2].status == "have"
    assert ("board", 1) not in needs


def test_a_shape_that_is_not_owned_is_to_be_got_and_a_ball_is_a_tin_of_its_own():
    _, needs = needs_of(tier(shape=HeartShape()), tier(152.4, build=BallBuild(foot_mm=60)))
    assert (needs["tin", 1].status, needs["tin", 1].shape) == ("get", "heart")
    assert (needs["tin", 2].status, needs["tin", 2].shape) == ("have", "ball")


def test_the_mat_in_use_decides_what_is_rolled():
    wide, needs = needs_of(tier(254, cover=DrapeCover()), kit=Kit(mat=Mat(width_mm=900, length_mm=900)))
    assert needs["mat", 1].status == "have"
    assert wide.tiers[0].cover.on_mat
    narrow, needs = needs_of(tier(254, cover=DrapeCover()), kit=Kit(mat=Mat(width_mm=300, length_mm=300)))
    assert needs["mat", 1].status == "next best"
    assert not narrow.tiers[0].cover.on_mat
    assert "cover.off_mat" in {check.code for check in narrow.checks}


def test_a_scraper_shorter_than_the_tier_is_said():
    whole, needs = needs_of(tier(), kit=Kit(scrapers_mm=(80.0,)))
    assert needs["scraper", 1].status == "next best"
    assert "kit.scraper_short" in {check.code for check in whole.checks}


def test_a_sheet_takes_two_smoothers_and_makes_do_with_one():
    for owned, status in ((2, "have"), (1, "next best"), (0, "get")):
        assert needs_of(tier(cover=DrapeCover()), kit=Kit(smoothers=owned))[1]["smoother", 1].status == status
    assert ("smoother", 1) not in needs_of(tier())[1]


def test_a_card_may_be_a_disc_or_a_board():
    _, needs = needs_of(tier(final=InvertedFinal(disc_diameter_mm=209.55)))
    assert needs["card", 1].status == "have"


def test_a_printed_sheet_is_matched_by_both_its_sides():
    asked = tier(cover=PrintedCover(sheet_width_mm=300, sheet_height_mm=210))
    assert needs_of(asked)[1]["printed sheet", 1].status == "get"
    own = Kit(sheets=(PrintedSheet(width_mm=300, height_mm=210),))
    assert needs_of(asked, kit=own)[1]["printed sheet", 1].status == "have"


def test_nothing_is_listed_twice():
    with pytest.raises(ValidationError, match="twice"):
        Kit(discs_mm=(200.0, 200.0))
    with pytest.raises(ValidationError, match="twice"):
        Kit(tins=(Tin(across_mm=200), Tin(across_mm=200)))
