"""The quick line: a cake typed in one line, any design printed back as its line, and what cannot be read pointed at."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from amber_spread.core.design.design import BowlOrder, Cavity, Colour, ColourPart, Design, Layers, MeasuredBake, TinBake
from amber_spread.core.design.finishes import Measured, PanelCover, Stripe, Syrup
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.shapes import FreeShape
from amber_spread.core.line.quick_line import read_line
from amber_spread.core.line.quick_writing import write_line
from amber_spread.core.plan import plan
from tests.designs import COLOURS, MEDIA, designs, tier


def read(text, unit="in", in_hand=None):
    return read_line(text, MEDIA, Practice(), unit, in_hand)


def test_a_cake_is_typed_as_one_line():
    found = read("10in x 5in round; 8 x 5; 6 x 4 | fill lemon curd dam | coat meringue 6mm | fondant 3mm")
    assert found.unread == []
    bottom, _, top = found.design.tiers
    assert (bottom.tin_diameter_mm, bottom.layers.target_height_mm, top.layers.target_height_mm) == (
        254,
        127,
        pytest.approx(101.6),
    )
    assert (bottom.filling.kind, bottom.filling.medium) == ("soft", "lemon_curd")
    assert (bottom.final.kind, bottom.final.medium, bottom.final.side_mm, bottom.final.top_mm) == (
        "freehand",
        "meringue_buttercream",
        6,
        6,
    )
    assert (bottom.cover.kind, bottom.cover.thickness_mm) == ("drape", 3)


def test_a_height_alone_is_reached_by_the_layers_it_takes():
    whole = plan(read("10in x 5in; 6 x 4 | fondant 3mm").design, Practice(), MEDIA)
    for one in whole.tiers:
        assert abs(one.layers.target.missing.value) < 0.1
        assert 20 < one.layers.cut_height.value < 45


@given(designs)
def test_any_design_is_read_back_from_its_line(design):
    line = write_line(design, MEDIA)
    assert "\n" not in line
    found = read(line, in_hand=design)
    assert found.unread == []
    assert found.design == design


def test_what_lies_hidden_and_what_was_measured_is_in_the_line_too():
    inside = tier(
        layers=Layers(count=4, bake=MeasuredBake(edges_mm=(31, 30.5), torte=2), cavity=Cavity(diameter_mm=60), syrup=Syrup(soak_mm=0.5)),
        measured=Measured(heights_mm=(100, 101, 102, 101), top_mm=(198, 199), foot_mm=(200, 200)),
        cover=PanelCover(stripes=(Stripe(colour="ivory", share=2), Stripe(share=1.5))),
        name="Comb",
    )  # fmt: skip
    double = tier(
        layers=Layers(cake="honey_cake", count=6, board_after=3, height_mm=None, bake=TinBake(depth_mm=60, torte=2))
    )
    free = tier(shape=FreeShape(points_mm=((0, 0), (100, 0), (50, 80))))
    orders = (
        BowlOrder(bowl="fondant~pale-blush", steps=("tier_2_cover", "tier_1_cover")),
        BowlOrder(bowl="fondant", have_g=412.5),
    )
    streaked = Colour(
        name="comb",
        hex="#DDBB66",
        marbled=True,
        parts=(ColourPart(colour="pale", parts=1.5), ColourPart(colour="ivory")),
    )
    design = Design(tiers=(double, inside, free), colours=(*COLOURS, streaked), orders=orders)
    found = read(write_line(design, MEDIA), in_hand=design)
    assert found.unread == []
    assert found.design == design


def test_a_tiers_own_clause_wins_over_the_common_one():
    found = read("10 x 4; 6 x 4, fill raspberry jam | fill lemon curd")
    assert [one.filling.medium for one in found.design.tiers] == ["lemon_curd", "raspberry_jam"]


@pytest.mark.parametrize(
    "text, stretch, words",
    [
        ("8 x 4 blob", "blob", "neither a shape"),
        ("8 x 4 round | coat zzz", "zzz", "not known after"),
        ("8 x 4 | fizz", "fizz", "A clause begins with"),
        ("wide x 4", "wide", "A length belongs here"),
        ("8 x", "x", "A height belongs"),
        ("8 | fill dam medium gravel", "gravel", "No medium is called that"),
        ("8 x 4 free", "free", "read from a drawing"),
        ("8 | border bead_mm", "bead_mm", "not known"),
        ("8 | crumb thickness", "thickness", "A value belongs"),
        ("8 | cover panel stripes red", "red", "A stripe is"),
        ('8 | named "x" y', 'named "x" y', "A name stands in quotes"),
        ("8 | colour blue", " colour blue", "A colour is given as"),
    ],
)
def test_what_cannot_be_read_is_pointed_at_and_explained(text, stretch, words):
    found = read(text)
    assert found.design is None
    (unread,) = found.unread
    assert text[unread.start : unread.end].strip() == stretch.strip()
    assert words in unread.message


def test_a_measure_no_cake_has_is_pointed_at_in_its_tier():
    found = read("8 x 4; 90in x 4")
    assert found.design is None
    assert "90in" in "8 x 4; 90in x 4"[found.unread[0].start : found.unread[0].end]
    assert found.unread[0].message.startswith("Tin diameter")


@given(st.text(max_size=120) | st.text('8x4 ;|,"in/roundfilcoa:.#', max_size=80))
def test_no_line_does_worse_than_be_unread(text):
    found = read(text)
    assert (found.design is None) == bool(found.unread)
    assert all(0 <= one.start <= one.end for one in found.unread)
