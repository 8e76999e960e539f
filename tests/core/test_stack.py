"""Tiers on each other: every way to stand met with every shape and build, held to what is true of any stack."""

import itertools
import math
from functools import cache

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import Point, Polygon
from shapely.affinity import translate

from amber_spread.core.cake.cutting import cutting_list
from amber_spread.core.cake.glue import held_of
from amber_spread.core.design.builds import DomedBuild, SideBuild, TaperedBuild
from amber_spread.core.design.design import BaseBoard, Cavity, Design, Layers
from amber_spread.core.design.finishes import Border, DiscFinal, DrapeCover, Measured
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.settled import settle
from amber_spread.core.design.shapes import RectangleShape, RoundShape
from amber_spread.core.design.stands import PillarsStand, RiserStand, StackedStand, Stacking
from amber_spread.core.plan import plan
from amber_spread.core.stock.kit import Kit
from amber_spread.core.stock.supports import SORTS, STARTING_SUPPORTS
from tests import kinds
from tests.designs import COLOURS, MEDIA, tier, worked

INCH = 25.4
PRACTICE = Practice()
UPPER = [kinds.example(kind) for kind in kinds.SHAPES]
LOWER = [
    *(("shape", kinds.example(kind)) for kind in kinds.SHAPES),
    *(("build", kinds.example(kind)) for kind in kinds.BUILDS),
]
STANDS = [
    StackedStand(), StackedStand(places="ring"), StackedStand(sort="straw", school="band"), StackedStand(count=4),
    StackedStand(sort="wooden_dowel", school="load"), StackedStand(fewer=True), StackedStand(off_x_mm=20, off_y_mm=-10),
    StackedStand(places="free", points_mm=((0, -30), (26, 15), (-26, 15))), PillarsStand(), PillarsStand(gap_mm=120, count=5),
    RiserStand(), RiserStand(gap_mm=40, sort="straw"),
]  # fmt: skip
INSIDES = [
    {"layers": Layers(count=4, height_mm=30, board_after=2)},
    {"layers": Layers(count=4, height_mm=24, cavity=Cavity(diameter_mm=50))},
    {"layers": Layers(count=4, height_mm=24, cavity=Cavity(diameter_mm=50, first=1, last=1), board_after=2)},
]


def stacks():
    """Every upper shape on every lower shape and build, every stand on some, and what lies inside below each stand."""
    for (field, one), shape in itertools.product(LOWER, UPPER):
        small = {"length_mm": 190.0} if hasattr(shape, "length_mm") else {}
        yield (tier(280, **{field: one}), tier(150, shape=shape.model_copy(update=small)))
    for stand in STANDS:
        yield (tier(254), tier(178, stand=stand))
        yield (tier(254), tier(203, stand=stand), tier(152, stand=stand))
        yield (tier(254, shape=RectangleShape(length_mm=330)), tier(178, stand=stand))
        yield from ((tier(254, **inside), tier(178, stand=stand)) for inside in INSIDES)


ASKED = Stacking()
GRID = list(dict.fromkeys(stacks()))


@cache
def stacked(tiers, stacking=ASKED):
    return plan(Design(tiers=tiers, colours=COLOURS, stacking=stacking), PRACTICE, MEDIA)


def joints():
    for tiers in GRID:
        found = stacked(tiers)
        for name, joint in found.stack.joints.items():
            yield tiers, found, name, joint


def holds(check):
    """Hold every joint of the grid to something, and say of which it is not true."""

    def of_every_joint():
        wrong = []
        for tiers, found, name, joint in joints():
            try:
                check(tiers, found, joint)
            except AssertionError as error:
                kinds = " on ".join(f"{one.shape.kind} {one.build.kind} {one.stand.kind}" for one in reversed(tiers))
                wrong.append(f"{kinds}, {name}: {error}")
        assert not wrong, "\n".join([f"{len(wrong)} of the grid:", *wrong[:20]])

    of_every_joint.__name__ = check.__name__
    return of_every_joint


def test_the_grid_holds_every_way_to_stand_and_every_sort():
    stands = [one.stand for tiers in GRID for one in tiers[1:]]
    assert {type(one) for one in stands} == {StackedStand, PillarsStand, RiserStand}
    assert {one.sort for one in stands} == set(SORTS) == {one.sort for one in STARTING_SUPPORTS}
    assert {one.places for one in stands} == {"edge", "ring", "free"}
    assert len(GRID) > 150


