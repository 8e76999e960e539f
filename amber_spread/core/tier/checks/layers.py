"""What to know about the layers of one tier: fillings and dams, cuts, hidden cavities, and the shape they are carved
to.
"""

from collections.abc import Iterator, Mapping

from amber_spread.core.design.design import TinBake
from amber_spread.core.design.finishes import PlainFilling
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.settled import SettledTier
from amber_spread.core.kernel.check import Check, Checker, RoundedQuantity, Subject, degrees, measure, mm
from amber_spread.core.stock.media import Medium
from amber_spread.core.tier.carve.carving import CarvingPlan
from amber_spread.core.tier.coats.side import FootPlan
from amber_spread.core.tier.layers.layers import LayersPlan, TargetPlan
from amber_spread.core.tier.worked import PlannedTier

TARGET_TOLERANCE_MM = 1.0
"""A height this near its target is on target: a ruler shows no less on a cake."""
WALL_LEAST_MM = 25.0
"""A cavity wall thinner than this gives way when the cake is cut or stacked on (from memory)."""
LEAN_LEAST_DEG = 18.0
"""A drum that falls when tipped less than this is not steady on a table (from memory)."""

LEAST_FOOT = 0.25
"""A carved cake that stands on less of its outline than this may roll (from memory)."""
DIFFER = 0.05
"""Views that differ by less than this agree, as far as a hand draws."""
HANGS_MM = 20.0
"""So far cake reaches out by itself before it breaks off (from memory)."""
LEAST_OPENING_ML = 1.0
"""An opening of less is none."""


def checks_of_layers(done: PlannedTier, media: Mapping[str, Medium], check: Checker) -> Iterator[Check]:
    """Everything to know about the layers of a tier, in the order of the work."""
    tier, layers, foot = done.tier, done.layers, done.foot
    yield from _fillings(tier, layers, media, check)
    yield from _cuts(tier, layers, check)
    if layers.target is not None:
        yield from _target(tier, layers.target, check)
    yield from _hidden(layers, check)
    if foot is not None:
        yield from _on_its_side(foot, check)
    if done.carving is not None:
        yield from _carved(done.carving, layers, done.tier.usual, check)
        yield from _opened(done.carving, layers, media, check)
    if not tier.asked.build.straight:
        yield check(
            "caution.knife",
            "caution",
            "layers",
            "Carve the cake cold and firm, the knife moving away from your hand, and keep the offcuts: they build up "
            "points and curves.",
        )


def _carved(carving: CarvingPlan, layers: LayersPlan, usual: Practice, check: Checker) -> Iterator[Check]:
    """What a carved body stands on, where it is thin, and what hangs out over what is below it."""
    bears_g_per_cm2, level_mm = usual.cake_bears_g_per_cm2, usual.level_mm
    share = carving.foot.value / carving.footprint.value
    if share < LEAST_FOOT:
        yield check(
            "carve.foot",
            "care",
            "body",
            f"It stands on {100 * share:.0f} % of what is seen of it from above. Give the view a flat foot, or bed it "
            "on a board cut to it, so that it does not roll.",
        )
    neck = carving.neck
    if neck is not None and neck.pressed.value > bears_g_per_cm2:
        yield check(
            "carve.neck",
            "trouble",
            "body",
            "At {up} up it carries {above} on what is left there: {pressed}, where cake bears about {bears}. Make it "
            "wider there, put a board on supports just above it, or build it of modelling paste round a dowel.",
            up=measure(neck.up),
            above=measure(neck.above),
            pressed=measure(neck.pressed),
            bears=RoundedQuantity(bears_g_per_cm2, "g_per_cm2"),
        )
    length = layers.cake_length or layers.cake_diameter
    agrees = carving.front_agrees
    if agrees is not None and abs(agrees.value / length.value - 1) > DIFFER:
        yield check(
            "carve.views_differ",
            "care",
            "body",
            "Seen from the front it is drawn {drawn} wide at its height, and from above it is {length}. Its sections "
            "are drawn out to that; to agree, make the tin so long, or draw one of the two anew.",
            drawn=measure(agrees),
            length=measure(length),
        )
    if carving.dome is not None:
        if carving.dome.left.value / 2 > level_mm:
            yield check(
                "carve.dome_high",
                "care",
                "body",
                "A dome of {dome} holds more cake than the {level} that is baked besides here. Bake that layer fuller, "
                "or leave less on.",
                dome=measure(carving.dome.left),
                level=mm(level_mm),
            )
        if carving.dome.missing.value > LEAST_OPENING_ML:
            yield check(
                "carve.dome_missing",
                "care",
                "body",
                "The dome does not fill the top of the cake: {missing} of it has to be built up with modelling paste. "
                "Leave less of the dome on, or round the top off.",
                missing=measure(carving.dome.missing),
            )
    for one in carving.slices.values():
        if one.hangs.value > HANGS_MM:
            yield check(
                "carve.hangs",
                "trouble",
                "body",
                f"Layer {one.number} reaches {{hangs}} out beyond what it lies on. Cake by itself holds about "
                "{bears}: put a card on supports below it, fill in below, or build that part of modelling paste.",
                hangs=measure(one.hangs),
                bears=mm(HANGS_MM),
            )
        if len(one.bottom) > 1 or len(one.top) > 1:
            yield check(
                "carve.parts",
                "care",
                "body",
                f"Layer {one.number} is cut in several parts. Mark which stands where before the cake is taken apart.",
            )


