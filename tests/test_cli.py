"""The command line: plans without a database or network, and refuses in words with status 2."""

import io
import json
import os
import subprocess
import sys
from pathlib import Path

import pytest

from amber_spread.cli import main
from amber_spread.core.document.document import plan_document, write_document
from amber_spread.core.kernel.naming import figures
from tests.designs import document, tier

ROOT = Path(__file__).parents[1]


@pytest.fixture
def design_file(tmp_path):
    path = tmp_path / "cake.amber.json"
    path.write_text(write_document(document(tier(254), tier(203.2))))
    return path


def test_a_plan_is_printed_as_json(design_file, capsys):
    assert main(["plan", str(design_file)]) == 0
    assert len(json.loads(capsys.readouterr().out)["tiers"]) == 2


def test_figures_are_printed_a_line_each(design_file, capsys):
    assert main(["plan", str(design_file), "--figures"]) == 0
    lines = [json.loads(line) for line in capsys.readouterr().out.splitlines()]
    expected = list(figures(plan_document(document(tier(254), tier(203.2)))))
    assert [line["id"] for line in lines] == [figure.id for figure in expected]
    assert [line["value"] for line in lines] == [figure.value for figure in expected]
    assert set(lines[0]) == {"id", "value", "unit", "rule"}


def test_a_hyphen_reads_standard_input(monkeypatch, capsys):
    text = write_document(document()).encode()
    monkeypatch.setattr(sys, "stdin", io.TextIOWrapper(io.BytesIO(text)))
    assert main(["plan", "-"]) == 0
    assert json.loads(capsys.readouterr().out)["tiers"]


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "not JSON"),
        ('{"format": "x"}', "amber-spread/5"),
        (
            '{"format": "amber-spread/5", "title": "x", "design": {"tiers": [{"tin_diameter_mm": 0}]}}',
            "design.tiers.1.tin_diameter_mm: should be 50 mm or more",
        ),
    ],
)
def test_a_bad_file_names_the_field_and_exits_with_2(tmp_path, capsys, text, words):
    path = tmp_path / "bad.json"
    path.write_text(text)
    assert main(["plan", str(path)]) == 2
    assert words in capsys.readouterr().err


def test_a_file_that_is_not_there_is_said_so(capsys):
    assert main(["plan", "no-such-file.json"]) == 2
    assert "No such file" in capsys.readouterr().err
    assert main(["plan", str(ROOT)]) == 2


def test_the_script_plans_a_file_named_from_anywhere_without_a_network(design_file):
    environment = {**os.environ, "AMBER_DATABASE_URL": "postgresql://nobody@127.0.0.1:9/none"}
    done = subprocess.run(
        [str(ROOT / "amber"), "plan", design_file.name, "--figures"],
        cwd=design_file.parent,
        capture_output=True,
        text=True,
        env=environment,
        timeout=60,
        check=False,
    )
    assert done.returncode == 0, done.stderr
    assert done.stdout.startswith('{"id": "tiers.1.layers.cake_diameter"')


def test_the_script_explains_itself_and_refuses_what_it_does_not_know():
    def amber(*words):
        return subprocess.run([str(ROOT / "amber"), *words], capture_output=True, text=True, timeout=60, check=False)

    assert "./amber COMMAND" in amber("help").stdout
    assert amber("bake").returncode == 2


def test_papers_are_written_into_a_folder(design_file, tmp_path, capsys):
    assert main(["papers", str(design_file), "--out", str(tmp_path / "papers"), "--paper", "letter"]) == 0
    files = {path.name: path.stat().st_size for path in (tmp_path / "papers").iterdir()}
    assert set(files) == {"templates.pdf", "templates.svg", "templates.dxf", "amounts.csv"}
    assert min(files.values()) > 200
    assert len(capsys.readouterr().out.splitlines()) == 4
    (tmp_path / "file").write_text("in the way")
    assert main(["papers", str(design_file), "--out", str(tmp_path / "file")]) == 2
