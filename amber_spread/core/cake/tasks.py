"""The tasks of stacking: putting the cake together, driving it, and taking it down again."""

from collections.abc import Iterator, Mapping, Sequence

from amber_spread.core.cake.dowel import DowelPlan
from amber_spread.core.cake.glue import coats_after
from amber_spread.core.cake.joints import FLUSH_MM, JointPlan, most_out
from amber_spread.core.cake.levels import PlacedTier
from amber_spread.core.cake.loads import people, people_in_words
from amber_spread.core.cake.task_kinds import STACK_TASKS as KINDS
from amber_spread.core.design.settled import SettledDesign
from amber_spread.core.kernel.caching import TIERS, cached, cached_items
from amber_spread.core.kernel.check import RoundedQuantity, grams, measure, mm
from amber_spread.core.kernel.task import Task, task
from amber_spread.core.stock.supports import SORTS

CAKE, CENTRE = "stack", "stack.dowel"
"""Where the whole cake and its centre dowel stand in the plan."""
CHILLED = f"{CAKE}.chill_tiers"


def stacking_tasks(
    cake: SettledDesign, stood: Sequence[PlacedTier], joints: Mapping[str, JointPlan], dowel: DowelPlan | None
) -> list[Task]:
    """Every task from the boards to the drive, in order. Source: common practice."""
    hole, tasks = None if dowel is None else measure(dowel.hole), list[Task]()
    for one in stood:
        tasks += _build(one, joints.get(f"inside_{one.done.id}"), hole)
    if len(stood) > 1:
        tasks.append(_FIT_CARD)
    upper, last = [joint for joint in joints.values() if not joint.inside], list[str]()
    if upper:
        after = [index for index, tier in enumerate(cake.tiers[:-1], 1) if coats_after(tier, cake)]
        tasks.append(_chill(stood, bool(after)))
        for joint in upper:
            tasks += _supports(joint)
        tasks += _stack(cake, stood, upper, dowel, after)
        last = [tasks[-1].id]
    return [*tasks, *_drive(cake, upper, last)]


_FIT_CARD = task(
    KINDS["fit_card"],
    CAKE,
    "A card too large for a small tier: trim it once the crumb coat is firm, or build on a larger board with a "
    "dab between, and slide the tier off it when it is cold.",
)


@cached_items(TIERS)
def _build(one: PlacedTier, hidden: JointPlan | None, hole: RoundedQuantity | None) -> Iterator[Task]:
    """How a tier is built on its board, and on the one inside it; `hole` is for the centre dowel."""
    number, done, held, on = one.number, one.done, one.held, one.done.path
    board = "the base board" if number == 1 else "a card of its own size"
    holes, punched = list[tuple[str, str]](), list[str]()
    if number > 1:
        holes.append(("punch_card", "punch a hole of {hole} in the middle of its card"))
    if hidden is not None:
        holes.append(("punch_board", "punch the board that goes inside it too, {hole}"))
    if hole is not None:
        for kind, words in holes:
            punch = task(KINDS[kind], on, f"Tier {number}: {words}.", figures=[f"{CENTRE}.hole"], hole=hole)
            yield punch
            punched.append(punch.id)
    fixed = task(
        KINDS["fix_first_layer"],
        on,
        f"Tier {number}: fix the first layer to {board} with {{glue}} of its coat.",
        punched,
        figures=[f"{on}.stack.glue"],
        glue=grams(held.under_cake_g),
    )
    yield fixed
    if hidden is None or done.layers.board is None:
        return
    built = task(
        KINDS["build_on_board"],
        on,
        f"Tier {number}: build to {{high}}, set {len(hidden.supports)} {hidden.many} of {{length}}, lay the "
        "board of {board} on them. Build on with {slide} melted below the next layer, so that it cannot slide.",
        [fixed.id],
        len(hidden.supports),
        high=hidden.length,
        length=hidden.length,
        board=done.layers.board.diameter,
        slide=grams(held.slide.value if held.slide else 0.0),
    )
    yield built
    yield task(
        KINDS["settle"],
        on,
        f"Tier {number}: let it settle overnight, scrape off what it squeezes out, and coat both halves as one "
        "with a scraper of {tall} or more.",
        [built.id],
        figures=[f"{on}.stack.height"],
        tall=mm(done.stands.height_mm),
    )