@holds
def test_supports_carry_all_that_stands_above_and_balance_it(tiers, found, joint):
    if not joint.holds:
        return
    carried = [one.carries.value for one in joint.supports.values()]
    assert min(carried) >= 0
    assert sum(carried) == pytest.approx(joint.load.value, rel=1e-9)
    assert joint.load.value == pytest.approx(sum(one.value for one in joint.load.given.values()))


@holds
def test_the_load_is_every_tier_above_and_no_other(tiers, found, joint):
    named = {name for name in joint.load.given if name.startswith("tier ") and "above" not in name}
    first = joint.tier + 1 if joint.inside else joint.tier
    assert named == {f"tier {number}" for number in range(first, len(tiers) + 1)}
    for number in range(first, len(tiers) + 1):
        assert joint.load.given[f"tier {number}"].value == pytest.approx(found.tiers[number - 1].stack.weight.value)


@holds
def test_every_support_stands_below_the_board_and_in_the_tier_below(tiers, found, joint):
    """By polygons drawn anew: the board's edge, the lower tier's, and round holes for the dowel and a room."""
    if joint.why == "free":
        return
    half = joint.across.value / 2
    board = Polygon(joint.board).buffer(0.3 - half)
    below = Polygon(joint.below).buffer(0.3 - half)
    for one in joint.supports.values():
        spot = Point(one.x, one.y)
        assert board.covers(spot), f"{one.x}, {one.y} is outside the board above"
        assert below.covers(spot), f"{one.x}, {one.y} is outside the tier below"
        for hole in joint.keep_out:
            assert math.hypot(one.x - hole.x, one.y - hole.y) >= hole.radius + half - 0.2, hole.what
    spots = [(one.x, one.y) for one in joint.supports.values()]
    nearest = min((math.dist(one, other) for one, other in itertools.combinations(spots, 2)), default=0)
    assert joint.apart.value == pytest.approx(nearest, abs=0.02)
    assert len(spots) in (0, joint.count.value)


@holds
def test_the_rule_for_places_is_kept_or_the_reason_told(tiers, found, joint):
    stand = tiers[joint.tier - 1].stand
    if joint.why == "free" or not joint.supports:
        return
    inset, apart = stand.inset_mm or PRACTICE.support_inset_mm, stand.apart_mm or PRACTICE.support_apart_mm
    kept = joint.inset.value >= inset - 0.5 and joint.apart.value >= apart - 0.5
    told = [one.text for one in joint.told if "room" in one.text]
    assert bool(told) != kept, f"{joint.inset.value:.1f} in, {joint.apart.value:.1f} apart, told {told}"


@holds
def test_the_number_taken_is_that_of_the_school_that_is_named(tiers, found, joint):
    if joint.why in ("decided", "free"):
        assert joint.taken is None
        return
    assert joint.count.value == joint.schools[joint.taken].value >= 3
    if joint.why == "most" and not joint.inside:
        assert joint.count.value == max(one.value for one in joint.schools.values())


@holds
def test_supports_are_as_long_as_what_they_stand_in(tiers, found, joint):
    if joint.inside:
        assert joint.length.value == pytest.approx(found.tiers[joint.tier - 1].layers.board.height.value)
        return
    lower, stand = found.tiers[joint.tier - 2], tiers[joint.tier - 1].stand
    board = lower.layers.board
    foot = 0 if board is None else board.height.value + board.thickness.value
    through = joint.gap.value if stand.kind == "pillars" else 0
    above_table = lower.stack.bottom.value + foot + joint.length.value
    assert above_table == pytest.approx(lower.stack.top.value + through)
    assert joint.level.value == pytest.approx(lower.stack.top.value)


@holds
def test_a_tier_stands_as_high_as_what_is_below_it_and_its_gap_and_board(tiers, found, joint):
    if joint.inside:
        return
    lower, upper = found.tiers[joint.tier - 2].stack, found.tiers[joint.tier - 1].stack
    assert upper.bottom.value == pytest.approx(lower.top.value + joint.gap.value + upper.board_thickness.value)
    stand = tiers[joint.tier - 1].stand
    wanted = 0 if stand.kind == "stacked" else stand.gap_mm or PRACTICE.tier_gap_mm
    assert joint.gap.value == pytest.approx(wanted + (PRACTICE.tier_board_mm if stand.kind == "riser" else 0))


@holds
def test_the_push_and_the_angle_that_tip_it_are_one(tiers, found, joint):
    assert math.tan(math.radians(joint.edge.value)) == pytest.approx(joint.push.value, rel=1e-6)
    assert joint.leans.value <= joint.edge.value + 1e-6 or tiers[joint.tier - 1].stand.places == "free"
    assert joint.middle_up.value > 0


