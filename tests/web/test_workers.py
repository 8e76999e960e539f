"""Work elsewhere: what comes of it, and when it is given up."""

import pickle
import time
from functools import partial
from multiprocessing import get_context
from operator import add

import pytest
from sqlalchemy import text

from amber_spread.core.design.builds import CarvedBuild, JoinedBuild
from amber_spread.core.design.design import Layers, Tier
from amber_spread.core.design.effort import bodies_of
from amber_spread.core.design.finishes import DrapeCover, FreehandFinal
from amber_spread.core.design.shapes import RoundShape, SquareShape
from amber_spread.core.design.solids import BallSolid, BoxSolid
from amber_spread.core.document import FileError, carved_bodies, plan_document, read_document
from amber_spread.core.plan import forget
from amber_spread.core.stock.kit import Kit, Tin
from amber_spread.store.bodies import BodyStore
from amber_spread.store.orders import OrderBook
from amber_spread.web.elsewhere import Known, Wanted, tier_levels, width_of, with_bodies, written
from amber_spread.web.planner import Planner
from amber_spread.web.workers import FAILED, MEGABYTE, Unwanted
from tests.designs import document

STONE = CarvedBuild(points_mm=((0, 0), (200, 0), (200, 61), (90, 97), (0, 60)))


def test_work_is_done_elsewhere_and_what_it_raises_is_raised_here(workers):
    assert workers.begin(add, 30, 2, 3).result() == 5
    assert workers.begin(sorted, 30, [2, 3, 1], reverse=True).result() == [3, 2, 1]
    with pytest.raises(FileError):
        workers.begin(read_document, 30, b"no design file").result()


READ = """
(lambda before: ([work(*given) for work, given in map(__import__("pickle").loads, all)],
                 set(__import__("sys").modules) - before)[1])(set(__import__("sys").modules))
"""


def test_a_worker_has_read_what_it_works_with_and_nothing_of_the_web(workers):
    """Each has a process of its own, and would read it anew: that takes longer than some of its work."""
    wanted, carved = Wanted(build=JoinedBuild(solids=(BoxSolid(),))), document(Tier(tin_diameter_mm=207, build=STONE))
    work = [(width_of, (wanted,)), (with_bodies, (written, Known((), {}), carved, None, None))]
    work.append((with_bodies, (partial(tier_levels, 0), Known((), {}), carved, None, None)))
    assert workers.begin(eval, 60, READ.strip(), {"all": [pickle.dumps(one) for one in work]}).result() == set()


def test_work_that_takes_too_long_or_too_much_is_given_up(workers):
    began = time.monotonic()
    with pytest.raises(FAILED):
        workers.begin(time.sleep, 1.5, 60).result()
    with pytest.raises(FAILED):
        workers.begin(bytearray, 30, 1500 * MEGABYTE).result()
    assert time.monotonic() - began < 30
    assert workers.begin(add, 30, 1, 1).result() == 2


def test_whatever_is_at_work_is_ended_at_once(workers):
    assert workers.begin(add, 30, 1, 1).result() == 2
    under_way = workers.begin(time.sleep, 60, 60)
    time.sleep(0.3)
    began = time.monotonic()
    workers.stop()
    assert time.monotonic() - began < 4
    with pytest.raises(BaseException):  # noqa: B017  (each way has its own word for it)
        under_way.result(timeout=10)


def test_work_needs_no_lock_that_processes_share(workers, monkeypatch):
    def none(*_, **__):
        raise PermissionError("no locks here")

    monkeypatch.setattr("multiprocessing.synchronize.SemLock.__init__", none)
    with pytest.raises(PermissionError):
        get_context("forkserver").Lock()
    assert workers.begin(add, 30, 2, 3).result() == 5


def test_a_carved_body_is_worked_out_elsewhere_once_and_kept_here(workers):
    stone, blush = (document(Tier(tin_diameter_mm=207, build=STONE), title=title) for title in ("A", "B"))
    (body,) = carved_bodies(stone)
    assert "distances" not in body.kept
    planner = Planner(workers)
    first = planner.plan(stone)
    (kept,) = carved_bodies(stone)
    assert {"distances", "climbed"} <= kept.kept.keys()
    # It is handed along, so that nothing is worked out anew: none comes back.
    again = workers.begin(with_bodies, 30, written, Known((kept,), {}), blush, None, None).result()
    assert again.bodies == (kept.key,)
    assert first.model_dump_json() == again.found


def test_a_restart_or_another_process_computes_no_body_twice(workers, book, monkeypatch):
    store, stone = BodyStore(book.engine), document(Tier(tin_diameter_mm=205, build=STONE))
    before = Planner(workers, store)
    first = before.plan(stone)
    before.bodies.stop()
    forget()
    kept = []
    monkeypatch.setattr(store, "put", lambda *args: kept.append(args))
    planner = Planner(workers, store)
    given = bodies_of(stone.design, stone.practice)
    (body,) = planner.bodies.load(given).bodies
    assert {"distances", "climbed", "tins"} <= body.kept.keys()
    assert planner.plan(stone) == first
    planner.bodies.stop()
    assert kept == []
    # Another version of the program computes it again.
    monkeypatch.setattr("amber_spread.web.body_cache.program_version", lambda: "another")
    assert Planner(workers, store).bodies.load(given).bodies == ()


