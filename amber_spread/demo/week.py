"""The demo: Saltmarsh Lane, a made-up cake room of two people, in the week of the honey fair."""

from datetime import date, datetime, time, timedelta

from amber_spread.core.design.builds import (
    CarvedBuild,
    JoinedBuild,
    ModelledBuild,
    Opening,
    ProfilePoint,
    SideBuild,
    TaperedBuild,
    TurnedBuild,
)
from amber_spread.core.design.design import Cavity, Colour, ColourPart, Design, Layers, MeasuredBake, Tier
from amber_spread.core.design.finishes import (
    Border,
    CrumbCoat,
    DiscFinal,
    DrapeCover,
    Filling,
    FinalCoat,
    FreehandFinal,
    HalvesCover,
    InvertedFinal,
    NoCover,
    PanelCover,
    PatchesCover,
    PipedRegion,
    PlainFilling,
    SoftFilling,
    Stripe,
    TexturedFinal,
    TwinFinal,
)
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.shapes import FreeShape, PolygonShape
from amber_spread.core.design.solids import BallSolid, BoxSolid, ConeSolid
from amber_spread.core.document import FORMAT, Document
from amber_spread.core.geometry.bodies.packed import packed
from amber_spread.core.geometry.bodies.pebble import pebble
from amber_spread.demo.inches import inches
from amber_spread.demo.pantry import PANTRY
from amber_spread.demo.places import PLACES
from amber_spread.store.orders import OrderBook, Sought
from amber_spread.store.shelves import PantryShelf, PlacesShelf

SATURDAY = 5
IVORY, HONEY, BLUSH = Colour(name="ivory", hex="#F3E6C4"), Colour(name="honey", hex="#E3A63A"), Colour(
    name="blush", hex="#EBD3CC"
)  # fmt: skip
CLOVER, SLATE = Colour(name="clover", hex="#9DAF86"), Colour(name="slate", hex="#74838C")

PALE = Colour(name="pale honey", hex="#F4D79C", parts=(ColourPart(parts=2), ColourPart(colour="honey")))


def load_week(book: OrderBook, today: date | None = None) -> None:
    """Fill an empty order book with the week; one that holds anything is left as it is."""
    if any(book.shelf(Sought(archived=archived), most=1).in_all for archived in (False, True)):
        return
    for document in week(today or date.today()):
        book.create(document)
    pantry, places = PantryShelf(book.engine), PlacesShelf(book.engine)
    if not pantry.open().number:
        pantry.save(PANTRY, 0)
    if not places.open().number:
        places.save(PLACES, 0)


def fair_day(today: date) -> date:
    """The Saturday of the fair: the first that is at least three days off."""
    soonest = today + timedelta(days=3)
    return soonest + timedelta(days=(SATURDAY - soonest.weekday()) % 7)


def week(today: date) -> list[Document]:
    """The orders of the week, in no order."""
    fair = fair_day(today)
    return [
        _order("Fair centrepiece", fair, 11, _centrepiece(), IVORY, BLUSH),
        _order("Ferryman’s farewell", fair - timedelta(days=1), 9, _punt(), SLATE),
        _order("Beekeepers’ supper", fair - timedelta(days=2), 17, _supper(), HONEY),
        _order("Judges’ tea", fair - timedelta(days=1), 14, _tea(), CLOVER),
        _order("Stallholders’ thank-you", fair, 16, _thanks(), SLATE),
        _order("Raffle hive", fair, 9, _hive(), HONEY, IVORY, SLATE),
        _order("Honey drum", fair - timedelta(days=1), 10, _drum(), HONEY, SLATE),
        _order("The old smoker", fair - timedelta(days=2), 12, _smoker(), SLATE),
        _order("Stone from the ford", fair - timedelta(days=2), 10, _stone(), SLATE, CLOVER),
        _order("Hundred hives jubilee", fair + timedelta(days=1), 13, _jubilee(), IVORY, HONEY, PALE),
    ]


