"""The clock of an order, held to an inspector that knows nothing of how it is made: what follows what, how many hands
and ovens there are, when the kitchen works, and how long a state lasts.
"""

import io
import math
from collections import Counter
from datetime import date, datetime, timedelta

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pypdf import PdfReader

from amber_spread.core.clock import STEP_KINDS, Kitchen, Places, clock_of, steps_of
from amber_spread.core.clock.backwards import backwards
from amber_spread.core.clock.blocks import blocks_of
from amber_spread.core.clock.cake_steps import MIXING
from amber_spread.core.clock.hours import DAY_MIN, Hours, Span
from amber_spread.core.clock.places import ColdShelf, Hands, WorkingDay
from amber_spread.core.clock.shelves import Stay, fits, on_shelves
from amber_spread.core.clock.step_kinds import StepKind, Wait
from amber_spread.core.clock.steps import Size, Step
from amber_spread.core.clock.tier_steps import COATING, COVERING, MADE_IN, bake_minutes
from amber_spread.core.design.builds import CarvedBuild
from amber_spread.core.design.design import Layers, MeasuredBake
from amber_spread.core.design.finishes import (
    Border,
    CrumbCoat,
    DrapeCover,
    FreehandFinal,
    InvertedFinal,
    PanelCover,
    SemiNakedFinal,
    SoftFilling,
    Syrup,
    TowelFinal,
)
from amber_spread.core.design.stands import Stacking
from amber_spread.core.document.document import FileError, plan_document
from amber_spread.core.kernel.check import Said
from amber_spread.core.kernel.figures import RULES, Figure
from amber_spread.core.kernel.naming import figures
from amber_spread.core.stock.media import MEDIUM_KINDS
from amber_spread.core.tier.uses import STEPS
from amber_spread.demo.week import week
from amber_spread.papers.day_sheet import write_day_sheet
from amber_spread.speed.calls import calls_of
from tests import designs, kinds
from tests.designs import MEDIA, STONE, document, tier

DUE = datetime(2026, 12, 5, 11)
STARTING = Places()
ONE_OF_TWO = ({"coat soft", "coat hard"}, {"warm", "cool", "cold"})
"""States that rule each other out."""


def clocked(found, places=STARTING, **usual):
    """An order with its plan and its clock, in a kitchen."""
    practice = found.practice.model_copy(update=usual)
    found = found.model_copy(update={"practice": practice, "due": found.due or DUE})
    plan = plan_document(found)
    return found, plan, clock_of(found, plan, kitchen=Kitchen(places)), places


def pairs(count, begins=8, ends=18, **more):
    """So many pairs of hands that work every day from one hour to another."""
    day = WorkingDay(begins_min=begins * 60.0, ends_min=ends * 60.0)
    return Places(hands=(Hands(week=(day,) * 7),) * count, **more)


def ordered(*tiers, stacking=None, **parts):
    found = document(*tiers, due=DUE, **parts)
    design = found.design.model_copy(update={"stacking": stacking or Stacking()})
    return found.model_copy(update={"design": design})


def works(step):
    return step.spans


def minutes(span):
    return (span[1] - span[0]).total_seconds() / 60


def inspect(found, plan, clock, places):
    """Find every way in which a clock could not be kept."""
    steps, usual = clock.steps, found.practice
    assert list(steps) and max(one.end for one in steps.values()) <= clock.ready
    assert clock.ready == found.due - timedelta(minutes=usual.ready_before_min)
    assert clock.begins == min(one.start for one in steps.values())
    hands = {}
    for id, one in steps.items():
        assert (one.hands is None) != (one.wait is None) and one.end > one.start
        for before in one.follows:
            assert steps[before].end <= one.start, f"{id} begins before {before} ends"
        rigid = one.hands or (one.wait if at_once(one) else None)
        taken = sum(minutes(span) for span in works(one))
        if rigid is not None:
            assert taken == max(1, math.ceil(rigid.value)), f"{id} takes other than it is said to"
        else:
            assert taken >= round(one.wait.value), id
        if at_once(one) and one.follows and not flexible(steps[one.follows[0]]):
            assert steps[one.follows[0]].end == one.start, f"{id} does not begin at once"
        if one.hands is not None:
            assert 1 <= one.hand <= len(places.hands)
            hands.setdefault(one.hand, []).extend(works(one))
            if one.place not in ("car", "table"):
                _within_hours(steps, id, places)
        later = [other for other in steps.values() if id in other.follows]
        slack = timedelta(minutes=one.slack.value)
        assert one.slack.value >= 0
        if rigid is None:
            assert taken - one.slack.value >= round(one.wait.value), id
            continue
        assert later or one.end + slack <= clock.ready
        for other in later:
            free = timedelta(minutes=other.slack.value if flexible(other) else 0)
            free = other.end - other.start if other.kind == "hold" else free
            assert at_once(other) or one.end + slack <= other.start + free, id
    for busy in hands.values():
        busy.sort()
        for (_, ends), (begins, _) in zip(busy, busy[1:], strict=False):
            assert ends <= begins, "two things at once"
    assert clock.hands_on.value == pytest.approx(sum(one.hands.value for one in steps.values() if one.hands))
    _no_more_at_once_than_there_are(steps, places)
    _shelves_hold_what_stands_on_them(steps_of(found, plan), steps, places)
    _nothing_stands_about(steps)
    _tasks_are_all_done(plan, found, clock)
    _states_are_there(steps)
    _bowls_are_ready(plan, found, steps)