def test_a_body_that_the_database_cannot_store_or_read_is_computed_again(workers, book):
    stone = document(Tier(tin_diameter_mm=206, build=STONE))
    away = OrderBook.at("postgresql+psycopg://nobody@127.0.0.1:1/nothing").engine
    assert Planner(workers, BodyStore(away)).plan(stone).tiers[0].carving
    store = BodyStore(book.engine)
    planner = Planner(workers, store)
    planner.plan(stone)
    planner.bodies.stop()
    with book.engine.begin() as connection:
        connection.execute(text("update cached_bodies set content = 'no pickle'"))
    assert Planner(workers, store).bodies.load(bodies_of(stone.design, stone.practice)).bodies == ()


def test_the_least_recently_used_bodies_are_dropped(book):
    store = BodyStore(book.engine, max_entries=3)
    for number in range(4):
        store.put(str(number), bytes([number]))
        store.get("0")
    assert [store.get(str(number)) for number in range(4)] == [b"\0", None, b"\2", b"\3"]
    store.put("0", b"new")
    assert store.get("0") == b"new"


def test_what_solids_are_joined_to_is_made_elsewhere_and_never_here(workers, monkeypatch):
    """Joining many takes long, and holds up whoever else is in the process that does it."""
    parts = (BoxSolid(wide_mm=203), BallSolid(z_mm=41), BoxSolid(does="cut", x_mm=60, z_mm=50, wide_mm=44))
    build, planner = JoinedBuild(solids=parts), Planner(workers)
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


def test_another_colour_of_what_was_carved_is_planned_here_and_another_view_is_not(workers, monkeypatch):
    view = ((0, 0), (200, 0), (200, 63), (90, 99), (0, 60))
    build = CarvedBuild(points_mm=view)
    plain = document(Tier(tin_diameter_mm=209, build=build))
    planner, sent = Planner(workers), []
    begin = workers.begin_for
    monkeypatch.setattr(workers, "begin_for", lambda *args: sent.append(args) or begin(*args))
    first = planner.plan(plain)
    assert len(sent) == 1

    coloured = document(Tier(tin_diameter_mm=209, build=build, final=FreehandFinal(colour="blush"), name="Stone"))
    there = planner.plan(coloured)
    assert len(sent) == 1
    assert there.tiers[0].coats.final.weight == first.tiers[0].coats.final.weight
    for other in (
        Tier(tin_diameter_mm=209, build=build, final=FreehandFinal(side_mm=7, top_mm=7)),
        Tier(tin_diameter_mm=210, build=build),
        Tier(tin_diameter_mm=209, build=build.model_copy(update={"rounded": 0.9})),
        Tier(tin_diameter_mm=209, build=build, cover=DrapeCover()),
    ):
        count = len(sent)
        planner.plan(document(other))
        assert len(sent) == count + 1


def test_a_kind_of_cake_that_proves_slow_is_worked_on_elsewhere_the_next_time(workers, monkeypatch):
    planner = Planner(workers)
    plain, square = (document(Tier(tin_diameter_mm=200, shape=shape)) for shape in (RoundShape(), SquareShape()))
    assert planner.soon(plain, None) and planner.soon(square, None)
    real = plan_document

    def slow(*given):
        until = time.thread_time() + 0.1
        while time.thread_time() < until:
            pass
        return real(*given)

    monkeypatch.setattr("amber_spread.web.planner.plan_document", slow)
    planner.plan(plain)
    assert not planner.soon(plain, None) and planner.soon(square, None)


def test_other_tins_for_what_was_carved_are_chosen_elsewhere(workers):
    stone, kit = (
        document(Tier(tin_diameter_mm=204, build=STONE)),
        Kit(tins=(Tin(shape="round", across_mm=200, depth_mm=75),)),
    )
    planner = Planner(workers)
    planner.plan(stone)
    assert planner.soon(stone, None) and not planner.soon(stone, kit)
    planner.plan(stone, kit)
    assert planner.soon(stone, kit)


def test_work_that_is_given_up_ends_at_once_and_frees_its_place(workers):
    slow = [workers.begin(time.sleep, 30, 20) for _ in range(4)]
    time.sleep(0.4)
    began = time.perf_counter()
    for one in slow:
        workers.give_up(one)
    assert workers.begin(add, 30, 2, 3).result() == 5
    assert time.perf_counter() - began < 5
    ends = [one.exception() if not one.cancelled() else None for one in slow]
    assert sum(isinstance(end, Unwanted) for end in ends) == 2 and ends.count(None) == 2
