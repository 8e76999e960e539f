"""Designs for the tests: plain ones by hand, and any at all by hypothesis."""

from hypothesis import strategies as st

from amber_spread.core import limits
from amber_spread.core.design import Colour, ColourPart, Design, Layers, Tier
from amber_spread.core.document import FORMAT, Document
from amber_spread.core.finishes import (
    Border,
    BoxCover,
    CollarCover,
    CrumbCoat,
    DeckledFinal,
    DiscFinal,
    DrapeCover,
    FreehandFinal,
    GoresCover,
    HalvesCover,
    InvertedFinal,
    NoCover,
    NoFinal,
    OnTop,
    PanelCover,
    PlainFilling,
    PrintedCover,
    SemiNakedFinal,
    SoftFilling,
    Stripe,
    TexturedFinal,
    TowelFinal,
    TwinFinal,
)  # fmt: skip
from amber_spread.core.kit import Mat
from amber_spread.core.media import shelf
from amber_spread.core.plan import plan
from amber_spread.core.practice import Practice
from amber_spread.core.shapes import (
    BallBuild,
    BevelledBuild,
    DomedBuild,
    HeartShape,
    OvalShape,
    PetalShape,
    PolygonShape,
    ProfilePoint,
    RectangleShape,
    RoundShape,
    SideBuild,
    SquareShape,
    TaperedBuild,
    TurnedBuild,
)  # fmt: skip
from amber_spread.core.worked import work

MEDIA = shelf()
PALE = Colour(name="pale", hex="#F5E8E2", parts=(ColourPart(parts=3), ColourPart(colour="blush")))
COLOURS = (Colour(name="ivory", hex="#F3E6C4"), Colour(name="blush", hex="#EBD3CC"), PALE)


def tier(tin_mm=203.2, **parts):
    return Tier(tin_diameter_mm=tin_mm, **parts)


def document(*tiers, title="A cake", **parts):
    return Document(format=FORMAT, title=title, design=Design(tiers=tiers or (tier(),), colours=COLOURS), **parts)


def planned(*tiers, practice=None):
    return plan(Design(tiers=tiers, colours=COLOURS), practice or Practice(), MEDIA)


def within(limit, high=None):
    return st.floats(limit.low, high or limit.high, allow_nan=False)