def _chill(stood: Sequence[PlacedTier], crumbed: bool) -> Task:
    """Supports are set and tiers are lifted when the coat is hard: the crumb coat, where the final one comes later."""
    return task(
        KINDS["chill_tiers"],
        CAKE,
        "Chill every tier until its crumb coat is hard; the final coat goes on once they stand."
        if crumbed
        else "Chill every tier until its coat is hard: an hour or more for buttercream, less for ganache.",
        [f"{one.done.path}.fix_first_layer" for one in stood],
        len(stood),
    )


@cached_items(TIERS)
def _supports(joint: JointPlan) -> Iterator[Task]:
    """How the supports of a joint are set; the same of one that nothing changed."""
    on, many, count, out = joint.path, joint.many, len(joint.supports), most_out(joint)
    pricked = task(
        KINDS["prick_places"],
        on,
        f"Tier {joint.tier - 1}: once its coat is hard, lay the template of tier {joint.tier} on it, front marks "
        f"together, and prick the {count} places.",
        [CHILLED],
        count,
    )
    yield pricked
    if joint.kind == "pillars":
        placed = task(
            KINDS["place_pillars"],
            on,
            f"Push one {joint.one} straight down to the board: {{length}} long, so that {{gap}} of it stand out.",
            [pricked.id],
            count,
            length=joint.length,
            gap=joint.gap,
        )
    else:
        placed = task(
            KINDS["cut_supports"],
            on,
            f"Push one {joint.one} straight down to the board, mark it where it leaves the coat, pull it out and cut "
            "it there: it should come to {length}. Cut all the others to that one.",
            [pricked.id],
            count,
            length=joint.length,
        )
    yield placed
    if out:
        yield task(
            KINDS["top_not_flat"],
            on,
            "The top is not flat: cut all to the highest, and let them stand up to {out} out of the coat.",
            [placed.id],
            out=mm(out),
        )
    yield task(
        KINDS["allow_short"],
        on,
        f"Up to {{most}} short the coat takes it up. With shorter {many} the tier sinks in and the coat bulges; with "
        "longer ones a gap stays below the board.",
        [placed.id],
        most=mm(FLUSH_MM),
    )
    if SORTS[joint.sort].sharp:
        yield task(KINDS["blunt_ends"], on, "Cut ends are sharp: saw on a board, and sand them blunt.", [placed.id])


def _stack(
    cake: SettledDesign,
    stood: Sequence[PlacedTier],
    upper: Sequence[JointPlan],
    dowel: DowelPlan | None,
    after: Sequence[int],
) -> list[Task]:
    """From the first tier that is set on another to the last joint piped; `after` are the numbers of the tiers that get
    their final coat once they stand.
    """
    tasks, last = list[Task](), CHILLED
    for one, joint in zip(stood[1:], upper, strict=True):
        tasks += _tier_on(one, joint, last)
        last = tasks[-1].id
    if dowel is not None:
        driven = task(
            KINDS["drive_dowel"],
            CENTRE,
            "Cut the dowel to {length}, sharpen one end, push it down the middle and drive it {into} into the base "
            "board, with another dowel on top of it to strike on.",
            [last],
            length=dowel.length,
            into=dowel.into,
        )
        point = "Strike away from your hand, and keep the point out of the way of others."
        tasks += [driven, task(KINDS["mind_point"], CENTRE, point, [last])]
        last = driven.id
    for index in after:
        coated = task(
            KINDS["coat_after"],
            stood[index - 1].done.path,
            f"Tier {index}: now its final coat, round the tier above. The scraper has to reach between: {{tall}} high.",
            [last],
            tall=upper[index - 1].length,
        )
        tasks.append(coated)
        last = coated.id
    for joint in upper:
        if joint.bead is not None:
            piped = _pipe_bead(joint, last)
            tasks.append(piped)
            last = piped.id
    if cake.asked.stacking.stacked == "there":
        along = "All this is done where the cake stays: take coat, bag, scraper and spare supports along."
        tasks.append(task(KINDS["take_along"], CAKE, along, [CHILLED]))
    return tasks