def at_once(one):
    """Whether a step begins as its first one ends: by its kind, or because a freezer does not wait."""
    return STEP_KINDS[one.kind].at_once or one.place == "freezer"


def flexible(one):
    """Whether it is a wait that may last longer than it has to."""
    return one.wait is not None and not at_once(one)


def most_at_once(spans):
    """How many of some spans there are at the same time, at most."""
    moments = sorted([(begins, 1) for begins, _ in spans] + [(ends, -1) for _, ends in spans])
    most = now = 0
    for _, change in moments:
        now += change
        most = max(most, now)
    return most


MIXED, TURNED = ("mix_bowl", "mix_batter"), ("crumb_coat", "final_coat", "disc_coat", "inverted_coat", "piped_coat")


def _no_more_at_once_than_there_are(steps, places):
    """Ovens, mixers, turntables and places on a bench are never asked for more often than there are."""
    every = [(one, span) for one in steps.values() for span in works(one)]
    assert most_at_once([span for one, span in every if one.place == "oven"]) <= places.ovens
    assert most_at_once([span for one, span in every if one.kind in MIXED]) <= places.mixers
    assert most_at_once([span for one, span in every if one.kind in TURNED]) <= places.turntables
    assert most_at_once([span for one, span in every if one.place == "bench" and one.hands]) <= places.benches


def _shelves_hold_what_stands_on_them(made, steps, places):
    """What stands on a shelf at one time is not more than its area, none of it too wide or too high for it, and
    nothing stands where a shelf was taken out.
    """
    sizes = {(one.on, one.tier): one.size for one in made}
    for place, shelves in (("fridge", places.fridge), ("freezer", places.freezer)):
        stays = [one for one in steps.values() if one.place == place and one.shelves]
        for one in stays:
            size, shelf = sizes[one.on, one.tier], shelves[one.shelves[-1] - 1]
            assert one.shelves == list(range(one.shelves[0], one.shelves[-1] + 1))
            assert sum(shelves[at - 1].height_mm for at in one.shelves) >= size.height_mm
            assert max(size[:2]) <= max(shelf.width_mm, shelf.depth_mm) + 1e-6
            there = [other for other in stays if other.start <= one.start < other.end]
            area = sum(
                sizes[other.on, other.tier].width_mm * sizes[other.on, other.tier].depth_mm
                for other in there
                if other.shelves[-1] == one.shelves[-1]
            )
            assert area <= shelf.width_mm * shelf.depth_mm + 1e-6
            assert not any(other.shelves[-1] in one.shelves[:-1] for other in there)


def _within_hours(steps, id, places):
    """Work is done within working hours, unless what must be done at a stretch is longer than the day or ends with the
    drive.
    """
    if "cake_drive" in steps and steps["cake_drive"].follows == [id]:
        assert steps[id].kind == "box"
        return
    longest = max(day.ends_min - day.begins_min for one in places.hands for day in one.week if day)
    mine = places.hands[steps[id].hand - 1]
    for begins, ends in works(steps[id]):
        midnight = begins.replace(hour=0, minute=0)
        day = None if begins.date() in mine.off else mine.week[begins.weekday()]
        hours = [midnight + timedelta(minutes=one) for one in (day.begins_min, day.ends_min)] if day else None
        assert (hours and hours[0] <= begins and ends <= hours[1]) or sum(_stretch(steps, id)) > longest, id


