"""The plan as a whole: ids, formulas that add up, envelopes that nest, amounts that grow with the cake."""

import json
import math
import string
import typing
from itertools import groupby, pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import LinearRing, Polygon, box, get_parts, make_valid
from shapely.affinity import scale
from shapely.ops import unary_union

from amber_spread.core.design.design import BowlOrder, Design, Tier
from amber_spread.core.design.finishes import DrapeCover
from amber_spread.core.design.practice import Practice
from amber_spread.core.kernel.base import Frozen
from amber_spread.core.kernel.caching import forget
from amber_spread.core.kernel.figures import RULES, Figure
from amber_spread.core.kernel.naming import figures
from amber_spread.core.plan import Plan, plan, tier_name
from amber_spread.core.tier import UnknownMedium
from tests import kinds
from tests.core.test_section import parts_of, solid
from tests.designs import COLOURS, MEDIA, designs, planned, quick_designs, tier

PLAIN = {("straight", final, cover) for final in ("none", "freehand") for cover in ("none", "drape")}
LARGE_MM = 10_000
TRACED = 0.5  # mm: outlines that are traced as polygons keep their width so nearly


def reckoned(figure: Figure) -> float:
    """The figure's value worked out again from its rule's formula and the numbers it says were put in."""
    formula = RULES[figure.rule].formula
    values = {name: quantity.value for name, quantity in figure.given.items()}
    if formula == "sum":
        return sum(values.values())
    if formula in ("greatest", "least"):
        return max(values.values()) if formula == "greatest" else min(values.values())
    if formula in ("set", "usual", "same"):
        (value,) = values.values()
        return value
    known = {name: getattr(math, name) for name in dir(math) if not name.startswith("_")}
    return eval(formula, {"__builtins__": {}, **known, "max": max, "min": min}, values)


def at(node, path: str):
    """What stands at a path in the plan; tiers are counted from 1."""
    for part in path.split("."):
        if isinstance(node, dict):
            node = node[part]
        elif isinstance(node, list):
            node = node[int(part) - 1]
        else:
            node = getattr(node, part)
    return node


HELD = []


def holds(check):
    """Hold every plan to something."""
    HELD.append(check)
    return check


@given(designs)
def test_every_plan_holds_to_all_of_it(design):
    """In one test, so that what takes longest, planning, is done once."""
    whole = plan(design, Practice(), MEDIA)
    for check in HELD:
        check(design, whole)
    assert len(HELD) == 8


@holds
def every_figure_is_what_its_formula_makes_of_the_numbers_put_in(design, whole):
    for figure in figures(whole):
        assert figure.value == pytest.approx(reckoned(figure), rel=1e-9, abs=1e-6), figure.id


@holds
def every_figure_stands_where_its_id_says_and_no_id_stands_twice(design, whole):
    found = list(figures(whole))
    assert len({figure.id for figure in found}) == len(found)
    for figure in found:
        assert at(whole, figure.id) is figure
        assert math.isfinite(figure.value)


@holds
def envelopes_nest_and_their_volumes_grow_outward(design, whole):
    for asked, one in zip(design.tiers, whole.tiers, strict=True):
        # A turned tier may be carved narrower all the way up than the cake it is carved from.
        carved = [] if asked.build.kind == "turned" else [one.layers.cake_diameter.value]
        widths = [*carved, one.coats.crumb.diameter.value]
        heights = [one.layers.height.value, one.coats.crumb.height.value]
        for coat in (one.coats.final, one.cover and one.cover.over):
            if coat:
                widths.append(coat.diameter.value)
                heights.append(coat.height.value)
                assert coat.volume.value >= -1e-9
        assert all(inner <= outer + TRACED for inner, outer in pairwise(widths))
        assert all(inner <= outer + 1e-6 for inner, outer in pairwise(heights))
        outward = [border.out.value for border in one.borders.values()]
        bordered = max([*outward, *(region.relief.value for region in one.regions.values())], default=0.0)
        assert one.stack.diameter.value == pytest.approx(widths[-1] + 2 * bordered, abs=TRACED, rel=1e-3)
        if one.foot is None:
            assert one.stack.height.value >= heights[-1] - 1e-6
            assert one.stack.top.value - one.stack.bottom.value == pytest.approx(heights[-1])


def within(kind):
    """The types that a type is made of, itself first: through lists, dicts and choices."""
    yield kind
    for part in typing.get_args(kind):
        yield from within(part)


def fields_of(model, known):
    """Every field of a model of a plan and of those that stand in it, by where it stands."""
    if model in known:
        return
    known.add(model)
    for name, field in model.model_fields.items():
        yield model, name, field.annotation
        for kind in within(field.annotation):
            if isinstance(kind, type) and issubclass(kind, Frozen) and kind is not Figure:
                yield from fields_of(kind, known)


def holds_figures(kind):
    return any(
        one is Figure
        or (
            isinstance(one, type)
            and issubclass(one, Frozen)
            and any(Figure in within(told) for _, _, told in fields_of(one, set()))
        )
        for one in within(kind)
    )


