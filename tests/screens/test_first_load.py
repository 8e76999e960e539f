"""How much a first look loads: scripts and styles, gzipped, without fonts. Counted from the files that the build names."""

import gzip
import json
from pathlib import Path

import pytest

BUILT = Path(__file__).parents[2] / "frontend" / "dist"
MAIN, ORDER = "index.html", "src/views/order/OrderView.vue"
# Lenses, dialogs and menus come when they are first shown. If you raise a number, say why beside it.
# Last raised (an order): two more pages, the week and hands and places; what they share with others are files of their own now.
LIMITS_KB = {
    "the shelf": ((MAIN, "src/views/shelf/ShelfView.vue"), 67),
    "an order": ((MAIN, ORDER, "src/lenses/brief/index.ts"), 123),
}


@pytest.fixture(scope="module")
def named():
    return json.loads((BUILT / ".vite" / "manifest.json").read_text())


def loaded_kb(named, begun_with):
    """What these parts load with all that they import at once."""
    found, waiting = set(), list(begun_with)
    while waiting:
        part = waiting.pop()
        if part not in found:
            found.add(part)
            waiting += named[part].get("imports", ())
    files = {file for part in found for file in (named[part]["file"], *named[part].get("css", ()))}
    return sum(len(gzip.compress((BUILT / file).read_bytes())) for file in files) / 1000


@pytest.mark.parametrize("view", LIMITS_KB)
def test_a_first_look_loads_no_more_than_it_shows(named, view):
    begun_with, limit = LIMITS_KB[view]
    cost = loaded_kb(named, begun_with)
    assert cost <= limit, f"{view}: {cost:.1f} kB"
    assert cost > 0.93 * limit, f"{view}: only {cost:.1f} kB now; write that down instead of {limit}"


def test_every_lens_and_dialog_is_a_part_of_its_own(named):
    order = named[ORDER]
    later = {part for part in order["dynamicImports"] if named[part].get("isDynamicEntry")}
    assert {part.split("/")[2] for part in later if part.startswith("src/lenses/")} == {
        path.name for path in (BUILT.parent / "src" / "lenses").iterdir() if path.is_dir() and path.name != "parts"
    }
    assert sum(part.endswith("Dialog.vue") for part in later) >= 5
