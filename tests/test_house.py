"""The house rules of the code: arrows run downward only, and nothing of one machine stands in the tree."""

import ast
import os
import re
import subprocess
import sys
from pathlib import Path

import pytest

PACKAGE = Path(__file__).parents[1] / "amber_spread"
ALLOWED = {
    "core": {"amber_spread.core", "contourpy", "manifold3d", "numpy", "ortools", "psychrolib", "pydantic", "pydantic_core", "pygeodesic", "rectpack", "scipy", "shapely"},
    "store": {"amber_spread.core", "amber_spread.stopping", "amber_spread.store", "pydantic", "sqlalchemy", "alembic", "procrastinate", "psycopg"},
    "jobs": {"amber_spread.core", "amber_spread.jobs", "amber_spread.papers", "amber_spread.stopping", "amber_spread.store", "anyio", "procrastinate", "psycopg", "psycopg_pool", "pydantic", "sqlalchemy"},
    "papers": {"amber_spread.core", "amber_spread.papers", "icalendar", "pydantic", "reportlab", "ezdxf", "svgelements", "defusedxml", "manifold3d", "networkx", "numpy", "PIL", "shapely", "trimesh"},
    "web": {"amber_spread.core", "amber_spread.jobs", "amber_spread.store", "amber_spread.papers", "amber_spread.web", "anyio", "fastapi", "starlette", "pydantic", "pydantic_core", "sqlalchemy", "uvicorn", "uvloop"},
    "demo": {"amber_spread.core", "amber_spread.store", "amber_spread.demo"},
}  # fmt: skip


def imported(path):
    for node in ast.walk(ast.parse(path.read_text())):
        if isinstance(node, ast.Import):
            yield from (alias.name for alias in node.names)
        elif isinstance(node, ast.ImportFrom):
            assert node.level == 0, f"{path.name} imports by dots"
            yield node.module


@pytest.mark.parametrize("room", ALLOWED)
def test_a_room_imports_only_what_stands_below_it(room):
    files = list((PACKAGE / room).rglob("*.py"))
    assert files
    for path in files:
        for name in imported(path):
            outside = name.split(".")[0] not in sys.stdlib_module_names
            known = any(name == allowed or name.startswith(f"{allowed}.") for allowed in ALLOWED[room])
            assert not outside or known, f"{path.relative_to(PACKAGE)} imports {name}"


def test_what_every_room_may_import_needs_the_standard_library_alone():
    assert {name.split(".")[0] for name in imported(PACKAGE / "stopping.py")} <= set(sys.stdlib_module_names)


def test_the_rooms_of_the_core_stand_in_the_order_of_the_work():
    lint = subprocess.run(
        [sys.executable, "-c", "from importlinter.cli import lint_imports_command; lint_imports_command()"],
        cwd=PACKAGE.parent,
        env={**os.environ, "PYTHONPATH": str(PACKAGE.parent)},
        capture_output=True,
        text=True,
    )
    assert lint.returncode == 0, lint.stdout + lint.stderr
    assert "4 kept, 0 broken" in lint.stdout


def files_of_the_core():
    found = list((PACKAGE / "core").rglob("*.py"))
    assert len(found) > 60
    return found


def test_neighbours_take_what_a_room_shows():
    fronts = ("tier", "bowls", "cake", "line", "document", "shop", "clock")
    for path in files_of_the_core():
        for name in imported(path):
            parts = name.split(".")
            if parts[:2] == ["amber_spread", "core"] and len(parts) > 3 and parts[2] in fronts:
                room = path.relative_to(PACKAGE / "core").parts[0]
                assert room == parts[2], f"{path.name} reaches into {name}"


def test_the_core_is_pure():
    for path in files_of_the_core():
        names = set(imported(path))
        assert not names & {"os", "time", "socket", "pathlib", "subprocess", "random"}, path.name
        assert "datetime.now" not in path.read_text()


def test_public_functions_of_the_core_say_what_they_do():
    for path in files_of_the_core():
        for node in ast.parse(path.read_text()).body:
            if isinstance(node, ast.FunctionDef | ast.ClassDef) and not node.name.startswith("_"):
                assert ast.get_docstring(node), f"{path.name}: {node.name} has no docstring"


def test_the_pages_of_the_method_name_every_rule():
    from amber_spread.core import clock, plan  # noqa: F401  (enter every rule)
    from amber_spread.core.kernel.figures import RULES
    from amber_spread.core.shop import shopping  # noqa: F401  (enter every rule)

    written = {"rules.md", "usual.md", "kinds.md"}
    pages = [path for path in (PACKAGE.parent / "docs" / "method").glob("*.md") if path.name not in written]
    assert len(pages) > 6
    method = "".join(path.read_text() for path in pages)
    assert [id for id in RULES if f"`{id}`" not in method] == []


def test_every_page_of_the_docs_is_reached_from_another_and_no_link_is_broken():
    docs = PACKAGE.parent / "docs"
    pages = [PACKAGE.parent / "README.md", *docs.rglob("*.md")]
    reached = set()
    for page in pages:
        for link in re.findall(r"\]\(([^)#:]+)(?:#[^)]*)?\)", page.read_text()):
            target = (page.parent / link).resolve()
            assert target.exists(), f"{page.name}: {link}"
            reached.add(target)
    assert [page.name for page in docs.rglob("*.md") if page.resolve() not in reached] == []


def test_every_picture_is_linked_from_the_readme():
    pictures = list((PACKAGE.parent / "docs" / "screenshots").glob("*.png"))
    readme = (PACKAGE.parent / "README.md").read_text()
    assert 0 < len(pictures) < 20
    assert [path.name for path in pictures if path.name not in readme] == []
