"""The quick line: a cake typed in one line, any design printed back as its line, and what cannot be read pointed at."""

import cProfile
import re

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
from tests.designs import COLOURS, MEDIA, tier, written_designs


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


@given(written_designs)
def test_any_design_is_read_back_from_its_line(design):
    line = write_line(design, MEDIA)
    assert "\n" not in line
    found = read(line, in_hand=design)
    assert [(line[one.start - 60 : one.end], one.message) for one in found.unread] == []
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


EVERYDAY = (
    ("10in, 8in, 6in", {"tins": (254, 203.2, 152.4)}),
    ("three tiers 10/8/6", {"tins": (254, 203.2, 152.4)}),
    ("10/8 hexagon, dark ganache", {"tins": (254, 203.2), "shape": "polygon", "coated": "dark_ganache"}),
    ("10 8 6 inch round", {"tins": (254, 203.2, 152.4), "shape": "round"}),
    ("25 cm, 20 cm and 15 cm; fondant 4 mm", {"tins": (250, 200, 150), "sheet": 4}),
    ("10in crust & towel", {"coat": "towel"}),
    ("8in on its side", {"build": "side"}),
    ("8in dome", {"build": "domed"}),
    ("9x13", {"tins": (228.6,), "shape": "rectangle", "long": 330.2}),
    ('10" x 6"', {"tins": (254,), "tall": 152.4}),
    ('10" x 6" round; 8" x 4"', {"tins": (254, 203.2), "tall": 152.4}),
    ("8in square, 4in tall", {"shape": "square", "tall": 101.6}),
    ("8in, 4 layers", {"layers": 4}),
    ("6in, three layers of 1 1/4in", {"layers": 3, "cut": 31.75}),
    ("8in round, fill curd", {"fill": "lemon_curd"}),
    ("8in x 5in round filled with jam, covered in fondant", {"fill": "raspberry_jam", "cover": "drape"}),
    ("10in and 6in, curd filling with a dam", {"fill": "lemon_curd", "filled": "soft"}),
    ("8in | coat swiss meringue", {"coated": "meringue_buttercream"}),
    ("10in heart, dark ganache 5mm, no cover", {"coated": "dark_ganache", "side": 5, "cover": "none"}),
    ("8in coated in white chocolate ganache", {"coated": "white_ganache"}),
    ("8in with a rope border", {"bead": "rope"}),
    ("8in, border shells", {"bead": "shell"}),
    ("8in, border pearls", {"bead": "round"}),
    ("naked 8in", {"coat": "none"}),
    ("6 inch chocolate cake with american buttercream", {"cake": "chocolate_cake", "coated": "american_buttercream"}),
    ("10in hexagon, fondant 3mm panel", {"shape": "polygon", "cover": "panel", "sheet": 3}),
    ("8in raspberry jam, american buttercream, white fondant", {"fill": "raspberry_jam", "cover": "drape"}),
    ("6in half ball in pink fondant", {"build": "ball", "colours": ("pink",)}),
)


def facts(design):
    first = design.tiers[0]
    return {
        "tins": tuple(round(one.tin_diameter_mm, 6) for one in design.tiers),
        "shape": first.shape.kind,
        "build": first.build.kind,
        "long": getattr(first.shape, "length_mm", None),
        "tall": first.layers.target_height_mm,
        "layers": first.layers.count,
        "cut": first.layers.height_mm,
        "cake": first.layers.cake,
        "fill": first.filling.medium,
        "filled": first.filling.kind,
        "coat": first.final.kind,
        "coated": getattr(first.final, "medium", None),
        "side": getattr(first.final, "side_mm", None),
        "cover": first.cover.kind,
        "sheet": getattr(first.cover, "thickness_mm", None),
        "bead": first.borders[0].bead if first.borders else None,
        "colours": tuple(one.name for one in design.colours),
    }


@pytest.mark.parametrize(("said", "wanted"), EVERYDAY, ids=[said for said, _ in EVERYDAY])
def test_a_cake_is_said_as_people_say_it(said, wanted):
    found = read(said)
    assert found.unread == []
    assert {name: value for name, value in facts(found.design).items() if name in wanted} == wanted
    plan(found.design, Practice(), MEDIA)


def test_what_is_said_between_two_sizes_is_of_the_first_alone():
    one, other = read("10in fill curd, 8in fill jam").design.tiers
    assert (one.filling.medium, other.filling.medium) == ("lemon_curd", "raspberry_jam")
    one, other = read("10in square, 8in round, dark ganache").design.tiers
    assert (one.shape.kind, other.shape.kind) == ("square", "round")
    assert one.final.medium == other.final.medium == "dark_ganache"


def test_a_medium_alone_says_by_its_kind_what_it_is_for():
    made = read("8in, dark ganache, lemon curd, fondant").design.tiers[0]
    assert (made.final.medium, made.filling.medium, made.cover.kind) == ("dark_ganache", "lemon_curd", "drape")
    assert read("8in | milk ganache").design.tiers[0].cover.kind == "none"


