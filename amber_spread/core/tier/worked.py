"""One tier worked through its rooms in the order of the work: layers, coats, cover, and what is added to it.

The work is a list of steps. The same tier always comes out the same, and in most edits all tiers but one stay as they
were, so the results are cached.
"""

from collections.abc import Callable, Iterator, Mapping
from functools import cached_property, partial
from typing import TYPE_CHECKING, Any, NamedTuple

from pydantic import ConfigDict
from shapely.errors import ShapelyError

from amber_spread.core.design.design import Tier
from amber_spread.core.design.finishes import InvertedFinal
from amber_spread.core.design.settled import SettledDesign, SettledTier
from amber_spread.core.geometry.bodies.bare import BareBody
from amber_spread.core.geometry.bodies.body import Body, Envelopes, Sideways
from amber_spread.core.geometry.bodies.sculpted import Sculpted
from amber_spread.core.geometry.flat.outline import Cornered, Outline
from amber_spread.core.kernel.base import Interned, PlanPart, interned
from amber_spread.core.kernel.caching import TIERS, cached
from amber_spread.core.kernel.naming import named
from amber_spread.core.stock.kit import Mat
from amber_spread.core.stock.media import Medium, weight
from amber_spread.core.tier.boards import Size, own_shape
from amber_spread.core.tier.carve.carving import CarvingPlan, plan_carving
from amber_spread.core.tier.carve.emptied import Emptied, emptied_of
from amber_spread.core.tier.carve.openings import OpeningPlan, plan_openings
from amber_spread.core.tier.coats.coats import CoatsPlan, coats_underneath, plan_coats
from amber_spread.core.tier.coats.measured import as_measured, measured_ml
from amber_spread.core.tier.coats.side import FootPlan, plan_foot, tipped
from amber_spread.core.tier.cover.cover import plan_cover
from amber_spread.core.tier.cover.plan import CoverPlan
from amber_spread.core.tier.decorate.borders import BorderPlan, plan_borders
from amber_spread.core.tier.decorate.on_top import OnTopPlan, plan_on_top
from amber_spread.core.tier.decorate.regions import RegionPlan, plan_regions
from amber_spread.core.tier.drawn import Cut, Drawn, draw_tier
from amber_spread.core.tier.gauge import GaugeMark, MarkKind, plan_gauge
from amber_spread.core.tier.layers.layers import LayersPlan, plan_layers, trimmed
from amber_spread.core.tier.layers.rules import cake_as_measured
from amber_spread.core.tier.layers.slabs import Slab
from amber_spread.core.tier.mass import Centre, Load, centre_of, load_above
from amber_spread.core.tier.uses import Use, uses_of_tier

Weights = tuple[tuple[str, float], ...]
"""The parts of a weight by name, g."""
BOARD_SHARE = 0.5
"""What stands on a point or a small flat, such as a ball, takes a board half its width (common practice)."""


class Footprint(NamedTuple):
    """A finished tier as it stands on another: its outline, how high it is to its top, the outlines of its foot and of
    its flat top (None where it has none), its board and the edge of that, how far a border stands out at its foot, and
    what stands above its top.
    """

    outline: Outline
    width_mm: float
    length_mm: float
    height_mm: float
    foot: Outline
    top: Outline | None
    board: Size
    board_edge: Outline
    board_words: str
    out_mm: float
    rise_mm: float


class UnknownMedium(KeyError):
    """The design takes a medium that is not within reach; `path` is the field of the design that names it."""

    def __init__(self, path: tuple[str | int, ...], key: str) -> None:
        super().__init__(key)
        self.path = path
        self.key = key


class Unmade(ValueError):
    """A tier that cannot be made; `path` is the field at fault, its tier counted from 0, and the message says why."""

    def __init__(self, path: tuple[str | int, ...], reason: str) -> None:
        super().__init__(reason)
        self.path = path


