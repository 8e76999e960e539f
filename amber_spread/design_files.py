"""Plans and papers of design files on the command line."""

import json
import sys
from pathlib import Path
from typing import Literal

from amber_spread.core.document import Document, FileError, plan_document, read_document
from amber_spread.core.kernel.limits import MAX_FILE_BYTES
from amber_spread.core.kernel.naming import figures
from amber_spread.core.plan import Plan


def write_papers(name: str, folder: Path, paper: Literal["a4", "letter"]) -> int:
    """Write templates.pdf, .svg and .dxf and amounts.csv of a design file into `folder`, which is made if need be."""
    from amber_spread.papers.amounts import write_amounts
    from amber_spread.papers.dxf import write_dxf
    from amber_spread.papers.pdf import write_pdf
    from amber_spread.papers.strip import with_strip
    from amber_spread.papers.svg import write_svg
    from amber_spread.papers.templates import templates_of

    planned = _planned(name)
    if isinstance(planned, int):
        return planned
    document, plan = planned
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


def _planned(name: str) -> tuple[Document, Plan] | int:
    """The design file `name` and its plan, or the exit status after saying why it cannot be used."""
    try:
        document = read_document(_read(name))
        return document, plan_document(document)
    except OSError as error:
        return _refuse(f"{name}: {error.strerror or error}")
    except FileError as error:
        return _refuse(*(f"{name}: {one.field}: {one.message}" for one in error.complaints))


def print_plan(name: str, only_figures: bool) -> int:
    """Print the plan of the design file `name` (`-` is standard input) as JSON."""
    planned = _planned(name)
    if isinstance(planned, int):
        return planned
    try:
        _print(planned[1], only_figures)
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