def _order(title: str, day: date, hour: int, tiers: tuple[Tier, ...], *colours: Colour) -> Document:
    # Validated as a whole, since copies of tiers with other parts are not: every part gets its id.
    design = Design.model_validate({"tiers": [tier.model_dump() for tier in tiers], "colours": colours})
    due = datetime.combine(day, time(hour))
    return Document(format=FORMAT, title=title, due=due, design=design, practice=Practice.in_inches())


def _tier(tin: float, layers: int, cut: float, filling: Filling, final: FinalCoat, sheet: str | None = None) -> Tier:
    crumb = CrumbCoat(medium=getattr(final, "medium", "meringue_buttercream"))
    return Tier(
        tin_diameter_mm=inches(tin),
        layers=Layers(count=layers, height_mm=inches(cut)),
        filling=filling,
        crumb=crumb,
        final=final,
        cover=NoCover() if sheet is None else DrapeCover(colour=sheet),
    )


def _centrepiece() -> tuple[Tier, ...]:
    curd = SoftFilling(medium="lemon_curd", dam_width_mm=12)
    coat = FreehandFinal(colour="ivory")
    return tuple(_tier(tin, 3, 1.25, curd, coat, sheet="blush") for tin in (10, 8, 6))


def _supper() -> tuple[Tier, ...]:
    jam = SoftFilling(medium="raspberry_jam", dam_width_mm=10)
    disc = DiscFinal(medium="meringue_buttercream", colour="honey", disc_diameter_mm=inches(8.25))
    return (_tier(8, 3, 1.25, jam, disc),)


def _tea() -> tuple[Tier, ...]:
    ganache = PlainFilling(medium="dark_ganache")
    coat = FreehandFinal(medium="dark_ganache", side_mm=5, top_mm=5)
    tiers = _tier(8, 4, 1, ganache, coat, sheet="clover"), _tier(5, 3, 1.25, ganache, coat, sheet="clover")
    return tuple(tier.model_copy(update={"shape": PolygonShape(sides=6)}) for tier in tiers)


def _thanks() -> tuple[Tier, ...]:
    cheese = PlainFilling(medium="cream_cheese_frosting")
    tier = _tier(7, 3, 1.25, cheese, FreehandFinal(medium="cream_cheese_frosting"), sheet="slate")
    return (tier.model_copy(update={"layers": tier.layers.model_copy(update={"cake": "chocolate_cake"})}),)


def _jubilee() -> tuple[Tier, ...]:
    butter = PlainFilling(medium="meringue_buttercream")
    tins, colours = (12, 10, 8, 6), ("honey", "pale honey", "honey", "ivory")
    return tuple(
        _tier(tin, 3, 1.25, butter, FreehandFinal(colour=colour)) for tin, colour in zip(tins, colours, strict=True)
    )


SKEP = tuple(
    ProfilePoint(up=up, out=out)
    for up, out in ((0, 0.93), (0.14, 1), (0.45, 0.96), (0.72, 0.79), (0.9, 0.5), (1, 0.16))
)
"""A straw hive as it is turned: from its foot to its top."""


def _hive() -> tuple[Tier, ...]:
    """A leaning wall in stripes, and a skep of piped rows on top."""
    butter = PlainFilling(medium="meringue_buttercream")
    stripes = (Stripe(colour="honey", share=2), Stripe(colour="slate"), Stripe(colour="ivory", share=2))
    base = _tier(10, 4, 1, butter, InvertedFinal(disc_diameter_mm=inches(10.25))).model_copy(
        update={
            "build": TaperedBuild(narrow_mm=inches(8.5)),
            "cover": PanelCover(top="over", stripes=stripes),
            "borders": (Border(at="foot", colour="honey"),),
        }
    )
    skep = _tier(6, 4, 1, butter, TexturedFinal(colour="honey", relief_mm=7)).model_copy(
        update={
            "build": TurnedBuild(points=SKEP),
            "layers": Layers(count=4, height_mm=inches(1.25), cavity=Cavity(diameter_mm=50)),
        }
    )
    return base, skep


