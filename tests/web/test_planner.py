"""What is planned at once, what a worker plans, and what this process learns of it."""

import gc
import pickle
import threading
import time
import zlib

import pytest
from sqlalchemy import text

from amber_spread.core.design.builds import CarvedBuild, JoinedBuild
from amber_spread.core.design.design import Layers, Tier
from amber_spread.core.design.effort import bodies_of
from amber_spread.core.design.finishes import DrapeCover, FreehandFinal
from amber_spread.core.design.shapes import RoundShape, SquareShape
from amber_spread.core.design.solids import BallSolid, BoxSolid
from amber_spread.core.document import FileError, carved_bodies, plan_document
from amber_spread.core.kernel.caching import forget
from amber_spread.core.stock.kit import Kit, Tin
from amber_spread.jobs.bodies import bodies_key
from amber_spread.jobs.calls import run_call
from amber_spread.jobs.designs import Inputs, Known, unpack, with_bodies, written
from amber_spread.jobs.not_ready import OutOfBudget
from amber_spread.jobs.queue import Owner
from amber_spread.jobs.warm import set_aside, short_collections
from amber_spread.store.bodies import BodyStore
from amber_spread.store.notices import Listener
from amber_spread.web.planner import SOON_MS, Planner
from tests.clients import in_a_loop
from tests.designs import alike, document

STONE = CarvedBuild(points_mm=((0, 0), (200, 0), (200, 61), (90, 97), (0, 60)))


@pytest.fixture
def planner(book):
    found = Planner(Listener(book.engine))
    yield found
    found.stop()


@pytest.fixture
def calls(planner, monkeypatch):
    """The jobs a planner asks for."""
    found, begin = [], planner._jobs.begin
    monkeypatch.setattr(
        planner._jobs, "begin", lambda owner, call, *heard: found.append(call) or begin(owner, call, *heard)
    )
    return found


def test_a_carved_body_is_computed_once_by_a_worker_and_taken_over_here(planner):
    stone, blush = (document(Tier(tin_diameter_mm=207, build=STONE), title=title) for title in ("A", "B"))
    (body,) = carved_bodies(stone)
    assert "distances" not in body.kept
    first = planner.plan(stone)
    (kept,) = carved_bodies(stone)
    assert {"distances", "climbed"} <= kept.kept.keys()
    # With what is known of it, nothing is computed again.
    again = with_bodies(written, Inputs(blush), zlib.compress(pickle.dumps(Known((kept,), {}))))
    assert again == ((first.model_dump_json(), False), None)


def test_a_restart_or_another_process_computes_no_body_twice(planner, calls, book, monkeypatch):
    stone = document(Tier(tin_diameter_mm=205, build=STONE))
    first = planner.plan(stone)
    key = bodies_key(bodies_of(stone.design, stone.practice))
    entry = BodyStore(book.engine).get(key)
    forget()
    known = unpack(entry)
    assert {"distances", "climbed", "tins"} <= known.bodies[0].kept.keys()
    outcome, result, learnt = run_call(calls[0].pickled(), entry)
    assert (outcome, learnt) == ("done", None)
    again, changed = pickle.loads(result)
    assert alike(again, first) and not changed
    # Another version of the program computes it again.
    monkeypatch.setattr("amber_spread.jobs.program.program_version", lambda: "another")
    assert bodies_key(bodies_of(stone.design, stone.practice)) != key


def test_a_body_is_cached_too_when_its_cake_cannot_be_made(planner, calls, book):
    """The same drawing fails in an instant the next time, and with a thinner coat its plan begins at what is known."""
    thick = FreehandFinal(side_mm=24, top_mm=24)
    refused = document(Tier(tin_diameter_mm=208, build=STONE, final=thick, cover=DrapeCover(thickness_mm=8)))
    with pytest.raises(FileError) as first:
        planner.plan(refused)
    entry = BodyStore(book.engine).get(bodies_key(bodies_of(refused.design, refused.practice)))
    assert "distances" in unpack(entry).bodies[0].kept
    outcome, result, learnt = run_call(calls[0].pickled(), entry)
    (again, changed) = pickle.loads(result)
    assert (outcome, changed, learnt) == ("done", False, None) and again.complaints == first.value.complaints
    # The next time this process plans it itself, with what it took over.
    with pytest.raises(FileError):
        planner.plan(refused)
    assert len(calls) == 1


