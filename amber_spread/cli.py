"""The commands behind ./amber. Each imports what it needs: a worker, for one, needs little."""

import argparse
import logging
import sys
from collections.abc import Callable
from functools import partial
from pathlib import Path

from amber_spread.stopping import ends_at_once


def main(arguments: list[str] | None = None) -> int:
    """Run one command; returns the exit status: 0 done, 2 when what was given cannot be used."""
    parser = argparse.ArgumentParser(prog="amber", description="Amber Spread, a planner for decorated cakes.")
    commands = parser.add_subparsers(dest="command", required=True)
    plan = commands.add_parser("plan", help="print the plan of a design file")
    plan.add_argument("file", help="a design file, or - for standard input")
    plan.add_argument("--figures", action="store_true", help="one line of JSON a figure, instead of the whole plan")
    papers = commands.add_parser("papers", help="write the templates and amounts of a design file")
    papers.add_argument("file", help="a design file, or - for standard input")
    papers.add_argument("--out", default=".", help="the folder to write them in (this one)")
    papers.add_argument("--paper", choices=("a4", "letter"), default="a4", help="what the PDF is printed on (a4)")
    for name, words in (("demo", "serve, with a made-up week of orders"), ("start", "serve")):
        serving = commands.add_parser(name, help=words)
        serving.add_argument(
            "--port", type=_port, help="the port to serve on (8765, or the next free one); 0 is any free one"
        )
        serving.add_argument("--workers", type=_workers, default=1, help="how many processes serve (1)")
        serving.add_argument(
            "--jobs",
            type=_jobs,
            default=8,
            help="how many long jobs run here at once (8); 0 leaves them to ./amber worker",
        )
    working = commands.add_parser("worker", help="run the long jobs of a server on this or another machine")
    working.add_argument("--jobs", type=_jobs, default=8, help="how many long jobs run here at once (8)")
    working.add_argument("--with-parent", action="store_true", help="stop at the end of standard input")
    commands.add_parser("bench", help="print how long planning and an edit on screen take")
    commands.add_parser("shots", help="take the screenshots of docs/ again from the demo data")
    mutants = commands.add_parser("mutants", help="put small faults into the core, and print the share the tests find")
    mutants.add_argument(
        "files", nargs="*", help="files of the core, such as cover.py; all of them where none is named"
    )
    mutants.add_argument("--sample", type=int, default=60, help="how many faults to try (60)")
    mutants.add_argument("--seed", type=int, default=20261126, help="another number draws another sample (20261126)")
    for name, words in (("backup", "write everything to an archive"), ("restore", "bring everything back from one")):
        kept = commands.add_parser(name, help=words)
        kept.add_argument("file", help="the archive, a ZIP file")
        kept.add_argument("--over", action="store_true", help="write over what is there")
    crashes = commands.add_parser(
        "crashtest", help="kill the server and its database over and over; nothing may be lost"
    )
    crashes.add_argument("--rounds", type=_rounds, default=20, help="how often (20)")
    fuzzed = commands.add_parser("fuzz", help="send the API what nobody should")
    fuzzed.add_argument("--requests", type=_rounds, default=5000, help="how many requests (5000)")
    fuzzed.add_argument("--seed", type=int, help="the seed of an earlier run, to have the same requests again")
    fuzzed.add_argument("--clients", type=_workers, default=1, help="how many send at once (1)")
    loaded = commands.add_parser("load", help="let many people edit at once, and print how long each waits")
    loaded.add_argument("--planners", type=_rounds, default=100, help="how many people (100)")
    loaded.add_argument("--think", type=float, default=1.0, help="how long each rests between edits, s (1)")
    loaded.add_argument("--seconds", type=_rounds, default=10, help="for how long (10)")
    loaded.add_argument("--workers", type=_workers, default=1, help="how many processes serve (1)")
    commands.add_parser("schemas", help="write the API's and the design file's schema into the tree")
    chosen = parser.parse_args(arguments)
    with ends_at_once():
        run = _command(chosen)
    return run()


def _command(chosen: argparse.Namespace) -> Callable[[], int]:
    """What a command runs, with all it needs imported."""
    if chosen.command == "plan":
        from amber_spread.design_files import print_plan

        return partial(print_plan, chosen.file, chosen.figures)
    if chosen.command == "papers":
        from amber_spread.design_files import write_papers

        return partial(write_papers, chosen.file, Path(chosen.out), chosen.paper)
    if chosen.command == "worker":
        from amber_spread.jobs.worker import run_worker

        return _serving(partial(run_worker, max(1, chosen.jobs), chosen.with_parent))
    if chosen.command in ("demo", "start"):
        from amber_spread.serve import serve

        demo = chosen.command == "demo"
        return _serving(partial(serve, demo=demo, port=chosen.port, workers=chosen.workers, jobs=chosen.jobs))
    if chosen.command == "bench":
        from amber_spread.speed.bench import bench

        return bench
    if chosen.command == "mutants":
        from amber_spread.mutants import run_mutants

        return partial(run_mutants, chosen.files, chosen.sample, chosen.seed)
    if chosen.command in ("backup", "restore"):
        from amber_spread import safety

        work = safety.backup if chosen.command == "backup" else safety.restore
        return partial(work, Path(chosen.file), chosen.over)
    if chosen.command == "crashtest":
        from amber_spread.crashtest import run_crashtest

        return partial(run_crashtest, chosen.rounds)
    if chosen.command == "fuzz":
        from amber_spread.fuzz import run_fuzz

        return partial(run_fuzz, chosen.requests, chosen.seed, chosen.clients)
    if chosen.command == "load":
        from amber_spread.speed.load import run_load

        return partial(run_load, chosen.planners, chosen.think, chosen.seconds, chosen.workers)
    if chosen.command == "shots":
        from amber_spread.shots import take_shots

        return take_shots
    from amber_spread.schemas import write_schemas

    return write_schemas


def _serving(run: Callable[[], int]) -> Callable[[], int]:
    """The same with its warnings on standard error, and a word where the database's address is none."""
    from sqlalchemy.exc import ArgumentError

    from amber_spread.store.engine import NO_ADDRESS

    def served() -> int:
        logging.basicConfig(level=logging.WARNING, format="%(asctime)s %(name)s: %(message)s")
        try:
            return run()
        except ArgumentError:
            print(NO_ADDRESS, file=sys.stderr)
            return 2

    return served


def _port(text: str) -> int:
    return _whole_number(text, 0, 65535, "a port")


def _workers(text: str) -> int:
    return _whole_number(text, 1, 32, "the number of processes")


def _jobs(text: str) -> int:
    return _whole_number(text, 0, 64, "the number of jobs")


def _rounds(text: str) -> int:
    return _whole_number(text, 1, 10_000_000, "how many")


def _whole_number(text: str, low: int, high: int, what: str) -> int:
    """A whole number as it was typed. Raises ArgumentTypeError, saying what would be accepted."""
    if not text.isdecimal() or not low <= int(text) <= high:
        raise argparse.ArgumentTypeError(f"{what} is a whole number from {low} to {high}, not “{text}”")
    return int(text)