def _stretch(steps, id):
    """How long everything takes that is done at a stretch with a step, min."""
    chain = [id]
    while at_once(steps[chain[0]]) and not flexible(steps[steps[chain[0]].follows[0]]):
        chain.insert(0, steps[chain[0]].follows[0])
    while after := [other for other, one in steps.items() if one.follows[:1] == chain[-1:] and at_once(one)]:
        chain += after
    return [minutes((steps[one].start, steps[one].end)) for one in chain]


def _nothing_stands_about(steps):
    """From its oven on, a tier is in a place, or hands are on it, or it waits for them for less than half an hour."""
    whole = [one for id, one in steps.items() if id.startswith("cake_")]
    for number in {one.tier for one in steps.values() if one.tier is not None}:
        stays = [span for one in steps.values() if one.tier == number for span in works(one)]
        stays += [(min(one.start for one in whole),) * 2] if whole else []
        stays.sort()
        until = stays[0][1]
        for begins, ends in stays:
            assert minutes((until, begins)) < 30, f"tier {number} stands about from {until} to {begins}"
            until = max(until, ends)


def _tasks_are_all_done(plan, found, clock):
    """Every minute that the stacking card and the carving card count is in the clock, once."""
    steps = steps_of(found, plan)
    done = Counter(task.id for one in steps for task in one.tasks)
    asked = [task for task in plan.stack.tasks if task.kind != "drive"]
    asked += [task for one in plan.tiers if one.carving for task in one.carving.tasks]
    for task in asked:
        assert done[task.id] == 1, task.id
    parts = Counter()
    for one in steps:
        if one.hands is not None:
            assert one.hands.value == pytest.approx(sum(part.value for part in one.hands.given.values()))
            for name, part in one.hands.given.items():
                parts[name] += part.value
    for total in [plan.stack.hands_on, *(one.carving.hands_on for one in plan.tiers if one.carving)]:
        for name, part in total.given.items():
            assert parts[name.lower()] >= part.value - 1e-9, name


def _states_are_there(steps):
    """What a step needs was left by one before it, and by none since that rules it out. Baked layers come cold."""
    there = {one.tier: {"cold"} for one in steps.values() if one.tier is not None}
    for one in steps.values():
        if one.kind == "bake":
            there[one.tier] = set()
    in_time = sorted(steps.items(), key=lambda item: (item[1].start, item[1].end))
    for id, one in in_time:
        if id.startswith("bowl_"):
            continue
        mine = list(there.values()) if one.tier is None else [there[one.tier]]
        needs, leaves = STEP_KINDS[one.kind].needs, STEP_KINDS[one.kind].leaves
        assert needs is None or all(needs in states for states in mine), f"{id} needs {needs}"
        for left in mine if leaves else ():
            for rivals in ONE_OF_TWO:
                if leaves in rivals:
                    left -= rivals
            left.add(leaves)


def _bowls_are_ready(plan, found, steps):
    """A bowl with work of its own is ready before the last step of every tier it goes on."""
    for key, bowl in plan.bowls.items():
        own = [one for id, one in steps.items() if id.startswith(f"bowl_{key}_")]
        for use in bowl.steps.values() if own else ():
            done = max(one.end for id, one in steps.items() if one.tier == use.tier or id.startswith("cake_"))
            assert max(one.end for one in own) <= done
    sheets = {key for key in plan.bowls if MEDIA[key.partition("~")[0]].kind == "fondant"}
    named = {id for id in steps if id.startswith("bowl_")}
    for key in plan.bowls.keys() - sheets:
        assert any(id.startswith(f"bowl_{key}_") for id in named), f"nobody makes {key}"


ORDERS = {
    "one": lambda: ordered(tier(203)),
    "one, baked": lambda: ordered(tier(203, layers=Layers(height_mm=None, bake=MeasuredBake(edges_mm=(50, 51))))),
    "three, driven": lambda: ordered(tier(254), tier(203), tier(152)),
    "not driven": lambda: ordered(tier(254), tier(203), stacking=Stacking(travels=False)),
    "stacked there": lambda: ordered(
        tier(254, borders=(Border(),)), tier(203), stacking=Stacking(travels=True, stacked="there", drive_min=45)
    ),
    "coated after": lambda: ordered(
        tier(254, final=FreehandFinal(colour="ivory")), tier(203), stacking=Stacking(coated="after")
    ),
    "double": lambda: ordered(tier(203, layers=Layers(count=6, board_after=3, syrup=Syrup()))),
    "soft": lambda: ordered(tier(203, filling=SoftFilling(medium="lemon_curd"), cover=DrapeCover(colour="blush"))),
    "carved": lambda: ordered(tier(254, build=CarvedBuild(points_mm=STONE, scored_mm=20), cover=DrapeCover())),
    "carved, bare": lambda: ordered(tier(254, build=CarvedBuild(points_mm=STONE, scored_mm=20))),
    "semi-naked": lambda: ordered(tier(203, final=SemiNakedFinal(), crumb=CrumbCoat(medium="dark_ganache"))),
    "by towel": lambda: ordered(tier(203, final=TowelFinal())),
    "inverted": lambda: ordered(tier(203, final=InvertedFinal(disc_diameter_mm=216), cover=PanelCover())),
}  # fmt: skip