PUNT_SIDE = (
    (0, 44), (26, 10), (66, 0), (290, 0), (330, 10), (356, 48), (350, 66), (300, 57), (178, 52), (56, 57), (5, 64),
)  # fmt: skip
"""A flat boat of our own drawing, from the side: its bottom, its two swims, and its sheer."""
PUNT_SMOOTH = (0, 1, 4, 5, 7, 8, 9)
"""Its swims and its sheer run in a curve."""
PUNT_ABOVE = (
    (0, 30), (56, 8), (178, 0), (300, 8), (356, 30), (356, 106), (300, 128), (178, 136), (56, 128), (0, 106),
)  # fmt: skip


def _punt() -> tuple[Tier, ...]:
    """A flat boat, 14 in long, carved out of two sheets, covered in patches and scored in planks."""
    ganache = PlainFilling(medium="dark_ganache")
    coat = FreehandFinal(medium="dark_ganache", side_mm=4, top_mm=4)
    hull = _tier(14, 2, 1.25, ganache, coat)
    changes = {
        "shape": FreeShape(points_mm=PUNT_ABOVE),
        "build": CarvedBuild(points_mm=PUNT_SIDE, smooth_corners=PUNT_SMOOTH, rounded=0.25, scored_mm=inches(0.625)),
        "layers": Layers(count=2, cake="chocolate_cake"),
        "cover": PatchesCover(colour="slate"),
    }
    return (hull.model_copy(update=changes),)


SMOKER = (
    ConeSolid(across_mm=116, top_mm=116, high_mm=140, edge_mm=4),
    ConeSolid(across_mm=116, top_mm=52, high_mm=46, z_mm=138),
    ConeSolid(across_mm=56, top_mm=34, high_mm=58, x_mm=6, z_mm=168, lean_deg=38),
    BoxSolid(wide_mm=44, deep_mm=90, high_mm=118, x_mm=-66, edge_mm=5),
    BoxSolid(does="cut", wide_mm=44, deep_mm=30, high_mm=18, x_mm=66, z_mm=18),
)
"""A bee-smoker: its barrel, lid and spout, its bellows behind, and the draught hole in front."""


def _smoker() -> tuple[Tier, ...]:
    """A bee-smoker built of solids, coated in slate, its fire chamber left empty for what is hidden in it."""
    ganache = PlainFilling(medium="dark_ganache")
    tier = _tier(7.6, 7, 1, ganache, FreehandFinal(colour="slate", side_mm=5, top_mm=5))
    chamber = ConeSolid(across_mm=54, top_mm=54, high_mm=58, x_mm=14, z_mm=60)
    build = JoinedBuild(solids=SMOKER, openings=(Opening(solid=chamber, medium=None),))
    layers = Layers(count=7, cake="chocolate_cake")
    wide = round(build.width_for(), 2)
    return (tier.model_copy(update={"build": build, "layers": layers, "tin_diameter_mm": wide}),)


def _stone() -> tuple[Tier, ...]:
    """A river stone out of a mesh, 9 in long, moss piped about its foot and a heart of ganache within."""
    butter = PlainFilling(medium="meringue_buttercream")
    tier = _tier(9, 3, 1, butter, FreehandFinal(side_mm=4, top_mm=4), sheet="slate")
    heart = Opening(solid=BallSolid(across_mm=56, x_mm=45, z_mm=24), medium="dark_ganache")
    stone = ModelledBuild(mesh=packed(*pebble(inches(9))), turn_deg=20, openings=(heart,))
    # On the side that lay in the shade.
    moss = PipedRegion(high=0.55, relief_mm=7, colour="clover", round_deg=150, turn_deg=-60)
    return (tier.model_copy(update={"build": stone, "layers": Layers(count=3), "regions": (moss,)}),)


def _drum() -> tuple[Tier, ...]:
    """A drum of honey on its side, with a tag laid against it."""
    ganache = PlainFilling(medium="dark_ganache")
    drum = _tier(6, 4, 1, ganache, TwinFinal(medium="dark_ganache", disc_diameter_mm=inches(6.25), top_mm=5))
    changes = {
        "build": SideBuild(),
        "cover": HalvesCover(colour="honey"),
        "layers": Layers(count=4, height_mm=None, bake=MeasuredBake(edges_mm=(54, 51.5, 52), torte=2)),
    }
    return (drum.model_copy(update=changes),)
