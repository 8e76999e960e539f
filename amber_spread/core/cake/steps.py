"""The stacking card: what is done in which order to put the cake together, drive it, and take it down again."""

from collections.abc import Iterator, Mapping, Sequence

from amber_spread.core.cake.dowel import DowelPlan
from amber_spread.core.cake.glue import coats_after
from amber_spread.core.cake.joints import FLUSH_MM, JointPlan, most_out
from amber_spread.core.cake.levels import PlacedTier
from amber_spread.core.cake.loads import people, people_in_words
from amber_spread.core.design.settled import SettledDesign
from amber_spread.core.kernel.base import Same
from amber_spread.core.kernel.caching import cached
from amber_spread.core.kernel.check import Said, grams, measure, mm, say
from amber_spread.core.stock.supports import SORTS

BUILD, SUPPORT, STACK, FINISH, DRIVE = "Build", "Supports", "Stack", "Finish", "Drive"


def steps_of(
    cake: SettledDesign, stood: Sequence[PlacedTier], joints: Mapping[str, JointPlan], dowel: DowelPlan | None
) -> Iterator[Said]:
    """Every step from the boards to the drive, in order. Source: common practice."""
    yield from _build(stood, joints, dowel)
    upper = [joint for joint in joints.values() if not joint.inside]
    for joint in upper:
        yield from _supports(Same(joint))
    if upper:
        yield from _stack(cake, stood, upper, dowel)
    yield from _drive(cake, upper)


def _build(stood: Sequence[PlacedTier], joints: Mapping[str, JointPlan], dowel: DowelPlan | None) -> Iterator[Said]:
    for number, done, _, held, *_ in stood:
        board = "the base board" if number == 1 else "a card of its own size"
        yield say(
            f"Tier {number}: fix the first layer to {board} with {{glue}} of its coat.", BUILD,
            glue=grams(held.under_cake_g),
        )  # fmt: skip
        if number > 1 and dowel is not None:
            yield say(f"Tier {number}: punch a hole of {{hole}} in the middle of its card first.", BUILD,
                      hole=measure(dowel.hole))  # fmt: skip
        hidden = joints.get(f"inside_{done.tier.asked.id}")
        if hidden is not None and dowel is not None:
            yield say(f"Tier {number}: punch the board that goes inside it too, {{hole}}.", BUILD,
                      hole=measure(dowel.hole))  # fmt: skip
        if hidden is not None and done.layers.board is not None:
            yield say(
                f"Tier {number}: build to {{high}}, set {len(hidden.supports)} {hidden.many} of {{length}}, lay the "
                "board of {board} on them. Build on with {slide} melted below the next layer, so that it cannot slide.",
                BUILD, high=measure(hidden.length), length=measure(hidden.length),
                board=measure(done.layers.board.diameter), slide=grams(held.slide.value if held.slide else 0.0),
            )  # fmt: skip
            yield say(
                f"Tier {number}: let it settle overnight, scrape off what it squeezes out, and coat both halves as one "
                "with a scraper of {tall} or more.",
                BUILD, tall=mm(done.stands.height_mm),
            )  # fmt: skip
    if len(stood) > 1:
        yield say(
            "A card too large for a small tier: trim it once the crumb coat is firm, or build on a larger board with a "
            "dab between, and slide the tier off it when it is cold.", BUILD,
        )  # fmt: skip


@cached(256)
def _supports(of: Same[JointPlan]) -> tuple[Said, ...]:
    """How the supports of a joint are set; the same of one that nothing changed."""
    return tuple(_support(of.one))


def _support(joint: JointPlan) -> Iterator[Said]:
    many = joint.many
    out = most_out(joint)
    yield say(
        f"Tier {joint.tier - 1}: once its coat is hard, lay the template of tier {joint.tier} on it, front marks "
        f"together, and prick the {len(joint.supports)} places.", SUPPORT,
    )  # fmt: skip
    if joint.kind == "pillars":
        yield say(
            f"Push one {joint.one} straight down to the board: {{length}} long, so that {{gap}} of it stand out.",
            SUPPORT, length=measure(joint.length), gap=measure(joint.gap),
        )  # fmt: skip
    else:
        yield say(
            f"Push one {joint.one} straight down to the board, mark it where it leaves the coat, pull it out and cut "
            "it there: it should come to {length}. Cut all the others to that one.",
            SUPPORT, length=measure(joint.length),
        )  # fmt: skip
    if out:
        yield say(
            "The top is not flat: cut all to the highest, and let them stand up to {out} out of the coat.",
            SUPPORT, out=mm(out),
        )  # fmt: skip
    yield say(
        f"Up to {{most}} short the coat takes it up. With shorter {many} the tier sinks in and the coat bulges; with "
        "longer ones a gap stays below the board.", SUPPORT, most=mm(FLUSH_MM),
    )  # fmt: skip
    if SORTS[joint.sort].sharp:
        yield say("Cut ends are sharp: saw on a board, and sand them blunt.", SUPPORT, True)