@pytest.mark.parametrize("tiers", GRID[::7])
def test_the_whole_weighs_its_parts_and_what_the_bowls_put_on(tiers):
    found = stacked(tiers)
    assert found.stack.weight.value == pytest.approx(sum(one.value for one in found.stack.weight.given.values()))
    glued = sum(
        step.stays.value
        for bowl in found.bowls.values()
        for step in bowl.steps.values()
        if step.step in ("glue", "slide", "joint")
    )
    assert found.stack.weight.given["glue and joints"].value == pytest.approx(glued)
    pieces = {sort: 0 for sort in SORTS}
    for joint in found.stack.joints.values():
        pieces[joint.sort] += len(joint.supports)
    for sort, cut in found.stack.cutting.items():
        assert cut.pieces.value == pieces.pop(sort)
        assert sum(len(one.lengths) * one.times for one in cut.cuts.values()) == cut.pieces.value
        for one in cut.cuts.values():
            whole = sum(length.value for length in one.lengths.values()) + one.rest.value
            assert cut.too_long or whole <= cut.stock.value + 1e-6
    assert not any(pieces.values())
    counted = {name: one.value for name, one in found.stack.left_in.items()}
    assert counted.pop("in_all") == sum(counted.values())


@settings(max_examples=60, deadline=None)
@given(
    st.lists(st.floats(10, 290), min_size=1, max_size=30),
    st.floats(0, 3),
)
def test_a_cutting_list_cuts_every_piece_and_no_rod_twice_over(lengths, kerf):
    found = cutting_list("straw", "straws", lengths, 300.0, kerf)
    cut = sorted(
        length.value for one in found.cuts.values() for _ in range(one.times) for length in one.lengths.values()
    )
    assert len(cut) == len(lengths)
    assert all(abs(got - asked) < 0.01 for got, asked in zip(cut, sorted(lengths), strict=True))
    for one in found.cuts.values():
        used = sum(length.value for length in one.lengths.values()) + kerf * (len(one.lengths) - 1)
        assert used <= 300.0 + 1e-6
    assert found.rods.value <= len(lengths)
    assert found.rods.value * 300 >= sum(lengths)


def checks(*tiers, **design):
    found = plan(Design(tiers=tiers, colours=COLOURS, **design), PRACTICE, MEDIA)
    return {one.code: one for one in found.checks if one.subject == "stack"}


def test_a_stack_of_everyday_tiers_has_nothing_to_mend():
    found = checks(tier(254), tier(203), tier(152))
    assert not [code for code, one in found.items() if one.severity != "caution"]
    assert {"caution.left_in", "caution.food_wood", "caution.sharp_dowel"} <= found.keys()


@pytest.mark.parametrize(
    "code, tiers, design",
    [
        ("stack.no_flat", (tier(203, build=DomedBuild(rise_mm=60)), tier(102)), {}),
        ("stack.no_room", (tier(102, layers=Layers(count=3, cavity=Cavity(diameter_mm=90))), tier(90)), {}),
        ("stack.crowded", (tier(203), tier(102, stand=StackedStand(count=30))), {}),
        (
            "stack.refused",
            (tier(203), tier(102, stand=StackedStand(places="free", points_mm=((0, 90), (30, 0), (-30, 0))))),
            {},
        ),
        (
            "stack.falls",
            (tier(254), tier(152, stand=StackedStand(places="free", points_mm=((40, 0), (50, 20), (50, -20))))),
            {},
        ),
        ("stack.weak", (tier(304), *(tier(254, stand=StackedStand(sort="straw", count=3)) for _ in range(2))), {}),
        ("stack.too_long", (tier(203, layers=Layers(count=9)), tier(152)), {}),
        (
            "stack.too_short",
            (tier(203, layers=Layers(count=1, height_mm=5)), tier(152, stand=StackedStand(sort="plastic_tube"))),
            {},
        ),
        ("stack.unsteady", (tier(152), tier(102, layers=Layers(count=12, height_mm=30))), {}),
        (
            "stack.coat_before",
            (tier(203, final=DiscFinal(disc_diameter_mm=210)), tier(152)),
            {"stacking": Stacking(coated="after")},
        ),
        ("stack.coat_before", (tier(203, cover=DrapeCover()), tier(152)), {"stacking": Stacking(coated="after")}),
        ("stack.dowel_short", (tier(203), tier(152)), {"stacking": Stacking(dowel=True, dowel_length_mm=100)}),
        ("stack.dowel_long", (tier(203), tier(152)), {"stacking": Stacking(dowel=True, dowel_length_mm=400)}),
        ("stack.dowel_thin", (tier(152), *(tier(127) for _ in range(4))), {"stacking": Stacking(dowel_mm=3)}),
        ("stack.dowel_base", (tier(203), tier(152)), {"base_board": BaseBoard(thickness_mm=3)}),
        ("stack.dowel_misses", (tier(304), tier(102, stand=StackedStand(off_x_mm=60))), {}),
        ("stack.dowel_bare", (tier(203), tier(152, stand=PillarsStand())), {"stacking": Stacking(dowel=True)}),
        ("stack.dowel_cavity", (tier(254, layers=Layers(count=3, cavity=Cavity(diameter_mm=50))), tier(178)), {}),
        ("stack.brake", (tier(152), *(tier(127) for _ in range(4))), {"stacking": Stacking(dowel=False)}),
        ("stack.slides", (tier(203), tier(152)), {"stacking": Stacking(dowel=False)}),
        ("stack.apart_driven", (tier(203), tier(152, stand=RiserStand())), {}),
        ("stack.lean", tuple(tier(102) for _ in range(6)), {}),
        ("caution.pillars", (tier(203), tier(152, stand=PillarsStand())), {}),
    ],
)
def test_what_does_not_stand_is_said_where_it_is(code, tiers, design):
    found = checks(*tiers, **design)
    assert code in found, sorted(found)
    assert not set(found[code].text) & {"[", "]"} and not found[code].text[0].islower()


