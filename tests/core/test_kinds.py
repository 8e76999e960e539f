"""Every kind has one row, and every row is true to its type: fields, limits, choices, usuals, how a new one begins."""

from typing import Annotated, Any, Literal, get_args, get_origin

import pytest
from annotated_types import Ge, Le

from amber_spread.core.design.builds import Build, StraightBuild
from amber_spread.core.design.design import Cavity, Design, Layers, Tier
from amber_spread.core.design.finishes import Cover, Filling, FinalCoat, NoCoat, PlateFinal
from amber_spread.core.design.forms import BUILDS, SHAPES, SOLIDS
from amber_spread.core.design.habits import HANDLINGS
from amber_spread.core.design.kinds import COVERS, FILLED, FINALS, PARTS, STANDS, kind_of, suits
from amber_spread.core.design.practice import Practice, Techniques
from amber_spread.core.design.rows import usuals_of
from amber_spread.core.design.settled import SettledTier, settle
from amber_spread.core.design.shapes import RoundShape, Shape
from amber_spread.core.design.solids import Solid
from amber_spread.core.design.stands import Stand
from amber_spread.core.kernel.limits import LIMITS
from amber_spread.core.line.quick_line import read_line
from amber_spread.core.line.quick_words import drawn_fields
from amber_spread.core.line.quick_writing import write_line
from amber_spread.core.stock.media import LIBRARY, MEDIUM_KINDS
from tests import kinds
from tests.designs import COLOURS, MEDIA, planned, tier

ROWS = [(part, model, kind) for part in PARTS for model, kind in part.kinds.items()]
NAMED = [pytest.param(*row, id="-".join([*row[0].path, row[2].kind])) for row in ROWS]
ELSEWHERE = {
    "Cavity": {"fill_g_per_ml"}, "CarvedBuild": {"front_mm"}, "PanelCover": {"run", "stripe_edges"}, "SoftFilling": set(), "Tier": {"name"},
}  # fmt: skip
"""Numbers and choices that stand in fields of their own, with more about them than a row says."""
GIVEN = {"disc_diameter_mm": 215.0, "edges_mm": [30.0, 30.0], "diameter_mm": 70.0, "across_mm": 80.0,
         "shape": {"kind": "heart"}, "tin_diameter_mm": 200.0, "heights_mm": [100.0] * 4, "top_mm": [198.0, 198.0],
         "foot_mm": [200.0, 200.0]}  # fmt: skip


@pytest.mark.parametrize(
    "union, rows",
    [
        (Shape, SHAPES),
        (Build, BUILDS),
        (Solid, SOLIDS),
        (Filling, FILLED),
        (FinalCoat, FINALS),
        (Cover, COVERS),
        (Stand, STANDS),
    ],
)
def test_every_kind_of_a_union_has_a_row_and_no_other(union, rows):
    assert set(rows) == set(kinds.kinds_of(union))
    assert len({kind.words for kind in rows.values()}) == len(rows)


def test_what_is_baked_has_a_row_for_each_way():
    baked = {one for one in plain(Layers.model_fields["bake"].annotation) if hasattr(one, "model_fields")}
    (part,) = (part for part in PARTS if part.path == ("layers", "bake"))
    assert set(part.kinds) == baked
    assert len(baked) == 2


def plain(annotation) -> list[Any]:
    """What a field may be: its own types, without what they are bound by."""
    if get_origin(annotation) is Annotated:
        return plain(get_args(annotation)[0])
    if get_origin(annotation) is Literal:
        return list(get_args(annotation))
    return [one for part in get_args(annotation) for one in plain(part)] or [annotation]


def bounds(field) -> tuple[float, float]:
    found = [*field.metadata]
    for part in (field.annotation, *get_args(field.annotation)):
        if get_origin(part) is Annotated:
            found += [one for info in get_args(part)[1:] for one in getattr(info, "metadata", [info])]
    low = next(one.ge for one in found if isinstance(one, Ge))
    return low, next(one.le for one in found if isinstance(one, Le))