def _stack(
    cake: SettledDesign, stood: Sequence[PlacedTier], upper: Sequence[JointPlan], dowel: DowelPlan | None
) -> Iterator[Said]:
    stacking = cake.asked.stacking
    after = [index for index, tier in enumerate(cake.tiers[:-1], 1) if coats_after(tier, cake)]
    yield say(
        "Chill every tier until its coat is hard: an hour or more for buttercream, less for ganache."
        if not after
        else "Chill every tier until its crumb coat is hard; the final coat goes on once they stand.",
        STACK,
    )
    for one, joint in zip(stood[1:], upper, strict=True):
        glue = "glue" if one.done.tier.asked.stand.glue_medium else "coat"
        yield say(
            f"Set {{glue}} of the {glue} between the {joint.many} on tier {joint.tier - 1}.", STACK,
            glue=grams(one.held.under_board_g),
        )  # fmt: skip
        if joint.kind == "riser":
            yield say(f"Tier {joint.tier}: set the riser of {{gap}} on its card first.", STACK, gap=measure(joint.gap))
        needed = people(one.weight_g)
        lifters = f"{people_in_words(needed)}, " if needed > 1 else ""
        yield say(
            f"Tier {joint.tier}, {{weight}}: lift it cold with {lifters}a wide scraper and a palette knife below its "
            "card, and set it down with the front marks together. Ganache can still be nudged, buttercream cannot.",
            STACK, weight=grams(one.weight_g),
        )  # fmt: skip
        yield say(f"Tier {joint.tier}: try the level both ways before the next goes on.", STACK)
    if dowel is not None:
        yield say(
            "Cut the dowel to {length}, sharpen one end, push it down the middle and drive it {into} into the base "
            "board, with another dowel on top of it to strike on.",
            STACK, length=measure(dowel.length), into=measure(dowel.into),
        )  # fmt: skip
        yield say("Strike away from your hand, and keep the point out of the way of others.", STACK, True)
    for index in after:
        yield say(
            f"Tier {index}: now its final coat, round the tier above. The scraper has to reach between: {{tall}} high.",
            FINISH, tall=mm(upper[index - 1].length.value if index <= len(upper) else 0.0),
        )  # fmt: skip
    for joint in upper:
        if joint.bead is not None and joint.bead_length is not None and joint.bead_weight is not None:
            yield say(
                f"Joint below tier {joint.tier}: pipe a bead of {{bead}}, {{length}} in all, {{weight}}, and smooth it "
                "with a fingertip or a brush.",
                FINISH, bead=measure(joint.bead), length=measure(joint.bead_length),
                weight=measure(joint.bead_weight),
            )  # fmt: skip
    if stacking.stacked == "there":
        yield say("All this is done where the cake stays: take coat, bag, scraper and spare supports along.", STACK)


def _drive(cake: SettledDesign, upper: Sequence[JointPlan]) -> Iterator[Said]:
    stacking = cake.asked.stacking
    if stacking.travels is False:
        return
    apart = bool(upper) and stacking.stacked == "there"
    yield say(
        "Each tier in its own box, cold, on something that does not slip; flat in the boot or the foot well, never on "
        "a seat." if apart else
        "Cold, in a box a little wider than the base board, on something that does not slip; flat in the boot or the "
        "foot well, never on a seat.", DRIVE,
    )  # fmt: skip
    yield say("Keep the car cool, brake early and turn slowly.", DRIVE)
    yield say(
        "How long it may stand out of the fridge your local food code says; plan the drive and the table by that.",
        DRIVE, True,
    )  # fmt: skip


def serving_of(joints: Mapping[str, JointPlan], dowel: DowelPlan | None) -> Iterator[Said]:
    """How it is taken down and served, from the top. Source: common practice."""
    if dowel is not None:
        yield say("Pull the dowel out first, straight up, with pliers if it does not come.", "Take down")
    for joint in sorted(joints.values(), key=lambda one: -one.level.value):
        count = len(joint.supports)
        if joint.inside:
            yield say(
                f"Tier {joint.tier}: cut down to the board inside it, serve that, lift the board off, pull out "
                f"{count} {joint.many}, and go on.", "Take down",
            )  # fmt: skip
        else:
            yield say(
                f"Tier {joint.tier}: run a knife along the joint, lift it off on its card, pull {count} {joint.many} "
                f"out of tier {joint.tier - 1} and count them.", "Take down",
            )  # fmt: skip
    if joints:
        yield say(
            "Before anyone eats: count out every support, skewer, stick, pick and wire that went in, those of figures "
            "and toppers too.", "Take down", True,
        )  # fmt: skip