class TierRooms(PlanPart):
    """What the rooms plan of one tier, each in its turn, for people to see; its figures have its id in theirs."""

    id: str
    layers: LayersPlan
    coats: CoatsPlan
    cover: CoverPlan | None
    foot: FootPlan | None
    carving: CarvingPlan | None
    on_top: dict[str, OnTopPlan]
    borders: dict[str, BorderPlan]
    regions: dict[str, RegionPlan]
    gauge: dict[str, GaugeMark]


class PlannedTier(TierRooms):
    """One tier as its rooms left it, before it stands on the others: with its path in the plan, and what the cake needs
    of it beside what people see.
    """

    # It is never read from data, so pydantic need not work out how.
    model_config = ConfigDict(arbitrary_types_allowed=True, defer_build=True)

    path: str
    tier: SettledTier
    slabs: list[Slab]
    bodies: Envelopes
    tipped: dict[str, Sideways] | None
    stands: Footprint
    drawn: Drawn
    uses: list[Use]
    takes: tuple[Medium, ...]
    weights: Weights
    centre: Centre

    @cached_property
    def hidden_edge(self) -> Outline | None:
        """The edge of the board hidden in it, None where there is none."""
        board = self.layers.board
        if board is None:
            return None
        size = Size(board.shape, board.diameter.value, (board.length or board.diameter).value)
        return size.outline(self.bodies.bare.section(board.height.value))

    def on_the_edge(self) -> Iterator[tuple[str, float, float]]:
        """What stands along the top edge: what it is, how far it reaches in from the edge, and how high it stands."""
        if self.coats.rim_height is not None and self.coats.final is not None:
            thick_mm = self.bodies.coated.outline.half_width_mm - self.bodies.crumbed.outline.half_width_mm
            yield "the raw edge", thick_mm, self.coats.rim_height.value
        if self.cover is not None and self.cover.above is not None and self.tier.cover is not None:
            yield "the collar", self.tier.cover.value, self.cover.above.value
        for border in self.borders.values():
            if border.at == "top":
                yield "the border", border.bead.value, border.up.value

    def load_above(self, up_mm: float) -> Load:
        """What of an upright tier lies above a height, measured from the foot of the bare tier."""
        return load_above(self.bodies, self.slabs, dict(self.weights), self.borders, self.regions, up_mm)


def _weights(
    layers: LayersPlan, foot: FootPlan | None, openings: Mapping[str, OpeningPlan], uses: list[Use]
) -> Weights:
    """What the finished tier weighs, g: its cake, what stays of each step, and what is hidden in it or cut off."""
    own: dict[str, float] = {"cake": layers.cake_weight.value}
    for use in uses:
        own[use.step] = own.get(use.step, 0.0) + use.stays.value
    if layers.cavity is not None and layers.cavity.fill_weight is not None:
        own["what is hidden in it"] = layers.cavity.fill_weight.value
    if foot is not None:
        own["slice cut off"] = -foot.slice_weight.value
    if openings:
        own["cut out of it"] = -sum(one.cake.value + one.filling.value for one in openings.values())
    return tuple(own.items())


def work_tiers(cake: SettledDesign, media: Mapping[str, Medium], mat: Mat) -> list[PlannedTier]:
    """Plan every tier, bottom first. The results are cached: nobody may change them.

    `media` holds every medium within reach by key. Raises UnknownMedium where a tier takes another, and Unmade where
    one cannot be made of its shape, layers and coats.
    """
    for index, tier in enumerate(cake.tiers):
        for path, key, _ in tier.taken:
            if key not in media:
                raise UnknownMedium(("tiers", index, *path), key)
    by_key = {key: interned(media[key]) for key in {key for tier in cake.tiers for key in tier.media_keys}}
    hexes, rolled_on = {colour.name: colour.hex for colour in cake.asked.colours}, interned(mat)
    marbled = frozenset(colour.name for colour in cake.asked.colours if colour.marbled and colour.parts)
    worked: list[PlannedTier] = []
    for index, tier in enumerate(cake.tiers):
        known = tuple([by_key[key] for key in tier.media_keys])
        try:
            named_hexes = tuple([(name, hexes[name]) for name in tier.colour_names])
            worked.append(
                _work(index + 1, tier, rolled_on, known, named_hexes, marbled.intersection(tier.colour_names))
            )
        except (ValueError, ArithmeticError, ShapelyError) as error:
            raise Unmade((index, *_at_fault(tier.asked)), str(error)) from error
    return worked