@pytest.mark.parametrize("name", ORDERS)
@pytest.mark.parametrize("hands", [1, 3])
def test_a_clock_can_be_kept(name, hands):
    inspect(*clocked(ORDERS[name](), pairs(hands)))


@pytest.mark.parametrize(
    "title", ["Fair centrepiece", "Raffle hive", "Honey drum", "Stone from the ford", "Judges’ tea"]
)
def test_the_clocks_of_the_demo_can_be_kept(title):
    found = next(one for one in week(date(2026, 12, 1)) if one.title == title)
    inspect(*clocked(found))


@pytest.mark.parametrize(
    "final", [one for kind in kinds.FINALS for one in kinds.variants(kind)], ids=lambda one: one.kind
)
@pytest.mark.parametrize("cover", [kinds.example(kind) for kind in kinds.COVERS], ids=lambda one: one.kind)
def test_every_finish_meets_every_cover(final, cover):
    found = ordered(tier(203, final=final, cover=cover))
    inspect(*clocked(found))
    if final.kind == "inverted" and cover.kind != "none":
        laid = [one for one in steps_of(found, plan_document(found)) if one.tier == 1]
        after = [one.row.kind for one in laid][[one.row.kind for one in laid].index("turn_back") + 1]
        assert after in ("cover", "wrap_printed", "wrap_collar"), "it sweats and softens"


any_day = st.none() | st.builds(
    lambda begins, long: WorkingDay(begins_min=begins * 60.0, ends_min=min(24, begins + long) * 60.0),
    st.integers(0, 20),
    st.integers(1, 14),
)
any_hands = st.builds(
    Hands,
    week=st.lists(any_day, min_size=7, max_size=7).filter(any).map(tuple),
    off=st.lists(st.dates(date(2026, 11, 25), date(2026, 12, 5)), max_size=4).map(tuple),
)
any_shelves = st.lists(
    st.builds(ColdShelf, width_mm=st.floats(150, 700), depth_mm=st.floats(150, 500), height_mm=st.floats(60, 400)),
    max_size=4,
).map(tuple)
any_places = st.builds(
    Places,
    hands=st.lists(any_hands, min_size=1, max_size=4).map(tuple),
    ovens=st.integers(1, 2),
    mixers=st.integers(1, 2),
    turntables=st.integers(1, 2),
    benches=st.integers(1, 3),
    fridge=any_shelves,
    freezer=any_shelves,
)


@settings(max_examples=25, deadline=None)
@given(
    design=designs.quick_designs,
    places=any_places,
    hour=st.integers(0, 23),
    ready=st.sampled_from([0, 30, 600]),
    cold=st.fixed_dictionaries(
        {
            "firm_in": st.sampled_from(["fridge", "freezer"]),
            "kitchen_degc": st.floats(5, 45),
            "fridge_degc": st.floats(-2, 15),
            "fridge_pace": st.floats(0.25, 4),
        }
    ),
)
def test_a_clock_of_any_order_can_be_kept(design, places, hour, ready, cold):
    found = document(due=datetime(2026, 12, 5, hour)).model_copy(update={"design": design})
    try:
        made = clocked(found, places, ready_before_min=ready, **cold)
    except FileError:
        return
    inspect(*made)


def test_every_kind_there_is_has_its_steps():
    assert {"none"} | {kind.model_fields["kind"].default for kind in kinds.FINALS} == COATING.keys()
    assert {"none"} | {kind.model_fields["kind"].default for kind in kinds.COVERS} == COVERING.keys()
    assert MADE_IN.keys() == set(STEPS) and MIXING.keys() == MEDIUM_KINDS.keys()
    told = {kind for table in (COATING, COVERING, MADE_IN, MIXING) for those in table.values() for kind in those}
    assert told <= STEP_KINDS.keys()


