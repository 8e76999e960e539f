"""Designs for the tests: plain ones by hand, and any at all by hypothesis."""

from hypothesis import strategies as st
from pydantic import ValidationError

from amber_spread.core.design.builds import Build, CarvedBuild
from amber_spread.core.design.design import Colour, ColourPart, Design, Layers, Tier
from amber_spread.core.design.finishes import Cover, CrumbCoat, Filling, FinalCoat
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.settled import settle
from amber_spread.core.design.shapes import FreeShape, OvalShape
from amber_spread.core.design.stands import Stacking
from amber_spread.core.document.document import FORMAT, Document
from amber_spread.core.kernel import limits
from amber_spread.core.plan import plan
from amber_spread.core.stock.kit import Kit, Mat
from amber_spread.core.stock.media import shelf
from amber_spread.core.tier import work_tiers
from tests import kinds

MEDIA = shelf()
PALE = Colour(name="pale", hex="#F5E8E2", parts=(ColourPart(parts=3), ColourPart(colour="blush")))
COLOURS = (Colour(name="ivory", hex="#F3E6C4"), Colour(name="blush", hex="#EBD3CC"), PALE)
LOAF = ((0, 0), (200, 0), (200, 60), (170, 100), (30, 100), (0, 60))
STONE = ((0, 0), (190, 0), (200, 25), (185, 62), (140, 92), (80, 100), (30, 80), (4, 40))
"""Views from the side: a loaf, and a river stone."""


def tier(tin_mm=203.2, **parts):
    return Tier(tin_diameter_mm=tin_mm, **parts)


def document(*tiers, title="A cake", **parts):
    return Document(format=FORMAT, title=title, design=Design(tiers=tiers or (tier(),), colours=COLOURS), **parts)


KITCHEN = Practice(
    shrinkage_mm=0,
    trimmed_skin_mm=2,
    crumb_coat_mm=2,
    bead_mm=8,
    dam_mm=6,
    dowel_mm=9.5,
    semi_naked_crumbs=1.0,
    hidden_board_in_mm=12.7,
)
"""A kitchen with habits of its own, whose numbers the tests work out by hand; what one starts from is looked at in
`outside/test_believable.py`.
"""


def alike(one, other):
    """Whether two pieces of plans hold the same. With `==` they are equal only if they are the same object."""
    return one.model_dump() == other.model_dump()


def planned(*tiers, practice=None, kit=None):
    return plan(Design(tiers=tiers, colours=COLOURS), practice or KITCHEN, MEDIA, kit)


def worked(one, practice=None):
    """The rooms of one tier on its own."""
    cake = settle(Design(tiers=(one,), colours=COLOURS), practice or KITCHEN)
    return work_tiers(cake, MEDIA, Mat())[0]


_CARVED = ("rounded", "flat_foot", "smooth_corners", "front_mm", "front_smooth_corners", "sections")


def carved(points=LOAF, tin_mm=204, **parts):
    """A tier carved to a view from the side."""
    own = {name: parts.pop(name) for name in _CARVED if name in parts}
    return tier(tin_mm, build=CarvedBuild(points_mm=points, **own), **parts)


def baked(one, *tins):
    """The plan of a carved tier, and its baking out of these tins."""
    found = planned(one, kit=Kit(tins=tins))
    return found, found.carved["tier_1"]


def within(limit, high=None):
    return st.floats(limit.low, high or limit.high, allow_nan=False)


layers = st.builds(
    Layers,
    count=st.integers(1, 12),
    height_mm=within(limits.LAYER_HEIGHT),
    target_height_mm=st.none() | within(limits.TARGET_HEIGHT),
)
fillings, finals, covers = kinds.any_of(Filling), kinds.any_of(FinalCoat), kinds.any_of(Cover)
shapes = st.one_of([kinds.any_one(kind) for kind in kinds.SHAPES if kind not in (OvalShape, FreeShape)])
round_builds = kinds.any_of(Build)
crumbs = kinds.any_one(CrumbCoat)
round_tiers = st.builds(
    Tier,
    tin_diameter_mm=within(limits.TIN_DIAMETER),
    layers=layers,
    filling=fillings,
    crumb=crumbs,
    final=finals,
    cover=covers,
    borders=kinds.borders,
    regions=kinds.regions,
    on_top=kinds.on_tops,
    stand=kinds.stands,
)


def reshaped(one, shape, ratio):
    """The tier in another shape, large enough and no more pointed than can be made."""
    across = max(one.tin_diameter_mm, 150)
    shape = shape or OvalShape(length_mm=across * ratio)
    return one.model_copy(update={"shape": shape, "tin_diameter_mm": across})


def rebuilt(one, build, round_build):
    """The tier on another build where one can be made of it, as it is where none can."""
    chosen = round_build if one.shape.kind == "round" else build
    if chosen is None:
        return one
    changed = one.model_copy(update={"build": chosen})
    try:
        worked(changed, Practice())
    except ValueError:
        return one
    return changed


def written(one, build):
    """The tier on another build where it may be written down so, as it is where not."""
    if build is None:
        return one
    try:
        return Tier(**dict(one) | {"build": build})
    except ValidationError:
        return one


straight_tiers = st.builds(reshaped, round_tiers, st.none() | shapes, st.floats(1, 1.5))


def tiers_on(kinds_of_builds):
    """Any tier on one of these builds, or straight."""
    any_shape = [kinds.any_one(kind) for kind in kinds_of_builds if not kind.round_only]
    every = [kinds.any_one(kind) for kind in kinds_of_builds]
    return st.builds(rebuilt, straight_tiers, st.none() | st.one_of(any_shape), st.none() | st.one_of(every))


tiers = tiers_on(kinds.BUILDS)
quick_tiers = tiers_on([kind for kind in kinds.BUILDS if not kind.carved])
"""Any tier that is not carved, which takes a hundred times as long to plan."""


def of_tiers(each):
    """Any design of one to three such tiers."""
    return st.builds(
        lambda found, stacking: Design(tiers=tuple(found), colours=COLOURS, stacking=stacking),
        st.lists(each, min_size=1, max_size=3),
        kinds.any_one(Stacking),
    )


designs = of_tiers(tiers)
quick_designs = of_tiers(quick_tiers)
written_designs = of_tiers(st.builds(written, straight_tiers, st.none() | round_builds))
"""Designs as they may be written down, whether or not a cake can be made of them."""