def test_a_place_that_is_refused_comes_with_the_nearest_that_would_do():
    stand = StackedStand(places="free", points_mm=((0, 200), (3, 0), (-30, 0), (-32, 4)))
    joint = stacked((tier(254), tier(178, stand=stand))).stack.joints["tier_2"]
    refused = [one.refused for one in joint.supports.values()]
    assert refused == ["board", "dowel", "support", "support"]
    moved = tuple(one.nearest or (one.x, one.y) for one in joint.supports.values())
    again = stand.model_copy(update={"points_mm": (moved[0], moved[1], moved[2], (-32.0, 30.0))})
    assert [
        one.refused for one in stacked((tier(254), tier(178, stand=again))).stack.joints["tier_2"].supports.values()
    ] == [None] * 4


def test_one_fewer_is_for_cakes_that_are_not_driven_and_says_what_it_costs():
    tiers = (tier(203), tier(152, stand=StackedStand(fewer=True)))
    assert stacked(tiers).stack.joints["tier_2"].count.value == 5
    stays = stacked(tiers, Stacking(travels=False)).stack.joints["tier_2"]
    assert stays.count.value == 4
    (told,) = [one for one in stays.told if "left out" in one.text]
    assert told.values["more"].value == pytest.approx(stays.load.value / 4 - stays.load.value / 5)
    least = tier(102, stand=StackedStand(fewer=True, sort="wide_straw", school="band"))
    stays = stacked((tier(203), least), Stacking(travels=False)).stack.joints["tier_2"]
    assert stays.count.value == stays.schools["band"].value == 3
    assert not [one for one in stays.told if "left out" in one.text]


def test_coated_after_stacking_the_tiers_sink_by_the_coat_and_take_less_of_it():
    tiers = (tier(254), tier(178))
    before, after = stacked(tiers), stacked(tiers, Stacking(coated="after"))
    coat = before.tiers[0].coats.final.top.value
    assert before.tiers[1].stack.bottom.value - after.tiers[1].stack.bottom.value == pytest.approx(coat)
    assert before.stack.joints["tier_2"].length.value - after.stack.joints["tier_2"].length.value == pytest.approx(coat)
    one, other = (found.bowls["meringue_buttercream"].steps["tier_1_final"].stays.value for found in (before, after))
    board = before.tiers[1].stack.board_diameter.value
    saved = math.pi / 4 * board**2 * coat / 1000 * MEDIA["meringue_buttercream"].density_g_per_ml
    assert one - other == pytest.approx(saved)


def test_a_border_at_the_foot_hides_the_joint_so_no_bead_is_piped():
    plain, bordered = tier(178), tier(178, borders=(Border(at="foot"),))
    assert stacked((tier(254), plain)).stack.joints["tier_2"].bead_weight.value > 0
    assert stacked((tier(254), bordered)).stack.joints["tier_2"].bead is None