def test_every_kind_of_step_is_used_and_is_either_work_or_a_wait():
    made = {one.kind for name in ORDERS for one in clocked(ORDERS[name]())[2].steps.values()}
    for final in kinds.FINALS:
        for cover in kinds.COVERS:
            ganache = {"medium": "dark_ganache"} if final.__name__ == "FreehandFinal" else {}
            one = kinds.example(final, **ganache)
            found = ordered(tier(203, final=one, cover=kinds.example(cover)))
            made |= {each.row.kind for each in steps_of(found, plan_document(found))}
    extra = ordered(tier(203, on_top=(), regions=kinds.REGIONS[:1] if hasattr(kinds, "REGIONS") else ()))
    made |= {one.row.kind for one in steps_of(extra, plan_document(extra))}
    assert STEP_KINDS.keys() - made <= {"cut_on_top", "pipe_region", "pipe_border"}
    for row in STEP_KINDS.values():
        assert row.wait is None or (row.base_min == row.each_min == 0)
        assert row.wait is None or row.wait.least_min <= row.wait.usual_min <= row.wait.most_min


WAITS = [
    # What hands report, min: common practice.
    ("set_ganache", 30, 120),
    ("firm_crumb", 30, 60),
    ("firm_final", 10, 60),
    ("firm_inverted", 120, 180),
    ("settle_overnight", 480, 1440),
    ("chill_stack", 20, 30),
    ("dry_skin", 5, 10),
    ("chill_cover", 30, 60),
    ("firm_pieces", 10, 20),
    ("set_printed", 15, 15),
]


@pytest.mark.parametrize(("kind", "least", "most"), WAITS)
def test_waits_are_those_that_hands_report(kind, least, most):
    wait = STEP_KINDS[kind].wait
    assert least <= wait.usual_min <= most and wait.sign


def test_hot_cream_and_syrup_are_cautioned_about_where_they_are_made():
    found = ordered(tier(203, final=FreehandFinal(medium="dark_ganache"), layers=Layers(syrup=Syrup())))
    steps = clocked(found)[2].steps.values()
    made = [one for one in steps if one.kind in ("mix_ganache", "boil_syrup")]
    hot = {one.kind: [task.text for task in one.tasks if task.caution] for one in made}
    assert len(hot) == 2 and all("burns" in " ".join(said) for said in hot.values())


def test_a_wait_says_where_its_minutes_come_from():
    steps = clocked(ORDERS["one"]())[2].steps.values()
    rules = {one.kind: one.wait.rule for one in steps if one.wait}
    assert (rules["firm_crumb"], rules["settle"]) == ("clock.firm", "clock.wait")
    assert rules["cool"] == "clock.wait_from_memory"
    for rule in rules.values():
        assert RULES[rule].source.origin in ("common practice", "from memory") or rule == "clock.firm"


def test_ganache_sets_sooner_than_buttercream():
    for kind in ("firm_crumb", "firm_final"):
        assert STEP_KINDS[kind].sooner.usual_min < STEP_KINDS[kind].wait.usual_min


@pytest.mark.parametrize(
    ("across", "least", "most"), [(152.4, 25, 35), (203.2, 30, 40), (254, 38, 50), (304.8, 45, 60)]
)
def test_a_tin_two_inches_deep_bakes_as_long_as_charts_say(across, least, most):
    """Charts of baking times by the tin, at a moderate heat (from memory)."""
    assert least <= bake_minutes(across, 50.8, 1) <= most
    assert bake_minutes(across, 50.8, 2) == 2 * bake_minutes(across, 50.8, 1)


NOON = 100 * DAY_MIN + 12 * 60
DAY = Hours.of(pairs(1))
TWO = Hours.of(pairs(2))


def row(kind="work", place="bench", wait=None, **more):
    return StepKind(kind, kind, place, wait=wait, **more)


def step(id, length, *after, wait=None, **more):
    figure = Figure(float(length), "min", "test")
    kind = row(wait=wait, **more)
    hands, waits = (None, figure) if wait else (figure, None)
    return made(id, kind, hands, waits, after)


def made(id, kind, hands, waits, after):
    return Step(id, kind, "cake", None, "", id, Said(text=""), hands, waits, kind.wait, after)


def scheduled(steps, ready=NOON, hours=DAY):
    return backwards(blocks_of(steps, ready), hours)[0]