def test_a_body_that_is_damaged_in_the_database_is_computed_again(planner, book):
    stone = document(Tier(tin_diameter_mm=206, build=STONE))
    planner.plan(stone)
    with book.engine.begin() as connection:
        connection.execute(text("update cached_bodies set content = 'no pickle'"))
    other = Planner(Listener(book.engine))
    assert other._bodies.load(bodies_of(stone.design, stone.practice), changed=False).bodies == ()
    forget()
    assert other.plan(document(Tier(tin_diameter_mm=206, build=STONE, name="Stone"))).tiers[0].carving
    assert other._bodies.load(bodies_of(stone.design, stone.practice), changed=False).bodies
    other.stop()


def test_without_a_database_only_quick_cakes_are_planned():
    alone = Planner(None)
    assert alone.plan(document(Tier(tin_diameter_mm=206))).tiers
    with pytest.raises(OutOfBudget):
        alone.plan(document(Tier(tin_diameter_mm=206, build=STONE)))


def test_the_least_recently_used_bodies_are_dropped(book):
    store = BodyStore(book.engine, max_entries=3)
    for number in range(4):
        store.put(str(number), bytes([number]))
        store.get("0")
    assert [store.get(str(number)) for number in range(4)] == [b"\0", None, b"\2", b"\3"]
    store.put("0", b"new")
    assert store.get("0") == b"new"


def test_what_solids_are_joined_to_is_made_by_a_worker_and_never_here(planner, monkeypatch):
    """Joining many takes long, and holds up whoever else is in the process that does it."""
    parts = (BoxSolid(wide_mm=203), BallSolid(z_mm=41), BoxSolid(does="cut", x_mm=60, z_mm=50, wide_mm=44))
    build = JoinedBuild(solids=parts)
    first = planner.plan(document(Tier(tin_diameter_mm=214, build=build)))
    with monkeypatch.context() as patched:
        patched.setattr("amber_spread.core.design.builds.built_of", lambda _: pytest.fail("joined here"))
        thicker = FreehandFinal(side_mm=7, top_mm=7)
        again = planner.plan(document(Tier(tin_diameter_mm=214, build=build, name="Tower")))
        other = planner.plan(document(Tier(tin_diameter_mm=214, build=build, final=thicker)))
        fewer = Tier(tin_diameter_mm=214, build=build, layers=Layers(count=2))
        assert planner.plan(document(fewer)).tiers[0].layers.count.value == 2
    assert again.tiers[0].carving.surface == first.tiers[0].carving.surface
    assert other.tiers[0].coats.final.volume.value > first.tiers[0].coats.final.volume.value


def test_another_colour_of_what_was_carved_is_planned_here_and_another_view_is_not(planner, calls):
    view = ((0, 0), (200, 0), (200, 63), (90, 99), (0, 60))
    build = CarvedBuild(points_mm=view)
    plain = document(Tier(tin_diameter_mm=209, build=build))
    first = planner.plan(plain)
    assert len(calls) == 1

    coloured = document(Tier(tin_diameter_mm=209, build=build, final=FreehandFinal(colour="blush"), name="Stone"))
    there = planner.plan(coloured)
    assert len(calls) == 1
    assert there.tiers[0].coats.final.weight == first.tiers[0].coats.final.weight
    for other in (
        Tier(tin_diameter_mm=209, build=build, final=FreehandFinal(side_mm=7, top_mm=7)),
        Tier(tin_diameter_mm=210, build=build),
        Tier(tin_diameter_mm=209, build=build.model_copy(update={"rounded": 0.9})),
        Tier(tin_diameter_mm=209, build=build, cover=DrapeCover()),
    ):
        count = len(calls)
        planner.plan(document(other))
        assert len(calls) == count + 1