def carved_of(cake: SettledDesign) -> list[BareBody]:
    """Every carved body of a cake. A new one has not been computed yet; the slow results are cached with each body. One
    that cannot be made is left out; planning the tier says why.
    """
    found: list[BareBody] = []
    for tier in cake.tiers:
        build = tier.asked.build
        if build.carved:
            try:
                outline = trimmed(tier)
                body = build.body(outline, build.own_height_mm(outline))
                bodies = [body, as_measured(tier, body, [])[1]]
            except (ValueError, ArithmeticError, ShapelyError):
                continue
            found += [one.core for one in bodies if isinstance(one, Sculpted)]
    return list(dict.fromkeys(found))


def _at_fault(tier: Tier) -> tuple[str | int, ...]:
    """The field of a tier that cannot be made: the outline that cannot be drawn; else, up a straight wall, the shape
    that leaves no room, and on any other what the wall does.
    """
    for path, drawn in _outlines(tier):
        try:
            drawn()
        except ValueError:
            return path
    return ("shape",) if tier.build.straight else ("build",)


def _outlines(tier: Tier) -> Iterator[tuple[tuple[str | int, ...], Callable[[], object]]]:
    """Every outline the tier draws, with the field that draws it."""
    yield ("shape",), partial(tier.shape.outline, tier.tin_diameter_mm)
    for index, top in enumerate(tier.on_top):
        yield ("on_top", index, "shape"), partial(top.shape.outline, top.across_mm)


class TierWork(PlannedTier):
    """A tier while it is worked: what it is made of, and what every step has planned so far. A step reads only what an
    earlier one has left.
    """

    model_config = ConfigDict(frozen=False)

    number: int
    mat: Mat
    media: dict[str, Medium]
    hexes: dict[str, str]
    marbled: frozenset[str]
    as_measured: SettledTier
    """The tier with its measured size, where it was measured."""
    coats_underneath_mm: float
    planned: Body
    """The bare cake before it was measured."""
    bare: Body
    crumbed: Body
    coated: Body
    edge: Outline
    flat: Outline | None
    emptied: Emptied | None
    openings: dict[str, OpeningPlan]
    cut: Cut

    if TYPE_CHECKING:

        def __init__(self, **begun_with: Any) -> None: ...

    else:
        # The model's own way of setting a field takes three calls.
        __setattr__ = object.__setattr__

    def hex_of(self, medium: str, colour: str | None) -> str:
        """The colour of a medium on screen, in a colour of the design or its own."""
        return self.media[medium].hex if colour is None else self.hexes[colour]


@cached(TIERS)
def _work(
    number: int,
    tier: SettledTier,
    mat: Interned[Mat],
    taken: tuple[Interned[Medium], ...],
    colours: tuple[tuple[str, str], ...],
    marbled: frozenset[str],
) -> PlannedTier:
    media = tuple([one.value for one in taken])
    work = TierWork(
        number=number,
        id=tier.asked.id,
        path=f"tiers.{tier.asked.id}",
        tier=tier,
        mat=mat.value,
        takes=media,
        media={medium.key: medium for medium in media},
        hexes=dict(colours),
        marbled=marbled,
    )
    for step in STEPS:
        step(work)
    return named(PlannedTier.from_fields_of(work), work.path)


def _plan_layers(work: TierWork) -> None:
    tier = work.tier
    work.coats_underneath_mm = coats_underneath(tier)
    if work.coats_underneath_mm and tier.asked.build.on_side:
        work.coats_underneath_mm += tier.on_top_mm
    work.layers, work.planned, work.slabs = plan_layers(tier, work.media, tier.above_mm + work.coats_underneath_mm)