def _opened(carving: CarvingPlan, layers: LayersPlan, media: Mapping[str, Medium], check: Checker) -> Iterator[Check]:
    """What of its openings will not stand, or is none."""
    for number, opening in enumerate(carving.openings.values(), 1):
        empty = opening.medium is None
        if empty and opening.open:
            yield check(
                "carve.opening_empty",
                "trouble",
                "body",
                f"Opening {number} is left empty and is open to the outside, where coat and cover are reckoned over "
                "it. Fill it, close it inside the cake, or cut it out of the shape itself.",
            )
        elif empty and opening.wall is not None and 0 < opening.wall.value < WALL_LEAST_MM:
            yield check(
                "carve.opening_thin",
                "trouble",
                "body",
                f"Opening {number} is left empty within a wall of {{wall}}, which gives way when the cake is cut. "
                "Leave {least} or more about it, or fill it.",
                wall=measure(opening.wall),
                least=mm(WALL_LEAST_MM),
            )
        if opening.open and opening.medium is not None and media[opening.medium].soft:
            yield check(
                "carve.opening_runs",
                "care",
                "body",
                f"{media[opening.medium].name} runs, and opening {number} is open to the outside: it will not stand "
                "there by itself. Fill it with something firm, or close it inside the cake.",
            )
        if opening.volume.value < LEAST_OPENING_ML:
            yield check(
                "carve.opening_misses",
                "trouble",
                "body",
                f"Opening {number} takes nothing out of the cake: it lies beside it, or within another. Move it into "
                "the cake, or make it larger.",
            )
    if layers.cavity is None and any(one.medium is None and not one.open for one in carving.openings.values()):
        yield _small_sweets(check, "body")


def _fillings(tier: SettledTier, layers: LayersPlan, media: Mapping[str, Medium], check: Checker) -> Iterator[Check]:
    filling, thickness_mm = media[tier.asked.filling.medium], layers.filling.thickness.value
    several = layers.filling.count.value > 0
    if several and not tier.usual.filling_least_mm <= thickness_mm <= tier.usual.filling_most_mm:
        yield check(
            "filling.thickness",
            "care",
            "layers",
            "A filling of {thickness} is outside this kitchen's usual {least} to {most}: a thin one tears the crumb, "
            "a thick one slides and bulges.",
            thickness=mm(thickness_mm),
            least=mm(tier.usual.filling_least_mm),
            most=mm(tier.usual.filling_most_mm),
        )
    if several and filling.soft and isinstance(tier.asked.filling, PlainFilling):
        yield check(
            "filling.undammed",
            "trouble",
            "layers",
            f"{filling.name} runs, and nothing holds it at the rim: it will squeeze out and bulge under the coat. "
            "Choose a soft filling with a dam.",
        )
    if layers.filling.dam_width and layers.filling.dam_width.value >= layers.cake_diameter.value / 2:
        yield check(
            "filling.all_dam",
            "trouble",
            "layers",
            "The dam is {dam} wide, which fills the whole cake of {cake} and leaves no room for filling.",
            dam=measure(layers.filling.dam_width),
            cake=measure(layers.cake_diameter),
        )
    if layers.filling.seal_thickness and layers.filling.seal_thickness.value >= thickness_mm:
        yield check(
            "filling.all_seal",
            "trouble",
            "layers",
            "The seal is {seal} thick, as high as the dam: there is no room left for filling.",
            seal=measure(layers.filling.seal_thickness),
        )


