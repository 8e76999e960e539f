"""Designs for the tests: plain ones by hand, and any at all by hypothesis."""

from hypothesis import strategies as st

from amber_spread.core import limits
from amber_spread.core.design import (
    Colour,
    CrumbCoat,
    Design,
    DiscFinal,
    DrapeCover,
    FreehandFinal,
    HeartShape,
    Layers,
    NoCover,
    NoFinal,
    OvalShape,
    PetalShape,
    PlainFilling,
    PolygonShape,
    RectangleShape,
    RoundShape,
    SoftFilling,
    SquareShape,
    Tier,
)
from amber_spread.core.document import FORMAT, Document
from amber_spread.core.media import shelf
from amber_spread.core.plan import plan
from amber_spread.core.practice import Practice

MEDIA = shelf()
COLOURS = (Colour(name="ivory", hex="#F3E6C4"), Colour(name="blush", hex="#EBD3CC"))


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
colours = st.sampled_from([None, "ivory", "blush"])
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
finals = (
    st.builds(NoFinal)
    | st.builds(FreehandFinal, medium=spreads, colour=colours, side_mm=maybe_thickness, top_mm=maybe_thickness)
    | st.builds(
        DiscFinal, medium=spreads, colour=colours, disc_diameter_mm=within(limits.DISC_DIAMETER), top_mm=maybe_thickness
    )
)
covers = st.builds(NoCover) | st.builds(
    DrapeCover,
    colour=colours,
    thickness_mm=st.none() | within(limits.FONDANT_THICKNESS),
    overlap_mm=st.none() | within(limits.OVERLAP),
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
)


def reshaped(one, shape, ratio):
    """The tier in another shape, large enough and no more pointed than can be made."""
    across = max(one.tin_diameter_mm, 150)
    shape = shape or OvalShape(length_mm=across * ratio)
    return one.model_copy(update={"shape": shape, "tin_diameter_mm": across})


tiers = st.builds(reshaped, round_tiers, st.none() | shapes, st.floats(1, 1.5))
designs = st.lists(tiers, min_size=1, max_size=4).map(lambda found: Design(tiers=tuple(found), colours=COLOURS))