def test_glue_goes_under_every_board_and_chocolate_onto_the_one_inside():
    found = stacked((tier(254, layers=Layers(count=4, board_after=2)), tier(178)))
    assert found.bowls["dark_chocolate"].steps.keys() == {"tier_1_slide"}
    area = math.pi / 4 * found.tiers[1].stack.board_diameter.value ** 2
    density = MEDIA["meringue_buttercream"].density_g_per_ml
    assert found.tiers[1].stack.glue.value == pytest.approx(2 * area * PRACTICE.glue_mm / 1000 * density)
    own = tier(178, stand=StackedStand(glue_medium="dark_ganache"))
    apart = stacked((tier(254), own))
    assert apart.bowls["dark_ganache"].steps["tier_2_glue"].stays.value > 0
    assert apart.tiers[1].stack.glue.value == pytest.approx(found.tiers[1].stack.glue.value / 2)


@pytest.mark.parametrize("stand", [StackedStand(), StackedStand(glue_medium="dark_ganache")])
def test_the_dabs_the_steps_ask_for_are_the_dabs_that_are_mixed(stand):
    found = stacked((tier(254), tier(178, stand=stand)))
    dabs = [step.values["glue"].value for step in found.stack.tasks if "glue" in step.values]
    mixed = [step.stays.value for bowl in found.bowls.values() for step in bowl.steps.values() if step.step == "glue"]
    assert len(dabs) == 3
    assert sum(dabs) == pytest.approx(sum(mixed))


def test_what_is_lifted_with_a_tier_is_what_the_joint_below_it_carries_more_than_the_one_above():
    found = stacked((tier(305), tier(254), tier(203, layers=Layers(count=6, board_after=3)), tier(152)))
    loads = [found.stack.joints[f"tier_{number}"].load.value for number in (2, 3, 4)]
    lifted = [step.values["weight"].value for step in found.stack.tasks if "lift it cold" in step.text]
    assert lifted == pytest.approx([a - b for a, b in zip(loads, [*loads[1:], 0.0], strict=True)])


def test_as_many_lift_as_the_weight_asks_for_in_every_sentence():
    heavy = stacked(tuple(tier(width, layers=Layers(count=5)) for width in (356, 305, 254)))
    many = {2: "two people", 3: "three people", 4: "four people"}[int(heavy.stack.people.value)]
    (caution,) = [check for check in heavy.checks if check.code == "caution.heavy"]
    assert many in caution.text and heavy.stack.people.value > 2


def test_off_the_middle_the_board_grows_and_the_weight_moves():
    off = stacked((tier(304), tier(152, stand=StackedStand(off_x_mm=60))))
    joint = off.stack.joints["tier_2"]
    heavy = [one.carries.value for one in joint.supports.values()]
    assert max(heavy) - min(heavy) < 1e-6 * max(heavy)
    assert off.section.tiers[1].off == (60.0, 0.0)
    wide = stacked((tier(203), tier(203, stand=StackedStand(off_x_mm=60))))
    assert wide.stack.base_diameter.value >= stacked((tier(203), tier(203))).stack.base_diameter.value + 119


def test_a_measured_lean_adds_to_that_of_the_supports():
    even = stacked((tier(254), tier(178))).stack.lean
    tilted = tier(254, measured=Measured(heights_mm=(100, 104, 100, 102), top_mm=(250, 250), foot_mm=(250, 250)))
    found = stacked((tilted, tier(178))).stack.lean
    assert found.value > even.value
    assert found.given["tier 1, as measured"].value > 0
    assert found.value == pytest.approx(sum(one.value for one in found.given.values()))


def test_narrow_feet_keep_their_supports_inside_all_the_way_down():
    wedge = tier(254, build=TaperedBuild(narrow_mm=150, narrow="foot"))
    joint = stacked((wedge, tier(203))).stack.joints["tier_2"]
    foot = worked(wedge).stands.foot.half_width_mm
    assert all(math.hypot(one.x, one.y) + joint.across.value / 2 <= foot + 0.2 for one in joint.supports.values())


def test_a_kitchen_that_owns_thinner_straws_plans_with_those():
    thin = tuple(
        one.model_copy(update={"across_mm": 5.0, "bears_g": 300.0, "tested": True}) if one.sort == "wide_straw" else one
        for one in STARTING_SUPPORTS
    )
    found = plan(Design(tiers=(tier(254), tier(203))), PRACTICE, MEDIA, Kit(supports=thin)).stack.joints["tier_2"]
    assert found.tested and found.across.value == 5.0
    assert found.schools["load"].value == math.ceil(found.load.value * PRACTICE.support_factor / 300)