@pytest.mark.parametrize("part, model, kind", NAMED)
def test_a_row_asks_for_every_number_and_choice_of_its_type_within_the_types_own_limits(part, model, kind):
    asked = {one.field: one for one in (*kind.asks, *kind.picks)}
    assert len(asked) == len(kind.asks) + len(kind.picks)
    usual = usuals_of(model)
    for name, field in model.model_fields.items():
        may_be = plain(field.annotation)
        if name == "kind" or name in (*ELSEWHERE.get(model.__name__, ()), *drawn_fields(model)):
            continue
        if float in may_be or int in may_be:
            if (
                isinstance(field.default, tuple)
                or get_origin(field.annotation) is tuple
                or tuple in map(get_origin, get_args(field.annotation))
            ):
                continue
            limit = LIMITS[asked[name].limit]
            assert bounds(field) == (limit.low, limit.high), name
            assert asked[name].usual == usual.get(name)
            assert asked[name].usual is None or hasattr(Practice(), asked[name].usual)
        elif any(isinstance(one, str | int) and not isinstance(one, type) for one in may_be) or may_be == [bool]:
            choices = {one.value for one in asked[name].choices}
            own = {True, False} if may_be == [bool] else {None if one is type(None) else one for one in may_be}
            assert choices == own, name
    assert asked.keys() <= model.model_fields.keys()
    assert kind.leading is None or kind.leading in asked


@pytest.mark.parametrize("part, model, kind", NAMED)
def test_a_new_one_of_a_kind_is_one_that_can_be_kept(part, model, kind):
    sizes = {name: round(200 * share, 1) for name, share in kind.of_tin.items()}
    given = {name: GIVEN[name] for name, field in model.model_fields.items() if field.is_required() and name in GIVEN}
    new = model.model_validate(given | kind.begins | sizes)
    assert getattr(new, "kind", "") == kind.kind
    assert kind_of(new) is kind
    assert set(kind.keeps) <= {name for other in part.kinds for name in other.model_fields}
    assert getattr(new, "medium", None) is None or MEDIA[new.medium].kind in kind.media
    assert set(kind.media) <= MEDIUM_KINDS.keys()


def test_the_kinds_of_medium_are_those_there_are():
    assert {medium.kind for medium in LIBRARY} <= MEDIUM_KINDS.keys()


def test_every_technique_serves_a_kind_and_every_kind_that_takes_something_has_one():
    techniques = set(Techniques.model_fields)
    served = {kind.technique for _, _, kind in ROWS if kind.technique}
    # A seal and a dam are steps of a soft filling; glue and joints are of the whole cake.
    assert served | {"seal", "dam", "glue"} == techniques == {row.name for row in HANDLINGS}
    for _, model, kind in ROWS:
        takes = "medium" in model.model_fields or kind.crumb is not None
        assert bool(kind.technique) == takes, kind


@pytest.mark.parametrize("build", kinds.BUILDS)
def test_covers_suit_builds_there_are(build):
    one = kinds.example(build)
    assert {name for cover in COVERS.values() for name in cover.suits} <= {kind.kind for kind in BUILDS.values()}
    for cover in COVERS.values():
        assert suits(cover.kind, one) == (one.kind in cover.suits)
    assert any(suits(cover.kind, one) for cover in COVERS.values())


@pytest.mark.parametrize("part, model, kind", [row for row in NAMED if row.values[0].word and row.values[2].kind])
def test_the_line_reads_a_kind_by_its_name_and_by_what_else_it_is_called(part, model, kind):
    name = kind.kind.replace("_", "-")
    for word in (name, *kind.said):
        needs = f" {GIVEN['disc_diameter_mm']:g}mm" if kind.plate else ""
        listed = " edges 30mm / 30mm" if kind.kind == "measured" else ""
        found = read_line(f"8in | {part.word} {word}{needs}{listed}", MEDIA, Practice())
        assert found.unread == []
        node: Any = found.design.tiers[0]
        for step in part.path:
            node = getattr(node, step)
        assert node.kind == kind.kind


@pytest.mark.parametrize("kind", [*kinds.SHAPES, *kinds.BUILDS])
def test_the_line_reads_a_shape_and_a_build_by_every_word_for_it(kind):
    one = kinds.example(kind)
    shaped = tier(shape=one, id="1") if hasattr(one, "outline") else tier(build=one, id="1")
    line = write_line(Design(tiers=(shaped,), colours=COLOURS), MEDIA)
    row = kind_of(one)
    for word in row.said:
        assert read_line(line.replace(f" {row.kind}", f" {word}", 1), MEDIA, Practice()).design.tiers[0] == shaped


@pytest.mark.parametrize("kind", FINALS, ids=lambda kind: kind.__name__)
def test_how_thick_a_final_coat_lies_is_read_from_the_fields_its_row_names(kind):
    row = kind_of(kinds.example(kind))
    numbers = {name: 3.0 + at for at, name in enumerate(kind.model_fields) if name.endswith("_mm")}
    final = kinds.example(kind).model_copy(update=numbers)
    one = SettledTier(tier(final=final), Practice())
    for field, found in ((row.top_field, one.top), (row.side_field, one.side)):
        assert (None if found is None else found.value) == (None if field is None else numbers[field])
    assert (row.top_field is None) == isinstance(final, NoCoat)
    assert (row.side_field is None) == isinstance(final, NoCoat | PlateFinal)