def spans(steps, hours=DAY, ready=NOON):
    return {id: (one.whole.start - ready, one.whole.end - ready) for id, one in scheduled(steps, ready, hours).items()}


def test_steps_are_counted_back_from_the_end():
    chill = Wait(30, 30, 60, "firm")
    found = spans([step("coat", 10), step("chill", 30, "coat", wait=chill), step("cover", 20, "chill")])
    assert found == {"coat": (-60, -50), "chill": (-50, -20), "cover": (-20, 0)}


def test_one_pair_of_hands_does_one_thing_and_two_do_two():
    steps = [step("one", 30), step("other", 20)]
    assert spans(steps) == {"other": (-20, 0), "one": (-50, -20)}
    assert spans(steps, TWO) == {"other": (-20, 0), "one": (-30, 0)}


def test_work_that_does_not_fit_in_the_morning_is_done_the_evening_before():
    evening = -(4 + 14) * 60
    found = spans([step("long", 200), step("short", 60, "long")])
    assert found == {"short": (-60, 0), "long": (evening - 200, evening)}


def test_work_longer_than_a_day_is_done_on_several_where_it_can_be():
    found = scheduled([step("carve", 700, splits=True), step("coat", 120, "carve")])["carve"]
    assert [end - start for start, end in found.spans] == [580, 120]
    assert found.spans[1].end == NOON - 120 and found.spans[0].end == NOON - 18 * 60


def test_the_oven_holds_one_bake_at_a_time():
    oven = row(place="oven", at_once=True)
    bake = [step("mix a", 10), made("bake a", oven, None, Figure(40.0, "min", "test"), ("mix a",))]
    bake += [step("mix b", 10), made("bake b", oven, None, Figure(40.0, "min", "test"), ("mix b",))]
    found = spans(bake, TWO)
    assert found["bake b"] == (-40, 0) and found["bake a"] == (-80, -40)
    assert found["mix a"] == (-90, -80)


def test_what_would_wait_too_long_is_followed_sooner():
    dry = Wait(60, 90, 180, "cool", "It dries out.")
    chill = Wait(60, 60, 2880, "cold")
    steps = [
        step("bake", 30),
        step("cool", 90, "bake", wait=dry),
        step("wrap", 10, "cool"),
        step("chill", 60, "wrap", wait=chill),
        step("fill", 170, "chill"),
    ]
    found = spans(steps)
    assert found["cool"][1] - found["cool"][0] <= 180
    assert found["wrap"][1] <= -18 * 60  # the evening before, not at eight in the morning


def test_a_step_must_stand_after_what_it_follows():
    with pytest.raises(ValueError, match="does not come before"):
        scheduled([step("one", 5, "other"), step("other", 5)])


STEPS_OF_ANY = st.lists(
    st.tuples(st.integers(1, 200), st.booleans(), st.lists(st.integers(0, 20), max_size=3)), min_size=1, max_size=20
)


@settings(max_examples=60, deadline=None)
@given(STEPS_OF_ANY, st.integers(1, 3))
def test_any_steps_are_done_in_order_by_the_hands_there_are(drawn, hands):
    steps = [
        step(
            str(at), length, *(str(one % at) for one in before if at), wait=Wait(1, length, 9999, "") if waits else None
        )
        for at, (length, waits, before) in enumerate(drawn)
    ]
    found, busy = scheduled(steps, hours=Hours.of(pairs(hands))), {}
    for one in steps:
        timing = found[one.id]
        lasts = timing.whole
        assert lasts.end <= NOON and lasts.end - lasts.start >= one.minutes
        assert all(found[before].whole.end <= lasts.start for before in one.after)
        if one.hands:
            busy.setdefault(timing.hand, []).append(lasts)
    for spans_of_one in busy.values():
        spans_of_one.sort()
        assert all(end <= start for (_, end), (start, _) in zip(spans_of_one, spans_of_one[1:], strict=False))


def checks(found, now=None, places=STARTING):
    plan = plan_document(found)
    return {one.code: one for one in clock_of(found, plan, now, Kitchen(places)).checks if one.severity != "caution"}


def test_what_is_late_is_said_and_so_is_a_due_hour_that_has_passed():
    found = ORDERS["three, driven"]()
    begins = clocked(found)[2].begins
    assert "clock.late" not in checks(found, begins)
    late = checks(found, begins + timedelta(minutes=50))["clock.late"]
    assert late.values["late"].value == 50 and f"{begins:%A}" in late.text and late.subject == "clock"
    assert checks(found, DUE).keys() == {"clock.past"}


