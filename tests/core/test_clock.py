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

from amber_spread.core.clock import STEP_KINDS, clock_of, steps_of
from amber_spread.core.clock.backwards import DAY_MIN, Hours, backwards, blocks_of
from amber_spread.core.clock.cake_steps import MIXING
from amber_spread.core.clock.step_kinds import StepKind, Wait
from amber_spread.core.clock.steps import Step
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
from amber_spread.core.design.practice import Practice
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
ONE_OF_TWO = ({"coat soft", "coat hard"}, {"warm", "cool", "cold"})
"""States that rule each other out."""


def clocked(found, **usual):
    """An order with its plan and its clock."""
    practice = found.practice.model_copy(update=usual)
    found = found.model_copy(update={"practice": practice, "due": found.due or DUE})
    plan = plan_document(found)
    return found, plan, clock_of(found, plan)


def ordered(*tiers, stacking=None, **parts):
    found = document(*tiers, due=DUE, **parts)
    design = found.design.model_copy(update={"stacking": stacking or Stacking()})
    return found.model_copy(update={"design": design})


def works(step):
    return step.spans


def minutes(span):
    return (span[1] - span[0]).total_seconds() / 60


def inspect(found, plan, clock):
    """Find every way in which a clock could not be kept."""
    steps, usual = clock.steps, found.practice
    assert list(steps) and max(one.end for one in steps.values()) <= clock.ready
    assert clock.ready == found.due - timedelta(minutes=usual.ready_before_min)
    assert clock.begins == min(one.start for one in steps.values())
    hands, oven = {}, []
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
            assert 1 <= one.hand <= usual.hands
            hands.setdefault(one.hand, []).extend(works(one))
            if one.place not in ("car", "table"):
                _within_hours(steps, id, usual)
        if one.place == "oven":
            oven.extend(works(one))
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
    for busy in (*hands.values(), oven):
        busy.sort()
        for (_, ends), (begins, _) in zip(busy, busy[1:], strict=False):
            assert ends <= begins, "two things at once"
    assert clock.hands_on.value == pytest.approx(sum(one.hands.value for one in steps.values() if one.hands))
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


def _within_hours(steps, id, usual):
    """Work is done within working hours, unless what must be done at a stretch is longer than the day or ends with the
    drive.
    """
    if "cake_drive" in steps and steps["cake_drive"].follows == [id]:
        assert steps[id].kind == "box"
        return
    length = usual.day_ends_min - usual.day_begins_min
    for begins, ends in works(steps[id]):
        midnight = begins.replace(hour=0, minute=0)
        day = [midnight + timedelta(minutes=one) for one in (usual.day_begins_min, usual.day_ends_min)]
        assert (day[0] <= begins and ends <= day[1]) or sum(_stretch(steps, id)) > length, id


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
    inspect(*clocked(ORDERS[name](), hands=hands))


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


@settings(max_examples=25, deadline=None)
@given(
    design=designs.quick_designs,
    hands=st.integers(1, 4),
    begins=st.integers(0, 20),
    long=st.integers(1, 14),
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
def test_a_clock_of_any_order_can_be_kept(design, hands, begins, long, hour, ready, cold):
    ends = min(24, begins + long) * 60
    found = document(due=datetime(2026, 12, 5, hour)).model_copy(update={"design": design})
    usual = {"hands": hands, "day_begins_min": begins * 60.0, "day_ends_min": float(ends), "ready_before_min": ready}
    try:
        made = clocked(found, **usual, **cold)
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
DAY = Hours(8 * 60, 18 * 60, 1)


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
    return backwards(blocks_of(steps), ready, hours)


def spans(steps, hours=DAY, ready=NOON):
    return {id: (one.whole.start - ready, one.whole.end - ready) for id, one in scheduled(steps, ready, hours).items()}


def test_steps_are_counted_back_from_the_end():
    chill = Wait(30, 30, 60, "firm")
    found = spans([step("coat", 10), step("chill", 30, "coat", wait=chill), step("cover", 20, "chill")])
    assert found == {"coat": (-60, -50), "chill": (-50, -20), "cover": (-20, 0)}


def test_one_pair_of_hands_does_one_thing_and_two_do_two():
    steps = [step("one", 30), step("other", 20)]
    assert spans(steps) == {"other": (-20, 0), "one": (-50, -20)}
    assert spans(steps, DAY._replace(hands=2)) == {"other": (-20, 0), "one": (-30, 0)}


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
    found = spans(bake, DAY._replace(hands=2))
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
    found, busy = scheduled(steps, hours=DAY._replace(hands=hands)), {}
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


def checks(found, now=None):
    plan = plan_document(found)
    return {one.code: one for one in clock_of(found, plan, now).checks if one.severity != "caution"}


def test_what_is_late_is_said_and_so_is_a_due_hour_that_has_passed():
    found = ORDERS["three, driven"]()
    begins = clocked(found)[2].begins
    assert "clock.late" not in checks(found, begins)
    late = checks(found, begins + timedelta(minutes=50))["clock.late"]
    assert late.values["late"].value == 50 and f"{begins:%A}" in late.text and late.subject == "clock"
    assert checks(found, DUE).keys() == {"clock.past"}


def test_work_longer_than_the_day_is_said():
    short = Practice(day_begins_min=600, day_ends_min=660)
    said = checks(ordered(tier(254), practice=short))["clock.long"]
    assert "Mix the batter" in said.text and said.values["work"].value > said.values["day"].value == 60
    assert "clock.long" not in checks(ordered(tier(254)))


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
        Practice(day_begins_min=600, day_ends_min=650)


def test_figures_of_a_clock_have_lasting_ids():
    found, plan, clock = clocked(ORDERS["three, driven"]())
    ids = [one.id for one in figures(clock)]
    assert len(set(ids)) == len(ids) and all(one.startswith("clock.") for one in ids)
    other = clocked(found.model_copy(update={"title": "Another"}))[2]
    assert [one.id for one in figures(other)] == ids


def test_braces_in_a_tiers_name_are_only_letters():
    found = ordered(tier(203, name="{weight}"), tier(152), practice=Practice(day_begins_min=600, day_ends_min=661))
    plan = plan_document(found)
    said = clock_of(found, plan, DUE - timedelta(hours=1))
    assert {"clock.late", "clock.long"} <= {one.code for one in said.checks}
    text = " ".join(page.extract_text() for page in PdfReader(io.BytesIO(write_day_sheet(found, plan))).pages)
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
    assert three <= 6400, "Python calls of three tiers: 6,027"
    assert thirty <= 35 * three, "what is scheduled again and again for waits that last too long: 34 times three"