def test_a_kind_of_cake_that_proves_slow_is_planned_by_a_worker_for_a_while(planner, monkeypatch):
    plain, square = (document(Tier(tin_diameter_mm=200, shape=shape)) for shape in (RoundShape(), SquareShape()))
    assert planner.soon(plain, None) and planner.soon(square, None)
    real = plan_document

    def slow(*given):
        until = time.thread_time() + 0.6
        while time.thread_time() < until:
            pass
        return real(*given)

    def ran(work):
        with monkeypatch.context() as patched:
            patched.setattr("amber_spread.web.planner.plan_document", work)
            planner.plan(plain)

    # One slow run may be a cold start, and a quick one after it shows that it was.
    for work in (slow, real, slow):
        ran(work)
        assert planner.soon(plain, None)
    monkeypatch.setattr("amber_spread.web.planner.SLOW_FOR_S", 0.4)
    ran(slow)
    assert not planner.soon(plain, None) and planner.soon(square, None)
    # It is tried again later; if it is still slow, once is enough.
    time.sleep(0.5)
    assert planner.soon(plain, None)
    ran(slow)
    assert not planner.soon(plain, None)


def test_a_busy_moment_makes_no_kind_of_cake_a_job(planner, monkeypatch):
    """With a hundred people at once, two slow runs sent everybody's plans to the queue for a minute: 8 a second of 100."""
    monkeypatch.setattr("amber_spread.web.planner.slowness", lambda: 2.0)
    plain = document(Tier(tin_diameter_mm=200))
    kind = planner._quick_kind(plain, None)
    for _ in range(5):
        planner._measured(kind, 3.0 * SOON_MS)
    assert planner.soon(plain, None)
    planner._measured(kind, 1.0)
    for _ in range(5):
        planner._measured(kind, 3.0 * SOON_MS)
    assert planner.soon(plain, None)
    for _ in range(6):
        planner._measured(kind, 4.0 * SOON_MS)
    assert not planner.soon(plain, None)


def test_other_tins_for_what_was_carved_are_chosen_by_a_worker(planner):
    stone, kit = (
        document(Tier(tin_diameter_mm=204, build=STONE)),
        Kit(tins=(Tin(shape="round", across_mm=200, depth_mm=75),)),
    )
    planner.plan(stone)
    assert planner.soon(stone, None) and not planner.soon(stone, kit)
    planner.plan(stone, kit)
    assert planner.soon(stone, kit)


class Waiting:
    """A caller who goes on waiting."""

    owner = Owner("somebody")

    async def is_gone(self):
        return False


def test_only_short_work_runs_on_the_event_loop(planner):
    plain, stone = document(Tier(tin_diameter_mm=200)), document(Tier(tin_diameter_mm=206, build=STONE))
    planner.plan(stone)

    def on_the_loop(cake, longer=False):
        def work(*inputs):
            return threading.current_thread(), plan_document(*inputs)

        async def ask():
            return threading.current_thread(), await planner.at_once(Waiting(), work, Inputs(cake), longer)

        loop, (worked, planned) = in_a_loop(ask())
        assert alike(planned, plan_document(cake))
        return worked is loop

    assert on_the_loop(plain)
    assert not on_the_loop(plain, longer=True)
    assert not on_the_loop(stone)


def test_what_survives_a_full_collection_is_not_looked_at_again():
    before, frozen = gc.get_threshold(), gc.get_freeze_count()
    try:
        short_collections()
        caches = [[number] for number in range(50_000)]
        gc.collect()
        assert gc.get_freeze_count() > frozen + len(caches)
        assert len(gc.get_objects(generation=2)) < 1000
        # A cycle made since is found as before.
        cycle = []
        cycle.append(cycle)
        del cycle
        assert gc.collect() >= 1
    finally:
        gc.callbacks.remove(set_aside)
        gc.unfreeze()
        gc.set_threshold(*before)
