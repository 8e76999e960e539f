"""What is painted as a material has a look wherever it is drawn, and everything else a colour."""

import json
import re
from typing import get_args

import pytest

from amber_spread.core.design.builds import BallBuild
from amber_spread.core.design.finishes import DrapeCover, NoFinal, PanelCover, PrintedCover
from amber_spread.core.document import plan_document
from amber_spread.core.kernel.paint import Material
from amber_spread.core.stock.media import LIBRARY
from amber_spread.papers.palette import PALETTE, hex_of
from amber_spread.schemas import SCREEN_PALETTE
from tests.designs import COLOURS, document, tier

MATERIALS = set(get_args(Material))
CAKES = {
    "bare": [tier(203, final=NoFinal())],
    "stacked": [tier(254), tier(203), tier(152)],
    "covered": [tier(254, cover=DrapeCover()), tier(203, cover=PanelCover())],
    "printed": [tier(203, cover=PrintedCover())],
    "a ball": [tier(152, build=BallBuild(foot_mm=60), cover=DrapeCover())],
}


def painted(part):
    """Every paint in a plan, wherever it stands."""
    if isinstance(part, dict):
        yield from ([part["paint"]] if "paint" in part else [])
        part = list(part.values())
    if isinstance(part, list):
        for one in part:
            yield from painted(one)


@pytest.mark.parametrize("name", CAKES)
def test_a_plan_paints_in_colours_of_the_order_its_media_or_known_materials(name):
    found = set(painted(plan_document(document(*CAKES[name])).model_dump(mode="json")))
    colours = {medium.hex for medium in LIBRARY} | {colour.hex for colour in COLOURS}
    assert found and found <= MATERIALS | colours
    assert all(re.fullmatch("#[0-9A-F]{6}", hex_of(paint)) for paint in found)


def test_every_material_has_a_look_on_paper_and_the_same_on_screen():
    assert set(PALETTE) == MATERIALS
    assert json.loads(SCREEN_PALETTE.read_text()) == PALETTE