def _cuts(tier: SettledTier, layers: LayersPlan, check: Checker) -> Iterator[Check]:
    bake = layers.bake
    deep_mm = (
        tier.asked.layers.bake.depth_mm if isinstance(tier.asked.layers.bake, TinBake) else tier.usual.tin_depth_mm
    )
    ball = tier.asked.build.half_balls
    if layers.tin_depth is not None and not ball and layers.tin_depth.value > deep_mm + TARGET_TOLERANCE_MM:
        yield check(
            "layers.tin_too_shallow",
            "trouble",
            "layers",
            "What is cut from one tin takes a tin {needed} deep, the dome levelled off, and yours is {deep}. Take a "
            "deeper tin, or stack more, thinner layers.",
            needed=measure(layers.tin_depth),
            deep=mm(deep_mm),
        )
    if layers.tins is not None and layers.slices_each is not None and not ball:
        each, count = int(layers.slices_each.value), int(layers.count.value)
        last = count - each * (int(layers.tins.value) - 1)
        if 0 < last < each and layers.tins.value > 1:
            yield check(
                "layers.uneven_tins",
                "care",
                "layers",
                f"Your {count} layers come out of {layers.tins.value:.0f} tins of {each}: fill the last for {last} "
                "only, {least} high once levelled against {most}, or fill all alike and keep what is over.",
                least=mm(last * layers.cut_height.value),
                most=mm(each * layers.cut_height.value),
            )
    if bake is None:
        return
    if bake.slices.value < layers.count.value:
        yield check(
            "layers.few_slices",
            "trouble",
            "layers",
            "The baked layers give {slices} slices and this tier stacks {count}. Bake another layer, torte each into "
            "more, or stack fewer.",
            slices=measure(bake.slices),
            count=measure(layers.count),
        )
    if layers.cut_height.value > bake.slice_height.value + 0.05:
        yield check(
            "layers.cut_too_high",
            "trouble",
            "layers",
            "A layer of {cut} cannot be cut from these: the lowest edge allows {least}. Cut every layer to that, or "
            "bake higher.",
            cut=measure(layers.cut_height),
            least=measure(bake.slice_height),
        )


def _target(tier: SettledTier, target: TargetPlan, check: Checker) -> Iterator[Check]:
    missing_mm = target.missing.value
    if abs(missing_mm) <= TARGET_TOLERANCE_MM:
        return
    side = "short of" if missing_mm > 0 else "over"
    ways = bool(target.filling_thickness or target.cut_height or target.other_count)
    advice = (
        "One of the changes listed reaches it."
        if ways
        else "No filling within this kitchen's usual, no cut these layers allow and no number of layers reaches it: "
        + ("bake higher layers, or choose a lower height." if missing_mm > 0 else "choose a greater height.")
    )
    if tier.asked.measured is not None:
        advice = "Build the top up with coat." if missing_mm > 0 else "Trim the top level lower, or keep this height."
    yield check(
        "layers.target",
        "care",
        "layers",
        f"The tier ends {{missing}} {side} the {{target}} you asked for. {advice}",
        missing=mm(abs(missing_mm)),
        target=measure(target.height),
    )


def _hidden(layers: LayersPlan, check: Checker) -> Iterator[Check]:
    cavity = layers.cavity
    if cavity is None:
        return
    if cavity.wall.value < 0:
        yield check(
            "layers.room_breaks_out",
            "trouble",
            "layers",
            "The hidden cavity is {room} across and breaks through the wall, which stands {near} from the middle. Make "
            "the cavity narrower, or end it in a lower layer.",
            room=measure(cavity.diameter),
            near=mm(cavity.wall.value + cavity.diameter.value / 2),
        )
    elif cavity.wall.value < WALL_LEAST_MM:
        yield check(
            "layers.thin_wall",
            "trouble",
            "layers",
            "The hidden cavity leaves a wall of {wall}, which gives way when the cake is cut. Leave {least} or more.",
            wall=mm(max(0.0, cavity.wall.value)),
            least=mm(WALL_LEAST_MM),
        )
    yield _small_sweets(check, "layers")


def _small_sweets(check: Checker, subject: Subject) -> Check:
    return check(
        "caution.small_sweets",
        "caution",
        subject,
        "Small hard sweets and pearls can choke a small child. Tell whoever serves the cake what is hidden in it, and "
        "choose something soft where children eat.",
    )


def _on_its_side(foot: FootPlan, check: Checker) -> Iterator[Check]:
    for way, lean, advice in (
        ("forward", foot.lean_forward.value, "Stack another layer, or take a smaller tin."),
        ("sideways", foot.lean_sideways.value, "Cut a deeper foot."),
    ):
        if lean < LEAN_LEAST_DEG:
            yield check(
                f"side.tips_{way}",
                "trouble",
                "layers",
                f"On its side this tier falls {way} when tipped by only {{lean}}. {advice}",
                lean=degrees(lean),
            )