def test_work_longer_than_the_day_is_said():
    said = checks(ordered(tier(254)), places=pairs(1, 10, 11))["clock.long"]
    assert "Mix the batter" in said.text and said.values["work"].value > said.values["day"].value == 60
    assert "clock.long" not in checks(ordered(tier(254)))


def test_days_off_and_each_pairs_own_hours_are_kept():
    """Saturday 5 December 2026; two pairs, of which one works in the mornings and neither on Thursday or Friday."""
    day, morning = WorkingDay(), WorkingDay(begins_min=360, ends_min=720)
    off = (date(2026, 12, 4),)
    hands = (
        Hands(name="Wren", week=(day,) * 3 + (None,) + (day,) * 3, off=off),
        Hands(week=(morning,) * 3 + (None,) * 4),
    )
    found, plan, clock, places = clocked(ordered(tier(254), tier(203)), Places(hands=hands, mixers=2))
    inspect(found, plan, clock, places)
    days = {step.start.date() for step in clock.steps.values() if step.hands}
    assert days.isdisjoint({date(2026, 12, 3), date(2026, 12, 4)}) and date(2026, 12, 2) in days
    assert {step.whose for step in clock.steps.values() if step.hands} == {"Wren", "hands 2"}
    assert all(step.start.hour < 12 for step in clock.steps.values() if step.hand == 2)


def test_one_mixer_and_one_turntable_keep_two_pairs_of_hands_apart():
    found = ordered(tier(203), tier(203))
    few, many = (clocked(found, pairs(2, mixers=count, turntables=count, benches=2))[2] for count in (1, 2))
    for kinds_of in (MIXED, ("crumb_coat",)):
        assert most_at_once([span for one in few.steps.values() if one.kind in kinds_of for span in one.spans]) == 1
    assert most_at_once([span for one in many.steps.values() if one.kind == "crumb_coat" for span in one.spans]) == 2
    assert few.begins <= many.begins


def test_two_ovens_bake_two_tiers_at_once():
    one, two = (clocked(ordered(tier(203), tier(203)), pairs(2, mixers=2, ovens=count))[2] for count in (1, 2))
    bakes = [
        [span for step in clock.steps.values() if step.kind == "bake" for span in step.spans] for clock in (one, two)
    ]
    assert [most_at_once(spans) for spans in bakes] == [1, 2]


def test_what_fits_on_no_shelf_is_said_and_so_is_a_full_fridge_and_no_freezer():
    found = ordered(tier(254), tier(203))
    assert not [code for code in checks(found) if code.startswith("clock.no_room")]
    low = (ColdShelf(width_mm=500, depth_mm=450, height_mm=100),)
    never = checks(found, places=Places(fridge=low))["clock.no_room_fridge"]
    assert "does not fit in your fridge" in never.text and never.values["high"].value > 100
    one = (ColdShelf(width_mm=380, depth_mm=320, height_mm=500),)
    full = checks(ordered(tier(254), tier(254)), places=pairs(2, fridge=one))["clock.no_room_fridge"]
    assert "The fridge is full on" in full.text
    found = found.model_copy(update={"practice": found.practice.model_copy(update={"firm_in": "freezer"})})
    assert "you have no freezer" in checks(found, places=Places(freezer=()))["clock.no_room_freezer"].text


BOX = ColdShelf(width_mm=400, depth_mm=300, height_mm=150)


def stay(id, start, end, width=200.0, depth=200.0, height=100.0, what=None):
    return Stay(id, what or id, Span(start, end), Size(width, depth, height))


def shelved(stays, shelves):
    return {one.stay.id: one.shelves for one in on_shelves(stays, shelves)}


def test_things_stand_side_by_side_and_what_comes_when_a_shelf_is_full_goes_on_the_next():
    found = shelved([stay("a", 0, 60), stay("b", 0, 60), stay("c", 30, 90), stay("d", 60, 90)], [BOX, BOX])
    assert found == {"a": range(1), "b": range(1), "c": range(1, 2), "d": range(1)}
    assert shelved([stay("a", 0, 60), stay("b", 0, 60), stay("c", 30, 90)], [BOX]).keys() == {"a", "b"}


