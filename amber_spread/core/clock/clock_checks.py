"""What to know about the hours of an order: what is late, too long, too warm, or finds no room."""

from collections.abc import Iterator, Sequence
from datetime import datetime

from amber_spread.core.clock.hours import Hours, hours_of, minute_of, moment_of
from amber_spread.core.clock.places import Places
from amber_spread.core.clock.placing import PlacedOrder
from amber_spread.core.clock.schedule import lasts_too_long
from amber_spread.core.clock.shelves import COLD, Cold, fits
from amber_spread.core.clock.steps import Step
from amber_spread.core.kernel.check import Check, RoundedQuantity, checker, listed
from amber_spread.core.kernel.units import day_words, hour_words

CAUTION = checker(None)(
    "clock.plan",
    "caution",
    "clock",
    "These hours are a plan. Go by the sign of each wait, by your recipe for the oven, and by your local food code for "
    "time out of the fridge.",
)


def checks_of(placed: PlacedOrder, due: datetime, now: datetime | None, places: Places) -> Iterator[Check]:
    """What to know: what is late, what is longer than a day, what waits too long, what finds no room in the cold."""
    check, timings, hours = checker(None), placed.timings, hours_of(places)
    begins = moment_of(placed.first)
    if now is not None and now >= due:
        yield check(
            "clock.past", "trouble", "clock", f"The due hour, {_words(due)}, has passed. Set the next in Brief."
        )
        return
    if placed.progress is not None:
        yield from _moved_on(placed, due, hours)
    elif now is not None and begins < now:
        yield check(
            "clock.late",
            "trouble",
            "clock",
            f"The first step should have begun on {_words(begins)}, {{late}} ago. Mark what is done, or plan "
            "it from now. To win time, make the design smaller, get help, or work longer days.",
            late=RoundedQuantity(minute_of(now) - minute_of(begins), "min"),
        )
    for block in placed.blocks:
        first = block.steps[0]
        firming = first.firming
        if firming is not None and first.row.firms is not None and firming.at(first.row.firms) is None:
            colder = "Set it colder" + (", or firm it in the freezer." if firming.other is not None else ".")
            yield checker(first.tier)(
                "clock.too_warm",
                "care",
                "clock",
                f"{first.name}: the {firming.where} is too warm. This coat holds below {{holds}}. {colder}",
                holds=RoundedQuantity(firming.holds.value, "degC"),
            )
        if block.exceeds(hours):
            yield checker(first.tier)(
                "clock.long",
                "care",
                "clock",
                f"{listed([one.name for one in block.steps])}: {{work}} without a break, longer than your working day "
                "of {day}. Plan a longer day, or share the work.",
                work=RoundedQuantity(block.minutes, "min"),
                day=RoundedQuantity(hours.long_min, "min"),
            )
        elif first.waits is not None and lasts_too_long(first, lasts := timings[first.id].whole):
            yield checker(first.tier)(
                "clock.waits",
                "care",
                "clock",
                f"{first.name}: {{lasts}} in this plan, and {{most}} is the most. {first.waits.too_long}",
                lasts=RoundedQuantity(lasts.end - lasts.start, "min"),
                most=RoundedQuantity(first.waits.most_min, "min"),
            )
    for one in placed.steps:
        if one.row.kind == "chill_cover":
            yield from _sweats(one)
    yield from _no_room(placed, places)


def _sweats(step: Step) -> Iterator[Check]:
    """What to know of a covered tier that sweats when it leaves the cold."""
    firming = step.firming
    if firming is None or firming.wet is None or not firming.wet.value:
        return
    name, where = step.of or "the cake", firming.where
    text = f"{name} sweats for up to {{wet}} when it leaves the {where}, if it is cold right through: the dew point of "
    text += "the kitchen is {dew}. Box it in the cold, and let it warm up in the closed box. "
    text += "First leave it in the fridge for 6 to 24 h. " if where == "freezer" else ""
    text += "No hands, dust, paint or print on it until it is dry."
    yield checker(step.tier)(
        "clock.sweats",
        "care" if firming.wetness == "runs" else "caution",
        "clock",
        text[:1].upper() + text[1:],
        wet=RoundedQuantity(firming.wet.value, "min", "up"),
        dew=RoundedQuantity(firming.dew.value, "degC"),
    )