def test_what_holds_an_unchanged_tier_is_kept_from_plan_to_plan():
    cake = settle(Design(tiers=(tier(254), tier(178))), PRACTICE)
    one = [worked(each) for each in (tier(254), tier(178))]
    assert cake.dowel.value == PRACTICE.dowel_mm
    first, second = held_of(one, MEDIA), held_of(one, MEDIA)
    assert all(a is b for a, b in zip(first, second, strict=True))


def test_a_drum_on_its_side_stands_on_its_foot_and_its_top_is_round():
    found = stacked((tier(254), tier(152, build=SideBuild(), shape=RoundShape())))
    joint = found.stack.joints["tier_2"]
    foot = found.tiers[1].foot
    seen = translate(Polygon(joint.board), 0, 0).bounds
    assert seen[2] - seen[0] == pytest.approx(foot.width.value, abs=1)
    on_drum = stacked((tier(203, build=SideBuild()), tier(102))).stack.joints["tier_2"]
    assert any(one.out is not None for one in on_drum.supports.values()) or not on_drum.supports


def test_a_bead_and_the_boards_of_a_riser_are_of_what_was_decided():
    piped = tier(178, stand=StackedStand(bead_medium="dark_ganache"))
    found = stacked((tier(254), piped))
    assert found.bowls["dark_ganache"].steps["tier_2_joint"].stays.value == pytest.approx(
        found.stack.joints["tier_2"].bead_weight.value
    )
    cards = {
        stand.kind: [
            need.count
            for need in stacked((tier(254), tier(178, stand=stand))).kit.values()
            if need.tool == "board" and need.tier == 2
        ]
        for stand in (StackedStand(), RiserStand())
    }
    assert cards == {"stacked": [1], "riser": [2]}


def test_the_steps_hold_every_measure_and_every_joint():
    tiers = (
        tier(254, layers=Layers(count=4, board_after=2)),
        tier(203, stand=PillarsStand()),
        tier(152, stand=RiserStand()),
    )
    for stacking in (ASKED, Stacking(stacked="there", coated="after"), Stacking(travels=False, dowel=True)):
        whole = stacked(tiers, stacking).stack
        for one in (*whole.tasks, *whole.serving):
            words = one.text.format(**{name: "x" for name in one.values})
            assert "{" not in words and words[0].isupper() and words.endswith("."), one.text
            assert set(one.values) == {part.split("}")[0] for part in one.text.split("{")[1:]}
        text = " ".join(one.text for one in (*whole.tasks, *whole.serving))
        assert all(f"Tier {number}" in text for number in (1, 2, 3))
        assert ("dowel" in text) == (whole.dowel is not None)
        assert any(one.part == "Drive" for one in whole.tasks) == (stacking.travels is not False)


def test_what_differs_is_told_only_where_it_differs():
    told = [
        [one.text for one in joint.told if "rules differ" in one.text]
        for inches in (6, 4)
        for joint in [stacked((tier(254), tier(inches * INCH))).stack.joints["tier_2"]]
    ]
    assert [bool(one) for one in told] == [True, False]


def test_no_more_than_forty_supports_are_set_and_then_stronger_ones_are_asked_for():
    heavy = tuple(tier(500, stand=StackedStand(sort="straw")) for _ in range(8))
    found = stacked(heavy)
    joint = found.stack.joints["tier_2"]
    assert joint.schools["load"].value > joint.count.value == len(joint.supports) == 40
    assert joint.taken is None
    assert {one.tier for one in found.checks if one.code == "stack.weak"} >= {2}


@pytest.mark.parametrize("upper", [178, 254, 300])
def test_coated_after_stacking_the_tiers_weigh_what_the_bowls_put_on_them(upper):
    found = stacked((tier(254), tier(upper), tier(102, stand=PillarsStand())), Stacking(coated="after"))
    for number, one in enumerate(found.tiers, 1):
        put_on = sum(
            step.stays.value
            for bowl in found.bowls.values()
            for step in bowl.steps.values()
            if step.tier == number and step.step not in ("glue", "slide", "joint")
        )
        assert one.stack.weight.value == pytest.approx(one.layers.cake_weight.value + put_on)
    steps = found.bowls["meringue_buttercream"].steps
    assert all(step.stays.value >= 0 for step in steps.values())
    # Pillars leave the coat below them whole.
    assert steps["tier_2_final"].stays.value == pytest.approx(found.tiers[1].coats.stays.value)