@cached(TIERS)
def _pipe_bead(joint: JointPlan, after: str) -> Task:
    assert joint.bead is not None and joint.bead_length is not None and joint.bead_weight is not None
    return task(
        KINDS["pipe_bead"],
        joint.path,
        f"Joint below tier {joint.tier}: pipe a bead of {{bead}}, {{length}} in all, {{weight}}, and smooth it "
        "with a fingertip or a brush.",
        [after],
        bead=joint.bead,
        length=joint.bead_length,
        weight=joint.bead_weight,
    )


@cached(TIERS)
def _tier_on(one: PlacedTier, joint: JointPlan, last: str) -> tuple[Task, ...]:
    """How a tier is set on the one below it, after the task `last`."""
    on = one.done.path
    glue = "glue" if one.done.tier.asked.stand.glue_medium else "coat"
    spread = task(
        KINDS["spread_glue"],
        on,
        f"Set {{glue}} of the {glue} between the {joint.many} on tier {joint.tier - 1}.",
        [last, f"{joint.path}.{'place_pillars' if joint.kind == 'pillars' else 'cut_supports'}"],
        figures=[f"{on}.stack.glue"],
        glue=grams(one.held.under_board_g),
    )
    tasks = [spread]
    if joint.kind == "riser":
        words = f"Tier {joint.tier}: set the riser of {{gap}} on its card first."
        tasks.append(task(KINDS["set_riser"], on, words, gap=joint.gap))
    needed = people(one.weight_g)
    lifters = f"{people_in_words(needed)}, " if needed > 1 else ""
    lifted = task(
        KINDS["lift_tier"],
        on,
        f"Tier {joint.tier}, {{weight}}: lift it cold with {lifters}a wide scraper and a palette knife below its "
        "card, and set it down with the front marks together. Ganache can still be nudged, buttercream cannot.",
        [before.id for before in tasks],
        figures=[f"{on}.stack.weight"],
        weight=grams(one.weight_g),
    )
    words = f"Tier {joint.tier}: try the level both ways before the next goes on."
    return (*tasks, lifted, task(KINDS["check_level"], on, words, [lifted.id]))


def _drive(cake: SettledDesign, upper: Sequence[JointPlan], after: Sequence[str]) -> Iterator[Task]:
    stacking = cake.asked.stacking
    if stacking.travels is False:
        return
    apart = bool(upper) and stacking.stacked == "there"
    where = "on something that does not slip; flat in the boot or the foot well, never on a seat."
    boxed = task(
        KINDS["box_cake"],
        CAKE,
        f"Each tier in its own box, cold, {where}"
        if apart
        else f"Cold, in a box a little wider than the base board, {where}",
        [] if apart else after,
        len(cake.tiers) if apart else 1,
    )
    yield boxed
    yield task(KINDS["drive"], CAKE, "Keep the car cool, brake early and turn slowly.", [boxed.id])
    yield task(
        KINDS["time_out"],
        CAKE,
        "How long it may stand out of the fridge your local food code says; plan the drive and the table by that.",
        [boxed.id],
    )


def serving_tasks(joints: Mapping[str, JointPlan], dowel: DowelPlan | None) -> Iterator[Task]:
    """How it is taken down and served, from the top. Source: common practice."""
    last: list[str] = []
    if dowel is not None:
        pulled = task(
            KINDS["pull_dowel"], CENTRE, "Pull the dowel out first, straight up, with pliers if it does not come."
        )
        yield pulled
        last = [pulled.id]
    for joint in sorted(joints.values(), key=lambda one: -one.level.value):
        taken = _taken_down(joint, tuple(last))
        yield taken
        last = [taken.id]
    if joints:
        yield task(
            KINDS["count_supports"],
            CAKE,
            "Before anyone eats: count out every support, skewer, stick, pick and wire that went in, those of figures "
            "and toppers too.",
            last,
        )


@cached(TIERS)
def _taken_down(joint: JointPlan, after: tuple[str, ...]) -> Task:
    """How the cake is taken apart at a joint, after these tasks."""
    on, count = joint.path, len(joint.supports)
    if joint.inside:
        return task(
            KINDS["cut_down"],
            on,
            f"Tier {joint.tier}: cut down to the board inside it, serve that, lift the board off, pull out "
            f"{count} {joint.many}, and go on.",
            after,
            count,
        )
    return task(
        KINDS["lift_off"],
        on,
        f"Tier {joint.tier}: run a knife along the joint, lift it off on its card, pull {count} {joint.many} "
        f"out of tier {joint.tier - 1} and count them.",
        after,
        count,
    )