spreads = st.sampled_from(["american_buttercream", "meringue_buttercream", "dark_ganache", "cream_cheese_frosting"])
runny = st.sampled_from(["raspberry_jam", "lemon_curd"])
colours = st.sampled_from([None, "ivory", "blush", "pale"])
maybe_thickness = st.none() | within(limits.COAT_THICKNESS)
layers = st.builds(
    Layers,
    count=st.integers(1, 12),
    height_mm=within(limits.LAYER_HEIGHT),
    target_height_mm=st.none() | within(limits.TARGET_HEIGHT),
)
fillings = st.builds(
    PlainFilling, medium=spreads, colour=colours, thickness_mm=st.none() | within(limits.FILLING_THICKNESS)
) | st.builds(
    SoftFilling,
    medium=runny,
    thickness_mm=st.none() | within(limits.FILLING_THICKNESS),
    dam_medium=spreads,
    dam_colour=colours,
    dam_width_mm=st.none() | within(limits.DAM_WIDTH),
    seal_mm=st.none() | within(limits.SEAL_THICKNESS),
)
sides = {"medium": spreads, "colour": colours, "side_mm": maybe_thickness, "top_mm": maybe_thickness}
plates = {
    "medium": spreads,
    "colour": colours,
    "disc_diameter_mm": within(limits.DISC_DIAMETER),
    "top_mm": maybe_thickness,
}
finals = st.one_of(
    st.builds(NoFinal),
    st.builds(FreehandFinal, edges=st.sampled_from(["sharp", "rounded"]), **sides),
    st.builds(TowelFinal, **sides),
    st.builds(DeckledFinal, rim_mm=st.none() | within(limits.RIM), **sides),
    st.builds(DiscFinal, **plates),
    st.builds(TwinFinal, **plates),
    st.builds(InvertedFinal, **plates),
    st.builds(SemiNakedFinal, stays=st.none() | within(limits.SHARE)),
    st.builds(TexturedFinal, medium=spreads, colour=colours, relief_mm=maybe_thickness),
)
sheets = {"colour": colours, "thickness_mm": st.none() | within(limits.FONDANT_THICKNESS)}
maybe_overlap = st.none() | within(limits.OVERLAP)
stripes = st.lists(st.builds(Stripe, colour=colours, share=within(limits.STRIPE_SHARE, 9)), max_size=4).map(tuple)
covers = st.one_of(
    st.builds(NoCover),
    st.builds(DrapeCover, overlap_mm=maybe_overlap, **sheets),
    st.builds(
        PanelCover,
        top=st.sampled_from(["none", "over", "inside"]),
        overlap_mm=maybe_overlap,
        trim_mm=maybe_overlap,
        stripes=stripes,
        strip_mm=st.none() | within(limits.STRIP_LENGTH),
        **sheets,
    ),
    st.builds(BoxCover, corners=st.sampled_from(["butt", "mitre"]), **sheets),
    st.builds(HalvesCover, overlap_mm=maybe_overlap, **sheets),
    st.builds(GoresCover, count=st.integers(4, 24), **sheets),
    st.builds(
        PrintedCover,
        sheet_width_mm=within(limits.SHEET_SIDE),
        sheet_height_mm=within(limits.SHEET_SIDE),
        overlap_mm=maybe_overlap,
        top=st.sampled_from(["none", "tabs", "circle"]),
    ),
    st.builds(CollarCover, above_mm=maybe_overlap, overlap_mm=maybe_overlap, colour=colours),
)
points = st.lists(st.floats(0.3, 1), min_size=2, max_size=5).map(
    lambda outs: tuple(ProfilePoint(up=index / (len(outs) - 1), out=out) for index, out in enumerate(outs))
)
builds = st.one_of(
    st.builds(TaperedBuild, narrow_mm=st.floats(60, 140), narrow=st.sampled_from(["top", "foot"])),
    st.builds(BevelledBuild, in_mm=st.floats(1, 25), down_mm=st.floats(1, 30)),
)
round_builds = builds | st.one_of(
    st.builds(DomedBuild, rise_mm=st.floats(1, 40)),
    st.builds(BallBuild, halves=st.sampled_from([1, 2]), foot_mm=st.floats(0, 45)),
    st.builds(TurnedBuild, smooth=st.booleans(), points=points),
    st.builds(SideBuild, cut_mm=st.floats(1, 20)),
)
shapes = (
    st.builds(RoundShape)
    | st.builds(SquareShape, corner_mm=st.floats(0, 25))
    | st.builds(RectangleShape, length_mm=within(limits.TIN_LENGTH), corner_mm=st.floats(0, 25))
    | st.builds(PolygonShape, sides=st.sampled_from([6, 8, 10, 12]), corner_mm=st.floats(0, 25))
    | st.builds(HeartShape)
    | st.builds(PetalShape, petals=st.sampled_from([6, 8, 10, 12]))
)
round_tiers = st.builds(
    Tier,
    tin_diameter_mm=within(limits.TIN_DIAMETER),
    layers=layers,
    filling=fillings,
    crumb=st.builds(CrumbCoat, medium=spreads, colour=colours, thickness_mm=maybe_thickness),
    final=finals,
    cover=covers,
    borders=st.lists(
        st.builds(Border, at=st.sampled_from(["foot", "top"]), medium=spreads, colour=colours), max_size=2
    ).map(tuple),
    on_top=st.none()
    | st.builds(OnTop, shape=st.builds(HeartShape), across_mm=within(limits.ON_TOP_WIDTH, 90), colour=colours),
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
        work(1, changed, Practice(), MEDIA, Mat(), {colour.name: colour.hex for colour in COLOURS})
    except ValueError:
        return one
    return changed


straight_tiers = st.builds(reshaped, round_tiers, st.none() | shapes, st.floats(1, 1.5))
tiers = st.builds(rebuilt, straight_tiers, st.none() | builds, st.none() | round_builds)
designs = st.lists(tiers, min_size=1, max_size=4).map(lambda found: Design(tiers=tuple(found), colours=COLOURS))
