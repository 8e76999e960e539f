"""The carving card: what is done in which order to carve a tier, from the film below it to the last line scored."""

from collections.abc import Iterator, Mapping, Sequence
from itertools import pairwise

from amber_spread.core.geometry.sliced import Slice
from amber_spread.core.kernel.check import RoundedQuantity, Said, grams, measure, mm, say
from amber_spread.core.tier.hidden import CavityPlan
from amber_spread.core.tier.openings import OpeningPlan

READY, CUT, CARVE = "Make ready", "Cut the layers", "Carve"
ALIKE_MM = 3.0
"""Layers beside each other whose edges lie nowhere farther apart are cut as one (from memory)."""
CHILL_MIN = 20.0, 30.0
"""So long layers that slide are chilled before they are carved (common practice)."""


def alike(slices: Sequence[Slice]) -> list[tuple[int, int]]:
    """Layers beside each other that are cut two at a time, by their numbers; each in one pair at most."""
    found: list[tuple[int, int]] = []
    for lower, upper in pairwise(slices):
        taken = found and found[-1][1] == lower.number
        if not taken and lower.whole.hausdorff_distance(upper.whole) <= ALIKE_MM:
            found.append((lower.number, upper.number))
    return found


def steps_of_carving(
    slices: Sequence[Slice],
    room: CavityPlan | None,
    openings: Mapping[str, OpeningPlan],
    scored_mm: float | None,
    dome_mm: float = 0.0,
) -> Iterator[Said]:
    """Every step of carving a tier, with a room hidden in it, openings cut out of it, lines so far apart scored on it,
    and a dome left on its top layer, where there are any. Source: common practice.
    """
    yield say(
        "Lay film below the work, with enough of it to fold up round the cake: crumbs go off with it, and the cake "
        "does not dry while it waits.", READY,
    )  # fmt: skip
    yield say(
        "Bake the day before and keep the layers cold: firm cake is cut clean. Keep what has to stay cold out of it no "
        "longer than local rules allow.", READY, True,
    )  # fmt: skip
    if dome_mm:
        yield say(
            f"Level every layer but the last, {slices[-1].number}: {{dome}} of its dome stays on. It goes on top, and "
            "the knife follows its rise.", CUT, dome=mm(dome_mm),
        )  # fmt: skip
    least, most = (RoundedQuantity(minutes, "min") for minutes in CHILL_MIN)
    yield say("Cut each layer to its own template: axis on axis, the front mark to the front, from layer 1 up.", CUT)
    for lower, upper in alike(slices):
        yield say(
            f"Layers {lower} and {upper} are alike: lay one on the other and cut both along the template of layer "
            f"{lower}. What is cut is the guide for the rest.", CUT,
        )  # fmt: skip
    yield say(
        "Fill and stack them on their axis. If they slide, chill them for {least} to {most} before a knife goes near, "
        "and again whenever they begin to.", CUT, least=least, most=most,
    )  # fmt: skip
    yield say(
        "Hold the boards of both views against the cake and carve from the top down, in thin slices: what is off "
        "cannot be put back.", CARVE,
    )  # fmt: skip
    deepest = max(slices, key=lambda one: one.moves)
    if deepest.moves >= ALIKE_MM:
        yield say(
            f"Most is carved in layer {deepest.number}: its edge moves by {{moves}} between its faces.", CARVE,
            moves=mm(deepest.moves),
        )  # fmt: skip
    if room is not None:
        yield say(
            "Mind the room inside: {wall} of cake is all there is round it at its thinnest. Try it with a skewer "
            "before you carve there, and take the skewer out.", CARVE, wall=measure(room.wall),
        )  # fmt: skip
    for number, opening in enumerate(openings.values(), 1):
        out = grams(opening.cake.value + opening.filling.value)
        if opening.weight is None:
            yield say(
                f"Opening {number} is left empty: cut it out of each layer as you stack, {{out}} in all.", CUT, out=out,
            )  # fmt: skip
        elif opening.open:
            yield say(
                f"Cut opening {number} out by its templates; {{out}} of cake and filling comes out. Chill the cake, "
                "press {filled} in a little at a time, and draw the knife over it level with the cake.", CARVE,
                out=out, filled=measure(opening.weight),
            )  # fmt: skip
        else:
            yield say(
                f"Opening {number} opens nowhere: cut it out of each layer as you stack, {{out}} in all, and fill each "
                "up level with {filled} in all before the next goes on.", CUT,
                out=out, filled=measure(opening.weight),
            )  # fmt: skip
        if opening.wall is not None and opening.volume.value > 0:
            yield say(
                f"Mind opening {number} inside: {{wall}} of cake is all there is about it at its thinnest. Try it with "
                "a skewer before you carve there, and take the skewer out.", CARVE, wall=measure(opening.wall),
            )  # fmt: skip
    yield say("The knife moves away from your hand, and the turntable is held.", CARVE, True)
    yield say(
        "Keep the offcuts covered. Crumbled with a little of the coat they build up a point, a swoop or what hangs "
        "out.", CARVE,
    )  # fmt: skip
    if scored_mm is not None:
        yield say(
            "Score the lines once the cover is on and still soft: {apart} apart, along the templates of both views, "
            "with the back of a knife, no deeper than half of it.", CARVE, apart=mm(scored_mm),
        )  # fmt: skip
