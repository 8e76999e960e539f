"""Write what the tree says of the code itself: the API's description for the frontend, the design file's JSON Schema
for readers, how materials look for the screen, and the tables of rules, usual values, kinds and limits for whoever
maintains them.
"""

import json
import re
from collections.abc import Iterable, Sequence
from pathlib import Path
from typing import Any

from amber_spread.core.design.habits import HABITS, HANDLINGS, SHARES, Habit
from amber_spread.core.design.kinds import PARTS
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.rows import Kind
from amber_spread.core.document import Document
from amber_spread.core.kernel.figures import RULES, Source
from amber_spread.core.kernel.limits import LIMITS
from amber_spread.papers.palette import PALETTE
from amber_spread.web.app import make_app

ROOT = Path(__file__).resolve().parents[1]
DOCS = ROOT / "docs"
METHOD = DOCS / "method"
FORMATS = DOCS / "formats.md"
SCREEN_PALETTE = ROOT / "frontend" / "src" / "drawing" / "palette.json"
UNITS = {"each": "", "ratio": "", "g_per_ml": "g per ml", "g_per_cm2": "g per cm²", "degC": "°C"}
"""How a unit is written in a table, where not by its own name."""


def schemas() -> dict[Path, str]:
    """What each of those files should say."""
    return {
        DOCS / "openapi.json": _text(make_app(None, built=Path("nowhere")).openapi()),
        DOCS / "amber-spread-5.schema.json": _text(Document.model_json_schema()),
        METHOD / "rules.md": _rules(),
        METHOD / "usual.md": _usual(),
        METHOD / "kinds.md": _kinds(),
        FORMATS: _limits(FORMATS.read_text()),
        SCREEN_PALETTE: json.dumps(dict(PALETTE), indent=2) + "\n",
    }


def write_schemas() -> int:
    """Write every one of them. Returns the exit status."""
    for path, text in schemas().items():
        path.parent.mkdir(parents=True, exist_ok=True)
        path.write_text(text)
        print(f"wrote {path.relative_to(ROOT)}")
    return 0


def _text(schema: dict[str, Any]) -> str:
    return json.dumps(schema, indent=1, ensure_ascii=False) + "\n"


def _table(columns: Sequence[str], rows: Iterable[Sequence[str]]) -> str:
    lines = [columns, ["---"] * len(columns), *rows]
    return "".join(f"| {' | '.join(one.replace('|', '∣') for one in line)} |\n" for line in lines)


def _page(title: str, words: str, table: str) -> str:
    return f"# {title}\n\n{words} Written by `./amber schemas`; a test holds it to the code.\n\n{table}"


def _source(source: Source) -> str:
    return f"{source.origin}: {source.reference}" if source.reference else source.origin


def _amount(value: float, unit: str) -> str:
    return f"{value:g} {UNITS.get(unit, unit)}".strip()


def _rules() -> str:
    rows = [
        (
            f"`{rule.id}`",
            rule.words,
            f"`{rule.formula}`",
            UNITS.get(rule.unit or "", rule.unit or ""),
            _source(rule.source),
        )
        for rule in sorted(RULES.values(), key=lambda rule: rule.id)
    ]
    return _page(
        "Every rule",
        "The words are those you see when you open the working of a figure.",
        _table(("rule", "in words", "formula", "unit", "source"), rows),
    )


def _usual() -> str:
    starting = Practice()
    rows = [
        (
            f"`{habit.name}`",
            habit.words,
            _starting(habit, getattr(starting, habit.name)),
            habit.effect,
            habit.origin,
        )
        for habit in HABITS
    ]
    values = _table(("value", "called", "begins as", "what it does", "source"), rows)
    shares = "\n".join(f"- **{name}**: {words.lower()}." for name, words in SHARES.items())
    techniques = [
        (
            f"`{handling.name}`",
            handling.words,
            *(f"{100 * getattr(starting.techniques.named(handling.name), share):g} %" for share in SHARES),
        )
        for handling in HANDLINGS
    ]
    return (
        _page("A kitchen's usual", "What is taken where a design does not say.", values)
        + f"\n## Techniques\n\n{shares}\n\n{_table(('technique', 'called', *SHARES), techniques)}"
    )


def _starting(habit: Habit, value: Any) -> str:
    if habit.choices:
        return next(one.words for one in habit.choices if one.value == value)
    if habit.percent:
        return f"{100 * value:g} %"
    unit = LIMITS[habit.limit].unit
    return f"{value // 60:.0f}:{value % 60:02.0f}" if unit == "time" else _amount(value, unit)


def _kinds() -> str:
    pages = []
    for part in PARTS:
        named = [kind for kind in part.kinds.values() if kind.kind]
        if named:
            rows = [
                (f"`{kind.kind}`", kind.words, _asked(kind), kind.technique, ", ".join(kind.suits)) for kind in named
            ]
            title = " of ".join(reversed(part.path)).capitalize()
            pages.append(f"## {title}\n\n{_table(('kind', 'called', 'asks for', 'technique', 'suits'), rows)}")
    return _page(
        "Every kind",
        "The kinds of each part of a tier, by its row (`core/design/kinds.py`, `forms.py`).",
        "\n".join(pages),
    )


def _asked(kind: Kind) -> str:
    return "; ".join([one.words.lower() for one in kind.asks] + [one.words.lower() for one in kind.picks])


def _limits(formats: str) -> str:
    """The page of formats with its table of limits as they are."""
    rows = [
        (f"`{name}`", _amount(limit.low, limit.unit), _amount(limit.high, limit.unit)) for name, limit in LIMITS.items()
    ]
    table = _table(("field", "least", "most"), rows)
    return re.sub(r"\| field \| least \| most \|\n(?:\|.*\n)+", lambda _: table, formats)