def _measure(work: TierWork) -> None:
    """From here on the tier is as it was measured, where it was."""
    work.as_measured, work.bare, work.slabs = as_measured(work.tier, work.planned, work.slabs)
    measured = work.tier.asked.measured
    if measured is not None:
        found_ml, density = measured_ml(measured, work.bare), work.tier.usual.cake_density_g_per_ml
        cake = cake_as_measured.figure(work.layers.cake_volume.value, found_ml, work.planned.volume_ml)
        work.layers = work.layers.replace(cake_volume=cake, cake_weight=weight.figure(cake.value, density))


def _plan_coats(work: TierWork) -> None:
    work.coats, work.crumbed, work.coated = plan_coats(work.as_measured, work.media, work.bare, work.planned)


def _plan_cover(work: TierWork) -> None:
    work.cover, covered = plan_cover(work.as_measured, work.media, work.coated, work.mat, work.hex_of)
    work.bodies = Envelopes(work.bare, work.crumbed, work.coated, covered)


def _tip(work: TierWork) -> None:
    """A drum on its side lies on a flat, where a slice is cut off."""
    layers, coats = work.layers, work.coats
    filling = layers.filling
    heavy = [layers.cake_weight, filling.weight, filling.dam_weight, filling.seal_weight]
    heavy += [layers.syrup.weight if layers.syrup else None, coats.crumb_stays, coats.stays]
    drum_g = sum([part.value for part in heavy if part is not None])
    work.tipped = _on_its_side(work.as_measured, work.bodies)
    work.foot = plan_foot(work.as_measured, work.coated, drum_g)


def _decorate(work: TierWork) -> None:
    tier, covered = work.as_measured, work.bodies.covered
    if work.tipped is None or work.foot is None:
        work.edge, work.flat = covered.section(covered.foot_mm + 1e-6 * covered.height_mm), covered.flat_top
    else:
        work.edge, work.flat = Cornered(max(1.0, work.foot.width.value), work.tipped["covered"].thick_mm), None
    work.borders = plan_borders(tier, work.media, work.edge, work.flat)
    work.on_top = plan_on_top(tier, work.media, work.hex_of)
    work.regions = plan_regions(tier, work.media, covered, work.hex_of)


def _open(work: TierWork) -> None:
    """Hollow out the cavity and cut the openings."""
    tier, layers = work.as_measured, work.layers
    work.emptied = emptied_of(tier.asked.build, work.bare, work.slabs, layers.cavity)
    work.openings = plan_openings(tier, work.bare, layers, work.emptied, work.media, work.hex_of)


def _weigh(work: TierWork) -> None:
    """What every step takes, and what the tier weighs."""
    layers, coats, bodies = work.layers, work.coats, work.bodies
    work.cut = Cut(
        layers,
        work.emptied,
        work.openings,
        coats,
        work.cover,
        work.borders,
        work.regions,
        work.on_top,
        bodies,
        work.slabs,
        work.tipped,
    )
    work.uses = uses_of_tier(work.number, work.as_measured, work.cut, work.marbled)
    work.weights = _weights(layers, work.foot, work.openings, work.uses)
    work.centre = centre_of(bodies, work.tipped, dict(work.weights))


def _carve(work: TierWork) -> None:
    tier, weight_g = work.as_measured, sum(dict(work.weights).values())
    work.carving = plan_carving(tier, work.bodies, work.layers, work.emptied, work.openings, work.coats, weight_g)


def _stand(work: TierWork) -> None:
    """How it stands on another, and the heights on its way up."""
    tier = work.as_measured
    cover = None if work.tipped else work.cover
    proud = list(_above(work.coats, cover, work.borders, work.regions, work.on_top))
    outward = list(_outward(work.borders, work.regions))
    work.stands = _stands(tier, work.bodies, work.tipped, work.edge, work.flat, proud, outward)
    coats: list[tuple[MarkKind, float]] = [
        ("crumb", tier.crumb.value),
        ("final", tier.top.value if tier.top else 0.0),
        ("cover", tier.on_top_mm),
    ]
    work.gauge = plan_gauge(work.slabs, work.coats_underneath_mm, coats)