def test_no_figure_stands_in_a_list_where_it_would_go_without_an_id():
    listed = {
        f"{model.__name__}.{name}"
        for model, name, told in fields_of(Plan, set())
        for kind in within(told)
        if typing.get_origin(kind) in (list, tuple) and holds_figures(kind)
    }
    # The tiers are named one by one, by their number.
    assert listed == {"Plan.tiers"}


@given(quick_designs, st.floats(1.01, 1.5))
def test_a_wider_tin_takes_no_less_of_anything_spread_freehand(design, factor):
    small = [
        one
        for one in design.tiers
        if (one.build.kind, one.final.kind, one.cover.kind) in PLAIN and one.tin_diameter_mm * factor <= 600
    ]
    if not small:
        return
    wide = [one.model_copy(update={"tin_diameter_mm": one.tin_diameter_mm * factor}) for one in small]
    before = plan(design.model_copy(update={"tiers": tuple(small)}), Practice(), MEDIA)
    after = plan(design.model_copy(update={"tiers": tuple(wide)}), Practice(), MEDIA)
    assert before.bowls.keys() <= after.bowls.keys()
    for key, bowl in before.bowls.items():
        assert after.bowls[key].need.value >= bowl.need.value - 1e-6
    assert after.stack.weight.value > before.stack.weight.value


@holds
def a_bowl_holds_at_least_what_stays_and_gives_back_the_rest(design, whole):
    for bowl in whole.bowls.values():
        assert bowl.need.value >= bowl.stays.value + bowl.lost.value - 1e-6
        assert bowl.mix.value >= bowl.need.value + bowl.reserve.value - 1e-6
        assert bowl.mix.value % 5 == pytest.approx(0, abs=1e-6)
        assert bowl.comes_back.value == pytest.approx(bowl.need.value - bowl.stays.value - bowl.lost.value)
        assert bowl.apart.value >= bowl.need.value - 1e-6
        assert all(use.in_hand.value >= 0 for use in bowl.steps.values())


@holds
def the_weight_of_the_cake_is_its_sponge_and_all_that_stays(design, whole):
    stays = sum(bowl.stays.value for bowl in whole.bowls.values())
    sponge = sum(one.layers.cake_weight.value for one in whole.tiers)
    sliced = sum(one.foot.slice_weight.value for one in whole.tiers if one.foot)
    openings = [of for one in whole.tiers if one.carving for of in one.carving.openings.values()]
    sliced += sum(of.cake.value + of.filling.value for of in openings)
    boards = whole.stack.weight.given["boards"].value
    assert whole.stack.weight.value == pytest.approx(stays + sponge - sliced + boards)


def test_every_rule_that_is_entered_says_what_it_is():
    for rule in RULES.values():
        assert rule.words.endswith(".")
        assert rule.formula
        assert rule.source.origin != "published" or rule.source.reference


def test_a_medium_out_of_reach_is_named_with_its_field():
    with pytest.raises(UnknownMedium) as caught:
        planned(tier(cover=DrapeCover(medium="marzipan")))
    assert caught.value.path == ("tiers", 0, "cover", "medium")
    assert caught.value.key == "marzipan"


def test_tiers_are_called_by_their_place_unless_they_have_a_name():
    def names(*tiers: Tier) -> list[str]:
        design = Design(tiers=tiers)
        return [tier_name(design, index) for index in range(len(tiers))]

    assert names(tier()) == ["Cake"]
    assert names(tier(), tier()) == ["Bottom", "Top"]
    assert names(tier(), tier(name="Comb"), tier()) == ["Bottom", "Comb", "Top"]
    assert names(tier(), tier(), tier(), tier()) == ["Bottom", "Tier 2", "Tier 3", "Top"]


def test_running_marks_climb_from_the_base_board_through_every_board_and_tier():
    whole = planned(tier(254), tier(203.2), tier(152.4))
    practice = Practice()
    mark = practice.base_board_mm
    for index, one in enumerate(whole.tiers):
        mark += practice.tier_board_mm if index else 0
        assert one.stack.bottom.value == pytest.approx(mark)
        mark += one.stack.height.value
        assert one.stack.top.value == pytest.approx(mark)
    assert whole.stack.height.value == pytest.approx(mark)
    assert whole.stack.base_diameter.value == pytest.approx(whole.tiers[0].stack.diameter.value + 50.8)


def painted(outline):
    """What a line paints: with holes or several parts it is one closed ring after another, each followed by the start of
    the first again, and holes run the other way round than it.
    """
    outline = [one for one, _ in groupby(map(tuple, outline))]
    start, rings = outline[0], [[outline[0]]]
    for point in outline[1:]:
        rings[-1:] = [rings[-1], []] if point == start else [[*rings[-1], point]]
    first, *others = [ring for ring in rings if len(ring) > 2] or [None]
    if first is None:
        return Polygon()  # so thin that it paints nothing
    if any(ring[0] != ring[-1] for ring in others):
        return make_valid(Polygon(outline))  # a line that only comes by its start again
    area = make_valid(Polygon(first))
    for ring in others:
        same = LinearRing(ring).is_ccw == LinearRing(first).is_ccw
        area = (area.union if same else area.difference)(make_valid(Polygon(ring)))
    return area


