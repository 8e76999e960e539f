"""The design file: what is written reads back, and what is wrong is named at its field."""

import json

import pytest
from hypothesis import given
from hypothesis import strategies as st

from amber_spread.core.document.document import (
    FORMAT,
    Document,
    FileError,
    plan_document,
    read_document,
    write_document,
)
from amber_spread.core.kernel.limits import LIMITS, MAX_FILE_BYTES
from tests.designs import document, written_designs

LEAST = {"format": FORMAT, "title": "A cake", "design": {"tiers": [{"tin_diameter_mm": 200}]}}


def changed(path, value):
    """LEAST with `value` put at a path such as `design.tiers.0.cover`."""
    found = json.loads(json.dumps(LEAST))
    node = found
    *steps, last = path.split(".")
    for step in steps:
        node = node[int(step)] if isinstance(node, list) else node.setdefault(step, {})
    node[last] = value
    return json.dumps(found)


def complaints(text):
    with pytest.raises(FileError) as caught:
        plan_document(read_document(text))
    return {one.pointer: f"{one.field} {one.message}" for one in caught.value.complaints}


@given(written_designs, st.text(min_size=1, max_size=20, alphabet=st.characters(categories=["L", "N"])))
def test_what_is_written_reads_back_the_same(design, title):
    whole = Document(format=FORMAT, title=title, design=design)
    assert read_document(write_document(whole)) == whole


def test_the_least_a_file_must_say_is_enough():
    assert read_document(json.dumps(LEAST)).design.tiers[0].layers.count == 3


@pytest.mark.parametrize(
    ("path", "value", "pointer", "words"),
    [
        ("design.tiers.0.tin_diameter_mm", 0, "#/design/tiers/0/tin_diameter_mm", "50 mm or more"),
        ("design.tiers.0.tin_diameter_mm", -5, "#/design/tiers/0/tin_diameter_mm", "50 mm or more"),
        ("design.tiers.0.tin_diameter_mm", 3000, "#/design/tiers/0/tin_diameter_mm", "600 mm or less"),
        ("design.tiers.0.tin_diameter_mm", "eight", "#/design/tiers/0/tin_diameter_mm", "should be a number"),
        ("design.tiers.0.tin_diameter_mm", True, "#/design/tiers/0/tin_diameter_mm", "should be a number"),
        ("design.tiers.0.layers.count", 2.5, "#/design/tiers/0/layers/count", "whole number"),
        ("design.tiers.0.hat", 1, "#/design/tiers/0/hat", "tiers.1.hat is not a field"),
        ("design.tiers.0.final", {"kind": "disc"}, "#/design/tiers/0/final/disc_diameter_mm", "is missing"),
        ("design.tiers.0.cover", {"kind": "lace"}, "#/design/tiers/0/cover", "none"),
        ("design.tiers.0.cover", {"kind": "drape", "medium": "tar"}, "#/design/tiers/0/cover/medium", "known are"),
        ("design.tiers.0.crumb.colour", "teal", "#/design/tiers/0/crumb/colour", "not among"),
        ("design.tiers.0.shape", {"kind": "star"}, "#/design/tiers/0/shape", "heart"),
        ("design.tiers.0.shape", {"kind": "square", "corner_mm": 120}, "#/design/tiers/0/shape", "rounder than half"),
        ("design.tiers.0.shape", {"kind": "rectangle"}, "#/design/tiers/0/shape/length_mm", "is missing"),
        ("design.tiers", [], "#/design/tiers", "at least 1"),
        ("design.colours", [{"name": "a", "hex": "red"}], "#/design/colours/0/hex", "#F3E6C8"),
        (
            "design.colours",
            [{"name": n, "hex": "#FFFFFF"} for n in ("Ivory", "ivory")],
            "#/design/colours/1/name",
            "second",
        ),
        ("title", "  ", "#/title", "should not be empty"),
        ("title", "a\u0000b", "#/title", "cannot be stored"),
        ("title", "x" * 81, "#/title", "80 characters"),
        ("due", "soon", "#/due", "2026-12-05T11:00"),
        ("due", "2026-12-05T11:00Z", "#/due", "time zone"),
        ("practice.techniques.disc.lost", -1, "#/practice/techniques/disc/lost", "or more"),
        ("practice.filling_least_mm", 40, "#/practice/filling_least_mm", "no more than"),
        (
            "media",
            [{"key": "x", "name": "X", "kind": "filling", "density_g_per_ml": 0}],
            "#/media/0/density_g_per_ml",
            "0.1 g per ml",
        ),
    ],
)
def test_each_field_that_cannot_be_used_is_named_with_what_would_be_accepted(path, value, pointer, words):
    assert words in complaints(changed(path, value))[pointer]


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "not JSON"),
        ("{", "not JSON"),
        ("[1]", "amber-spread/5"),
        ('{"format": "other/2"}', "amber-spread/5"),
        ("[" * 100_000, "not JSON"),
        ("9" * 5000, "not JSON"),
        (" " * (MAX_FILE_BYTES + 1), "larger than 512 kB"),
    ],
)
def test_what_is_no_design_file_at_all_is_refused_in_words(text, words):
    assert words in " ".join(complaints(text).values())


def test_numbers_that_are_not_numbers_are_refused():
    for value in (float("nan"), float("inf"), float("-inf")):
        assert "ordinary number" in str(complaints(changed("design.tiers.0.tin_diameter_mm", value)))


def test_a_files_own_media_are_laid_over_the_library():
    text = changed("media", [{"key": "fondant", "name": "House paste", "kind": "fondant", "density_g_per_ml": 1.5}])
    assert read_document(text).media[0].name == "House paste"


def test_every_limit_is_wide_enough_for_the_demo_and_no_wider_than_sense():
    for name, limit in LIMITS.items():
        assert limit.low < limit.high, name
    assert document().design.tiers