def _draw(work: TierWork) -> None:
    work.drawn = draw_tier(work.as_measured.asked, work.cut, work.hex_of)


STEPS = (
    _plan_layers,
    _measure,
    _plan_coats,
    _plan_cover,
    _tip,
    _decorate,
    _open,
    _weigh,
    _carve,
    _stand,
    _draw,
)


def _on_its_side(tier: SettledTier, bodies: Envelopes) -> dict[str, Sideways] | None:
    """Every envelope of a drum on its side, all about one middle so high above the flat."""
    if not tier.asked.build.on_side:
        return None
    centre_mm = tipped(bodies.coated, tier).centre_mm
    return {
        name: Sideways(body.width_mm / 2, body.height_mm, centre_mm)
        for name, body in zip(
            Envelopes.__match_args__, (bodies.bare, bodies.crumbed, bodies.coated, bodies.covered), strict=True
        )
    }


def _stands(
    tier: SettledTier,
    bodies: Envelopes,
    leaning: dict[str, Sideways] | None,
    foot: Outline,
    top: Outline | None,
    above: list[float],
    outward: list[float],
) -> Footprint:
    """How a finished tier stands, on that outline of its foot and with that flat top; `above` and `outward` are how far
    what is piped and laid on it stands up and out.
    """
    out_mm = max(outward, default=0.0)
    rise_mm = max(above, default=0.0)
    words = "foot of the bare cake"
    if leaning is not None:
        drum = leaning["covered"]
        seen = Cornered(2 * drum.radius_mm, drum.thick_mm)
        size = 2 * drum.radius_mm, drum.thick_mm, drum.height_mm
        board = own_shape(foot)
        return Footprint(seen, *size, foot, top, board, board.outline(seen), words, out_mm, rise_mm)
    body, bare, build = bodies.covered, bodies.bare, tier.asked.build
    if isinstance(tier.asked.final, InvertedFinal) and not build.own_height:
        # The card it was turned over on is its board.
        words, board = "the card it was turned over on", own_shape(bodies.coated.section(bodies.coated.foot_mm))
    else:
        board, whole = own_shape(bare.section(1e-6 * bare.height_mm)), own_shape(bare.outline)
        if build.own_height and min(board.across_mm / whole.across_mm, board.length_mm / whole.length_mm) < BOARD_SHARE:
            board = Size(whole.shape, BOARD_SHARE * whole.across_mm, BOARD_SHARE * whole.length_mm)
    size = body.width_mm, body.length_mm, body.height_mm
    edge = board.outline(body.outline)
    return Footprint(body.outline, *size, foot, top, board, edge, words, out_mm, rise_mm)


def _above(
    coats: CoatsPlan,
    cover: CoverPlan | None,
    borders: Mapping[str, BorderPlan],
    regions: Mapping[str, RegionPlan],
    on_top: Mapping[str, OnTopPlan],
) -> Iterator[float]:
    """How high each thing stands above the flat top: a lip, a collar, a border, a piece laid on it."""
    if coats.rim_height is not None:
        yield coats.rim_height.value
    if cover is not None and cover.above is not None:
        yield cover.above.value
    yield from (border.up.value for border in borders.values())
    yield from (region.relief.value for region in regions.values() if region.on_top)
    yield from (piece.piece.sizes["thickness"].value for piece in on_top.values())


def _outward(borders: Mapping[str, BorderPlan], regions: Mapping[str, RegionPlan]) -> Iterator[float]:
    """How far each thing stands out from the wall: a border, a piped region."""
    yield from (border.out.value for border in borders.values())
    yield from (region.relief.value for region in regions.values())