@holds
def the_parts_of_a_tier_neither_overlap_nor_leave_gaps(design, whole):
    for number, one in enumerate(whole.tiers, 1):
        if one.coats.final and one.coats.final.side.value <= 0:
            continue  # a coat without a side is a skin that touches itself, which no polygon can be
        polygons = [painted(part.outline) for part in solid(whole, number)]
        joined = unary_union([polygon.buffer(1e-6) for polygon in polygons])
        assert sum(polygon.area for polygon in polygons) == pytest.approx(joined.area, rel=1e-3, abs=0.5)
        outside = painted(whole.section.tiers[number - 1].outline)
        if any(opening.medium is None for opening in getattr(design.tiers[number - 1].build, "openings", ())):
            # Left empty inside the cake, or across its axis, where the half that is drawn is open.
            both = unary_union([joined, scale(joined, -1, 1, origin=(0, 0))]).buffer(1e-6)
            filled = unary_union([Polygon(part.exterior) for part in get_parts(both)])
            joined = filled.intersection(box(0, -LARGE_MM, LARGE_MM, LARGE_MM))
        assert joined.area == pytest.approx(outside.area, rel=2e-3, abs=0.5)
        # A lip or a collar that stands above the top stands in what is piped there.
        stands = one.coats.rim_height is not None or (one.cover is not None and one.cover.above is not None)
        for part in [] if stands else parts_of(whole, number, "region"):
            region = painted(part.outline)
            assert region.intersection(make_valid(outside).buffer(-0.1)).area < 0.01 * region.area + 0.5


@holds
def every_check_reads_as_sentences_with_every_measure_at_hand(design, whole):
    for check in whole.checks:
        assert check.text[0].isupper()
        assert check.text.endswith(".")
        wanted = {name for _, name, _, _ in string.Formatter().parse(check.text) if name}
        assert wanted == set(check.values)
        assert check.tier is None or 1 <= check.tier <= len(design.tiers)


@holds
def what_the_core_makes_unchecked_would_pass_every_check(design, whole):
    made = whole.model_dump(warnings="error")
    assert Plan.model_validate(made).model_dump() == made


def recoloured(design):
    return design.model_copy(
        update={"colours": tuple(colour.model_copy(update={"hex": "#123456"}) for colour in design.colours)}
    )


@settings(max_examples=5)  # seventeen plans each
@given(quick_designs, quick_designs)
def test_a_plan_is_the_same_whatever_was_planned_before_it_and_stays_so(design, other):
    planned_alike(
        (design, Practice()),
        (design.model_copy(update={"tiers": design.tiers[::-1]}), Practice()),
        (design.model_copy(update={"tiers": (*design.tiers, other.tiers[0])}), Practice()),
        (recoloured(design), Practice()),
        (design.model_copy(update={"orders": (BowlOrder(bowl=_first_bowl(design), have_g=40),)}), Practice()),
        (design, Practice(filling_mm=Practice().filling_mm + 1)),
        (design, Practice(weigh_step_g=50)),
        (design, Practice()),
    )


@pytest.mark.parametrize("kind", [kind for kind in kinds.BUILDS if kind.carved], ids=lambda kind: kind.__name__)
def test_a_plan_of_carved_tiers_is_the_same_likewise(kind):
    both = Design(tiers=(Tier(tin_diameter_mm=240, build=kinds.example(kind)), tier()), colours=COLOURS)
    turned = recoloured(both.model_copy(update={"tiers": both.tiers[::-1]}))
    planned_alike((both, Practice()), (turned, Practice()), (both, Practice(filling_mm=Practice().filling_mm + 1)))


def planned_alike(*alike):
    """Plan each of some designs and kitchens from nothing, then all after one another: each comes out the same."""
    from_nothing = []
    for one, practice in alike:
        forget()
        from_nothing.append(plan(one, practice, MEDIA).model_dump(mode="json"))
    plans = [plan(one, practice, MEDIA) for one, practice in alike]
    assert [one.model_dump(mode="json") for one in plans] == from_nothing
    assert [json.loads(one.model_dump_json()) for one in plans] == from_nothing


def _first_bowl(design):
    return next(iter(plan(design, Practice(), MEDIA).bowls), "any")


def test_a_medium_weighed_anew_is_planned_anew():
    own = {key: one.model_copy(update={"density_g_per_ml": one.density_g_per_ml * 1.1}) for key, one in MEDIA.items()}
    design = Design(tiers=(tier(),))
    before, after = (plan(design, Practice(), media).tiers[0].coats.crumb.weight.value for media in (MEDIA, own))
    assert after == pytest.approx(1.1 * before)