def test_what_is_too_high_takes_the_shelf_above_out_and_nothing_stands_on_that():
    tall = stay("tall", 0, 60, height=250.0)
    found = shelved([tall, stay("beside", 0, 60), stay("late", 30, 50), stay("after", 60, 90)], [BOX, BOX])
    assert found["tall"] == range(2) and found["beside"] == range(1, 2)
    assert "late" not in found and found["after"] in (range(1), range(1, 2))
    assert not fits(tall.size, [BOX]) and fits(tall.size, [BOX, BOX])
    assert fits(Size(300, 400, 100), [BOX]) and not fits(Size(310, 310, 100), [BOX])


def test_a_tier_goes_back_to_the_shelf_it_came_from():
    stays = [stay("x", 0, 200), stay("first", 10, 20, what="tier"), stay("second", 50, 60, what="tier")]
    stays.append(stay("y", 15, 45, width=400.0))
    found = shelved(stays, [BOX, BOX])
    assert found["first"] == found["second"]


def test_a_cake_is_boxed_when_it_leaves_and_is_cold_until_then():
    late = ordered(tier(203)).model_copy(update={"due": datetime(2026, 12, 5, 8)})
    steps = clocked(late)[2].steps
    assert steps["cake_box"].end == steps["cake_drive"].start == datetime(2026, 12, 5, 7)
    firm = next(one for one in steps.values() if one.kind == "firm_final")
    assert firm.start.day == 4 and firm.end == steps["cake_chill_whole"].start
    assert steps["cake_chill_whole"].end == steps["cake_box"].start


def test_one_tier_has_no_name_in_its_steps_unless_it_has_one_of_its_own():
    def names(**own):
        return {one.of for one in clocked(ordered(tier(203, **own)))[2].steps.values() if one.tier}

    assert names() == {""} and names(name="Skep") == {"Skep"}
    assert "Crumb coat" in {one.name for one in clocked(ordered(tier(203)))[2].steps.values()}


def test_an_order_without_a_due_hour_has_no_clock():
    found = document(tier(203))
    with pytest.raises(FileError, match="set the day and hour"):
        clock_of(found, plan_document(found))


def test_a_working_day_ends_an_hour_after_it_begins_at_least():
    with pytest.raises(ValueError, match="at least an hour after"):
        WorkingDay(begins_min=600, ends_min=650)
    with pytest.raises(ValueError, match="hours on one day at least"):
        Hands(week=(None,) * 7)


def test_figures_of_a_clock_have_lasting_ids():
    found, _, clock, _ = clocked(ORDERS["three, driven"]())
    ids = [one.id for one in figures(clock)]
    assert len(set(ids)) == len(ids) and all(one.startswith("clock.") for one in ids)
    other = clocked(found.model_copy(update={"title": "Another"}))[2]
    assert [one.id for one in figures(other)] == ids


def test_braces_in_a_tiers_name_are_only_letters():
    found, kitchen = ordered(tier(203, name="{weight}"), tier(152)), Kitchen(pairs(1, 10, 11))
    plan = plan_document(found)
    said = clock_of(found, plan, DUE - timedelta(hours=1), kitchen)
    assert {"clock.late", "clock.long"} <= {one.code for one in said.checks}
    text = " ".join(
        page.extract_text() for page in PdfReader(io.BytesIO(write_day_sheet(found, plan, kitchen=kitchen))).pages
    )
    assert "Crumb coat, {weight}" in " ".join(text.split())


def test_how_a_tier_looks_follows_what_was_done_to_it():
    steps = clocked(ordered(tier(203, cover=DrapeCover()), tier(152)))[2].steps
    own = {one.kind: one.look for one in steps.values() if one.tier == 1}
    assert (own["cool"], own["chill_cake"], own["final_coat"]) == ("warm", "cold", "soft")
    assert (own["firm_final"], own["cover"], own["chill_cover"]) == ("firm", "covered", "covered")
    assert {one.look for one in steps.values() if one.on == "cake"} == {"covered"}
    assert {one.look for one in steps.values() if one.on == "bowl"} == {"soft"}


def test_the_clock_of_thirty_tiers_costs_little_more_than_thirty_times_one():
    def cost(count):
        found = ordered(*[tier(150)] * count)
        plan = plan_document(found)
        clock_of(found, plan)
        return calls_of(lambda: clock_of(found, plan))

    three, thirty = cost(3), cost(30)
    assert three <= 7000, "Python calls of three tiers: 6,966, of which shelves and the limits of a kitchen take 900"
    assert thirty <= 36 * three, "what is scheduled again and again for waits that last too long: 35 times three"