def test_a_part_without_a_row_is_an_error():
    with pytest.raises(KeyError):
        kind_of(Practice())


def test_shapes_and_builds_have_silhouettes_that_lie_in_their_box():
    for kind in (*SHAPES.values(), *BUILDS.values()):
        assert kind.icon.startswith("M") and kind.icon.endswith("z")
        numbers = [float(one) for one in kind.icon[1:-1].replace("L", " ").split()]
        assert min(numbers) >= 2 and max(numbers) <= 22
        assert max(numbers) - min(numbers) == pytest.approx(20, abs=0.2)
    assert SHAPES[RoundShape].icon != BUILDS[StraightBuild].icon
    assert all(not kind.icon for kind in COVERS.values())


def test_a_settled_tier_says_of_every_thickness_whether_it_was_decided():
    usual = Practice()
    one = SettledTier(tier(), usual)
    for figure in (one.filling, one.crumb, one.side, one.top):
        assert figure.rule == "usual"
    decided = SettledTier(tier(final=kinds.example(kinds.FINALS[1], side_mm=7.0)), usual)
    assert (decided.side.rule, decided.side.value, decided.top.rule) == ("decided", 7.0, "usual")
    assert one.cover is None and one.dam is None


def test_the_same_tier_asked_of_the_same_kitchen_is_settled_once():
    def one(asked, usual):
        return settle(Design(tiers=(asked,)), usual).tiers[0]

    first = one(tier(), Practice())
    assert one(tier(), Practice()) is first
    assert one(tier(150), Practice()) is not first
    assert one(tier(), Practice(crumb_coat_mm=2.5)) is not first


def test_a_design_is_settled_with_the_board_it_stands_on():
    cake = settle(Design(tiers=(tier(), tier(150))), Practice(base_board_mm=9, base_margin_mm=31))
    assert (cake.board.thickness.value, cake.board.thickness.rule, cake.board.margin_mm) == (9, "usual", 31)
    assert [one.asked.tin_diameter_mm for one in cake.tiers] == [203.2, 150]


@pytest.mark.parametrize("name, step", [("semi_naked", 0.5), ("freehand", 0.5)])
def test_what_the_crumb_coat_is_below_a_coat_is_that_coats_own_usual(name, step):
    final = next(model for model, kind in FINALS.items() if kind.kind == name)
    before, after = (
        planned(tier(final=final()), practice=Practice(**{FINALS[final].crumb or "crumb_coat_mm": value}))
        for value in (3.0, 3.0 + step)
    )
    assert after.tiers[0].coats.crumb_stays.value > before.tiers[0].coats.crumb_stays.value


def test_a_room_for_sweets_asks_for_where_it_begins_and_ends():
    row = kind_of(Cavity(diameter_mm=60))
    assert [one.left for one in row.asks] == [None, "the second", "the last but one"]
    assert kind_of(Tier(tin_diameter_mm=200)).asks[0].field == "tin_diameter_mm"


FIGURED = [(part, model, one) for part, model, kind in ROWS for one in kind.asks if one.figure]
TYPED = {
    "layer_count": 3,
    "rim_mm": 14.0,
    "overlap_mm": 21.0,
    "layer_height_mm": 33.0,
    "disc_diameter_mm": 216.0,
    "seal_thickness_mm": 3.0,
}
"""A value to type for each limit; 7 mm for those that are not here."""


@pytest.mark.parametrize(
    "part, model, one", [pytest.param(*each, id=f"{each[1].__name__}-{each[2].field}") for each in FIGURED]
)
def test_a_field_becomes_the_figure_that_its_row_names(part, model, one):
    typed = TYPED.get(one.limit, 7.0)
    if model is Tier:
        (planned_tier,) = planned(tier(203.2)).tiers
        wider = planned(tier(203.2 + typed)).tiers[0]
        assert figure_at(wider, one).value - figure_at(planned_tier, one).value == pytest.approx(typed)
        return
    own = kinds.example(model, **{one.field: typed})
    (planned_tier,) = planned(tier(203.2, **{part.path[0]: own})).tiers
    found = figure_at(planned_tier, one)
    assert found.value == pytest.approx(typed) and found.id == f"tiers.1.{one.figure}"


def figure_at(found, one):
    for step in one.figure.split("."):
        found = getattr(found, step)
    return found