def test_what_is_not_said_again_stays_as_it_is_in_hand():
    base = read("8in in pink fondant, towelled american buttercream 8mm").design
    after = read("dark ganache", in_hand=base).design
    assert (after.tiers[0].final.kind, after.tiers[0].final.side_mm) == ("towel", 8)
    assert after.tiers[0].final.medium == "dark_ganache"
    pink = base.colours[0].model_copy(update={"hex": "#FF99AA"})
    own = base.model_copy(update={"colours": (pink,)})
    assert read("pink american buttercream", in_hand=own).design.colours == (pink,)


def test_a_kind_of_two_words_leaves_a_field_that_begins_with_the_second():
    final = read("8in | coat twin disc diameter 215mm top 0in dark ganache").design.tiers[0].final
    assert (final.kind, final.disc_diameter_mm) == ("twin", 215)
    assert (
        read("8in | coat twin disc 215mm dark ganache").design.tiers[0].final
        == read("8in | coat twin 215mm dark ganache").design.tiers[0].final
    )
    deckled = read("8in | coat deckled rim 12mm").design.tiers[0].final
    assert (deckled.kind, deckled.rim_mm, deckled.side_mm) == ("deckled", 12, None)


def test_two_media_for_one_part_are_asked_about():
    (wrong,) = read("8in, dark ganache, american buttercream").unread
    assert "said already" in wrong.message or "said for the same" in wrong.message
    assert read("8in, dark ganache, fill american buttercream").unread == []


def test_a_line_without_a_size_changes_every_tier_in_hand():
    before = read("10in x 5in; 8in | fill lemon curd | dark ganache").design
    after = read("crust & towel", in_hand=before)
    assert [one.final.kind for one in after.design.tiers] == ["towel", "towel"]
    assert [one.filling for one in after.design.tiers] == [one.filling for one in before.tiers]
    assert after.design.tiers[0].tin_diameter_mm == 254
    edged = read("border rope", in_hand=before).design
    assert [[border.bead for border in one.borders] for one in edged.tiers] == [["rope"], ["rope"]]
    assert read("fill curd").unread[0].message.startswith("No size is said")


@pytest.mark.parametrize(
    ("said", "meant"), [("8in hexgon", "hexagon"), ("10in, buttercreem", "buttercream"), ("8in tapred", "tapered")]
)
def test_what_was_probably_meant_is_offered_in_its_place(said, meant):
    (wrong,) = read(said).unread
    assert wrong.meant == meant
    mended = said[: wrong.start] + wrong.meant + said[wrong.end :]
    assert read(mended).unread == []


@pytest.mark.parametrize(
    "line", ["90in round", "8in | layers 99", "8in | fondant 90mm", "1in", "8in polygon sides 50", "8in pqrst"]
)
def test_what_is_wrong_is_said_in_plain_words(line):
    for wrong in read(line).unread:
        assert not re.search(r"tuple|validation|input|_mm|Tiers", wrong.message)
        assert wrong.message.endswith((".", "?"))
        assert 0 <= wrong.start < wrong.end <= max(1, len(line))


@given(written_designs, st.sampled_from(["in", "cm", "mm"]))
def test_in_any_unit_the_line_is_read_back_to_the_same_design(design, unit):
    line = write_line(design, MEDIA, unit)
    assert read(line, "cm", in_hand=design).design == design


def test_a_length_is_printed_by_the_marks_of_its_unit():
    typed = read("12in x 3 1/2in round; 8in | fondant 1/8in").design
    line = write_line(typed, MEDIA, "in")
    assert line.startswith("12in x 3 1/2in round")
    assert "thickness 1/8in" in line
    assert "304.8" not in line
    assert write_line(read("20cm", "cm").design, MEDIA, "cm").startswith("20cm round")


@given(st.text(max_size=60), st.sampled_from(["in", "cm", "mm"]))
def test_whatever_is_said_is_answered(text, unit):
    found = read(text, unit)
    assert found.design is not None or found.unread
    for wrong in found.unread:
        assert 0 <= wrong.start < wrong.end <= len(text) + 1


STRETCHES = ("🎂", "🎂 ", "a ", "1 ", "1/", "8in;", "|a", "|fill lemon curd", "dam ", "lemon ", "round ", "no cover ",
             '"a ', "10/8/6 ", "three ", "8in x 4in round, ", "8in;8in|fill lemon curd,coat meringue 6mm|")  # fmt: skip


@pytest.mark.parametrize("stretch", STRETCHES)
def test_a_line_twice_as_long_is_no_more_than_twice_the_work(stretch):
    short, long = (calls_in(lambda length=length: read((stretch * length)[:length])) for length in (1900, 3800))
    assert long < 2.3 * short + 2000


def calls_in(work):
    """How many functions are called in some work, once what is read late is there."""
    work()
    profile = cProfile.Profile()
    profile.runcall(work)
    return sum(one.callcount for one in profile.getstats())


@pytest.mark.parametrize(
    ("typed", "words"),
    [
        ("/ " * 4001, "too long"),
        ("8in;" * 31 + "8in", "at most 30 tiers"),
        ("8in" + "|coat wxyz" * 201, "at most 200 clauses"),
        ("8in " + "fondannt " * 40, "I stop here"),
    ],
)
def test_a_line_beyond_its_bounds_says_what_fits(typed, words):
    found = read(typed)
    assert found.design is None
    assert words in found.unread[-1].message
    assert found.unread[-1].end <= len(typed)
