"""One tier worked through its rooms in the order of the work: layers, coats, cover, and what is added to it.

A tier comes out the same whenever the same goes in, and in most edits all tiers but one go in as they were. What
lately came out is therefore kept and given again.
"""

from collections.abc import Mapping
from functools import lru_cache
from typing import NamedTuple

from amber_spread.core.body import Envelopes, Sideways
from amber_spread.core.coats import CoatsPlan, coats_underneath, crumb_thickness, final_top, plan_coats
from amber_spread.core.cover import cover_thickness, plan_cover
from amber_spread.core.cover_plan import CoverPlan
from amber_spread.core.design import Tier
from amber_spread.core.drawn import Cut, Drawn, draw_tier
from amber_spread.core.extras import BorderPlan, OnTopPlan, plan_borders, plan_on_top
from amber_spread.core.finishes import covers_top
from amber_spread.core.gauge import GaugeMark, MarkKind, plan_gauge
from amber_spread.core.kit import Mat
from amber_spread.core.layers import LayersPlan, Slab, plan_layers
from amber_spread.core.media import Medium
from amber_spread.core.naming import named
from amber_spread.core.practice import Practice
from amber_spread.core.shapes import BallBuild, SideBuild
from amber_spread.core.side import FootPlan, plan_foot, tipped

KEPT = 256
"""So many tiers are kept, the ones asked for last."""
BOARD_SHARE = 0.5
"""What stands on a point or a small flat, such as a ball, takes a board half its width (common practice)."""


class Worked(NamedTuple):
    """One tier as its rooms left it, before it stands on the others."""

    layers: LayersPlan
    coats: CoatsPlan
    cover: CoverPlan | None
    foot: FootPlan | None
    on_top: OnTopPlan | None
    borders: dict[str, BorderPlan]
    gauge: dict[str, GaugeMark]
    slabs: list[Slab]
    bodies: Envelopes
    tipped: dict[str, Sideways] | None
    drawn: Drawn


class Footprint(NamedTuple):
    """A finished tier as it stands on another: its reach, its foot, its flat top (0 where it has none), its board."""

    width_mm: float
    length_mm: float
    height_mm: float
    foot_mm: float
    top_mm: float
    board_mm: float


def work(
    number: int, tier: Tier, practice: Practice, media: Mapping[str, Medium], mat: Mat, hexes: Mapping[str, str]
) -> Worked:
    """Every room of the work over one tier, its figures called `tiers.<number>...`. Nobody may change what comes out.

    `media` holds every medium within reach by key, `hexes` every colour of the design by name. Raises ValueError when
    the build cannot be made; the message says why.
    """
    taken = list(tier.taken())
    mediums = dict.fromkeys(key for _, key, _ in taken)
    colours = dict.fromkeys(colour for _, _, colour in taken if colour is not None)
    return _work(
        number,
        tier,
        practice,
        mat,
        tuple(media[key] for key in mediums),
        tuple((name, hexes[name]) for name in colours),
    )


@lru_cache(maxsize=KEPT)
def _work(
    number: int,
    tier: Tier,
    practice: Practice,
    mat: Mat,
    taken: tuple[Medium, ...],
    colours: tuple[tuple[str, str], ...],
) -> Worked:
    media, hexes = {medium.key: medium for medium in taken}, dict(colours)

    def hex_of(medium: str, colour: str | None) -> str:
        return media[medium].hex if colour is None else hexes[colour]

    crumb, top, cover_mm = crumb_thickness(tier, practice), final_top(tier, practice), cover_thickness(tier, practice)
    on_top_mm = cover_mm.value if cover_mm and covers_top(tier.cover) else 0.0
    under_mm = coats_underneath(tier, practice)
    if under_mm and isinstance(tier.build, SideBuild):
        under_mm += on_top_mm
    above = crumb.value + (top.value if top else 0.0) + on_top_mm + under_mm
    layers, bare, slabs = plan_layers(tier, practice, media, above)
    coats, crumbed, coated = plan_coats(tier, practice, media, bare)
    cover, covered = plan_cover(tier, practice, media, coated, mat, hex_of)
    bodies = Envelopes(bare, crumbed, coated, covered)
    standing: list[tuple[MarkKind, float]] = [
        ("crumb", crumb.value), ("final", top.value if top else 0.0), ("cover", on_top_mm),
    ]  # fmt: skip
    drum_g = layers.cake_weight.value + layers.filling.weight.value + coats.crumb.weight.value
    drum_g += coats.stays.value if coats.stays else 0.0
    borders = plan_borders(tier, practice, media, covered)
    leaning = _tip(tier, practice, bodies)
    done = Worked(
        layers=layers,
        coats=coats,
        cover=cover,
        foot=plan_foot(tier, practice, coated, drum_g),
        on_top=plan_on_top(tier, practice, media, hex_of),
        borders={f"border_{place}": border for place, border in enumerate(borders, 1)},
        gauge=plan_gauge(slabs, under_mm, standing),
        slabs=slabs,
        bodies=bodies,
        tipped=leaning,
        drawn=draw_tier(number, tier, Cut(layers, coats, bodies, slabs, leaning), hex_of),
    )
    named(done._asdict(), f"tiers.{number}")
    return done


def forget_tiers() -> None:
    """Keep no tier any longer, so that the next one is worked from nothing."""
    _work.cache_clear()


def _tip(tier: Tier, practice: Practice, bodies: Envelopes) -> dict[str, Sideways] | None:
    """Every envelope of a drum on its side, all about one middle so high above the flat."""
    if not isinstance(tier.build, SideBuild):
        return None
    centre_mm = tipped(bodies.coated, tier, practice).centre_mm
    return {
        name: Sideways(body.width_mm / 2, body.height_mm, centre_mm) for name, body in zip(Envelopes.__match_args__, (
            bodies.bare, bodies.crumbed, bodies.coated, bodies.covered), strict=True)
    }  # fmt: skip


def footprint(tier: Tier, done: Worked) -> Footprint:
    """How a finished tier stands."""
    if done.tipped is not None and done.foot is not None:
        drum = done.tipped["covered"]
        board = max(done.foot.width.value, drum.thick_mm)
        return Footprint(2 * drum.radius_mm, drum.thick_mm, drum.height_mm, done.foot.width.value, 0.0, board)
    body, bare = done.bodies.covered, done.bodies.bare
    foot_mm = 2 * body.section(body.foot_mm + 1e-6 * body.height_mm).half_width_mm
    flat_mm = 2 * body.flat_top.half_width_mm if body.flat_top else 0.0
    board_mm = bare.width_mm
    if not isinstance(tier.build, BallBuild):
        board_mm = 2 * bare.section(1e-6 * bare.height_mm).half_width_mm
    elif tier.build.halves == 2:
        board_mm = max(tier.build.foot_mm, BOARD_SHARE * bare.width_mm)
    return Footprint(body.width_mm, body.length_mm, body.height_mm, foot_mm, flat_mm, board_mm)