def _moved_on(placed: PlacedOrder, due: datetime, hours: Hours) -> Iterator[Check]:
    """How late an order with marks is, and which of its steps cannot start at the hour they were moved to."""
    check, ready = checker(None), max(block.ready for block in placed.blocks)
    late, ends = placed.ends - ready, _words(moment_of(placed.ends))
    if placed.ends > minute_of(due):
        text = (
            f"It is ready on {ends}, {{late}} after it is due. Make the design smaller, get help, or tell the customer."
        )
        after_due = RoundedQuantity(placed.ends - minute_of(due), "min")
        yield check("clock.over", "trouble", "clock", text, late=after_due)
    elif late > 0:
        text = f"It is ready on {ends}, {{late}} later than you want it, and still before it is due."
        yield check("clock.over", "care", "clock", text, late=RoundedQuantity(late, "min"))
    for one in placed.steps:
        wanted, starts = placed.mark(one.id).start, placed.timings[one.id].whole.start
        if wanted is not None and one.id not in placed.started and wanted != starts:
            yield checker(one.tier)(
                "clock.moved",
                "care",
                "clock",
                f"{one.name} cannot start on {_words(moment_of(wanted))}, as you asked. It starts on "
                f"{_words(moment_of(starts))}.",
            )
        elif wanted is not None and one.id not in placed.started and (hand := placed.timings[one.id].hand) is not None:
            day, end = hours.of_day(hand, starts), placed.timings[one.id].whole.end
            if not day.start <= starts < end <= day.end:
                text = f"{one.name} is outside working hours, on {_words(moment_of(starts))}, as you asked."
                yield checker(one.tier)("clock.off_hours", "care", "clock", text)


def pending_of(titles: Sequence[str]) -> Iterator[Check]:
    """Say that hours may move, while other orders are still being worked out."""
    if titles:
        named = listed([f"“{one}”" for one in titles])
        yield checker(None)(
            "clock.pending",
            "care",
            "clock",
            f"{named} {'is' if len(titles) == 1 else 'are'} still being worked out: these hours may move.",
        )


def _no_room(placed: PlacedOrder, places: Places) -> Iterator[Check]:
    """Everything that finds no room in the cold, each thing once."""
    said: set[tuple[Cold, str]] = set()
    for one in placed.steps:
        where = next((cold for cold in COLD if cold == one.row.place), None)
        if where is None or one.size is None or one.id in placed.shelves or (where, one.of) in said:
            continue
        said.add((where, one.of))
        shelves, subject = places.shelves(where), one.of or "the cake"
        parts = "shelves" if where == "fridge" else "drawers"
        if not shelves:
            text = f"{one.name}: you have no {where}. Add one in Hands and places, or change where coats firm."
        elif not fits(one.size, shelves):
            text = (
                f"{subject} does not fit in your {where}: it is {{wide}} wide, {{deep}} deep and {{high}} high. Check "
                f"its {parts} in Hands and places, or find a colder place for it."
            )
        else:
            begins = _words(moment_of(placed.timings[one.id].whole.start))
            text = (
                f"The {where} is full on {begins}: there is no room for {subject}, {{wide}} wide, {{deep}} deep and "
                "{high} high. Clear a shelf, or find another cold place for it."
            )
        yield checker(one.tier)(
            f"clock.no_room_{where}",
            "care",
            "clock",
            text[:1].upper() + text[1:],
            wide=RoundedQuantity(one.size.width_mm, "mm", "up"),
            deep=RoundedQuantity(one.size.depth_mm, "mm", "up"),
            high=RoundedQuantity(one.size.height_mm, "mm", "up"),
        )


def _words(moment: datetime) -> str:
    return f"{day_words(moment)} at {hour_words(moment)}"
