"""The commands behind ./amber."""

import argparse
import json
import sys
from pathlib import Path
from typing import Literal

from amber_spread.core.document import Document, FileError, plan_document, read_document
from amber_spread.core.kernel.limits import MAX_FILE_BYTES
from amber_spread.core.kernel.naming import figures
from amber_spread.core.plan import Plan


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
            "--port", type=_port, default=None, help="the port to serve on (8765, or the next free one)"
        )
        serving.add_argument("--workers", type=_workers, default=1, help="how many processes serve (1)")
    commands.add_parser("bench", help="print how long planning and an edit on screen take")
    commands.add_parser("shots", help="take the screenshots of docs/ again from the demo data")
    mutants = commands.add_parser("mutants", help="put small faults into the core, and print the share the tests find")
    mutants.add_argument(
        "files", nargs="*", help="files of the core, such as cover.py; all of them where none is named"
    )
    mutants.add_argument("--sample", type=int, default=40, help="how many faults to try (40)")
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
    loaded = commands.add_parser("load", help="let many people edit at once, and print how long each waits")
    loaded.add_argument("--planners", type=_rounds, default=100, help="how many people (100)")
    loaded.add_argument("--think", type=float, default=1.0, help="how long each rests between edits, s (1)")
    loaded.add_argument("--seconds", type=_rounds, default=10, help="for how long (10)")
    loaded.add_argument("--workers", type=_workers, default=1, help="how many processes serve (1)")
    commands.add_parser("schemas", help="write the API's and the design file's schema into the tree")
    chosen = parser.parse_args(arguments)
    if chosen.command == "plan":
        return print_plan(chosen.file, chosen.figures)
    if chosen.command == "papers":
        return write_papers(chosen.file, Path(chosen.out), chosen.paper)
    if chosen.command in ("demo", "start"):
        from amber_spread.serve import serve

        return serve(demo=chosen.command == "demo", port=chosen.port, workers=chosen.workers)
    if chosen.command == "bench":
        from amber_spread.speed.bench import bench

        return bench()
    if chosen.command == "mutants":
        from amber_spread.mutants import run_mutants

        return run_mutants(chosen.files, chosen.sample, chosen.seed)
    if chosen.command in ("backup", "restore"):
        from amber_spread import safety

        work = safety.backup if chosen.command == "backup" else safety.restore
        return work(Path(chosen.file), chosen.over)
    if chosen.command == "crashtest":
        from amber_spread.crashtest import run_crashtest

        return run_crashtest(chosen.rounds)
    if chosen.command == "fuzz":
        from amber_spread.fuzz import run_fuzz

        return run_fuzz(chosen.requests, chosen.seed)
    if chosen.command == "load":
        from amber_spread.speed.load import run_load

        return run_load(chosen.planners, chosen.think, chosen.seconds, chosen.workers)
    if chosen.command == "shots":
        from amber_spread.shots import take_shots

        return take_shots()
    from amber_spread.schemas import write_schemas

    return write_schemas()


def _port(text: str) -> int:
    return _whole_number(text, 1, 65535, "a port")


def _workers(text: str) -> int:
    return _whole_number(text, 1, 32, "the number of processes")


def _rounds(text: str) -> int:
    return _whole_number(text, 1, 10_000_000, "how many")


def _whole_number(text: str, low: int, high: int, what: str) -> int:
    """A whole number as it was typed. Raises ArgumentTypeError, saying what would be accepted."""
    if not text.isdecimal() or not low <= int(text) <= high:
        raise argparse.ArgumentTypeError(f"{what} is a whole number from {low} to {high}, not “{text}”")
    return int(text)


def write_papers(name: str, folder: Path, paper: Literal["a4", "letter"]) -> int:
    """Write templates.pdf, .svg and .dxf and amounts.csv of a design file into `folder`, which is made if need be."""
    from amber_spread.papers.amounts import write_amounts
    from amber_spread.papers.dxf import write_dxf
    from amber_spread.papers.pdf import write_pdf
    from amber_spread.papers.strip import with_strip
    from amber_spread.papers.svg import write_svg
    from amber_spread.papers.templates import templates_of

    document = _document(name)
    if isinstance(document, int):
        return document
    plan = _planned(name, document)
    if isinstance(plan, int):
        return plan
    found = templates_of(document, plan)
    written = {
        "templates.pdf": write_pdf(with_strip(found), paper),
        "templates.svg": write_svg(found).encode(),
        "templates.dxf": write_dxf(found).encode(),
        "amounts.csv": write_amounts(plan).encode(),
    }
    try:
        folder.mkdir(parents=True, exist_ok=True)
        for file, content in written.items():
            (folder / file).write_bytes(content)
            print(folder / file)
    except OSError as error:
        return _refuse(f"{folder}: {error.strerror or error}")
    return 0


def _document(name: str) -> Document | int:
    """The design file `name`, or the exit status after saying why it cannot be used."""
    try:
        return read_document(_read(name))
    except OSError as error:
        return _refuse(f"{name}: {error.strerror or error}")
    except FileError as error:
        return _refuse(*(f"{name}: {one.field}: {one.message}" for one in error.complaints))


def _planned(name: str, document: Document) -> Plan | int:
    """The plan of a design file, or the exit status after saying why it cannot be planned."""
    try:
        return plan_document(document)
    except FileError as error:
        return _refuse(*(f"{name}: {one.field}: {one.message}" for one in error.complaints))


def print_plan(name: str, only_figures: bool) -> int:
    """Print the plan of the design file `name` (`-` is standard input) as JSON."""
    document = _document(name)
    if isinstance(document, int):
        return document
    plan = _planned(name, document)
    if isinstance(plan, int):
        return plan
    try:
        _print(plan, only_figures)
        sys.stdout.flush()
    except BrokenPipeError:
        sys.stderr.close()
    return 0


def _print(plan: Plan, only_figures: bool) -> None:
    if not only_figures:
        print(plan.model_dump_json(indent=2))
        return
    for figure in figures(plan):
        line = {"id": figure.id, "value": figure.value, "unit": figure.unit, "rule": figure.rule}
        print(json.dumps(line, ensure_ascii=False))


def _read(name: str) -> bytes:
    if name == "-":
        return sys.stdin.buffer.read(MAX_FILE_BYTES + 1)
    with Path(name).open("rb") as file:
        return file.read(MAX_FILE_BYTES + 1)


def _refuse(*lines: str) -> int:
    for line in lines:
        print(line, file=sys.stderr)
    return 2
