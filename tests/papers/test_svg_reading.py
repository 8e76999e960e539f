"""Outlines read from SVG: at true size, repaired where the slip is small, refused with a reason in bounded time."""

import math
import time

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely import Polygon

from amber_spread.core.design.shapes import FreeShape
from amber_spread.core.kernel.limits import MAX_FILE_BYTES
from amber_spread.papers.outline_files import read_outline
from amber_spread.papers.outline_reading import OutlineError

HEAD = '<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="200mm" viewBox="0 0 200 200">'


def svg(inside, head=HEAD):
    return f"{head}{inside}</svg>".encode()


def path(data, head=HEAD):
    return svg(f'<path d="{data}"/>', head)


def star(corners, radius=80, wobble=0):
    turns = [2 * math.pi * step / corners for step in range(corners)]
    points = [
        (100 + (radius + wobble * (step % 2)) * math.cos(turn), 100 + (radius + wobble * (step % 2)) * math.sin(turn))
        for step, turn in enumerate(turns)
    ]
    return "M" + " L".join(f"{x:.3f} {y:.3f}" for x, y in points) + " Z"


@pytest.mark.parametrize(
    "head, inside, size",
    [
        (HEAD, '<rect x="10" y="10" width="150" height="100"/>', (150, 100)),
        (HEAD, '<circle cx="100" cy="100" r="60"/>', (120, 120)),
        (HEAD, '<g transform="scale(2) translate(5 5)"><rect width="50" height="40"/></g>', (100, 80)),
        (HEAD, '<polygon points="0,0 100,0 50,90"/>', (100, 90)),
        (
            '<svg xmlns="http://www.w3.org/2000/svg" width="6in" height="6in" viewBox="0 0 6 6">',
            '<rect width="6" height="4"/>',
            (152.4, 101.6),
        ),
        (
            '<svg xmlns="http://www.w3.org/2000/svg" width="600" height="600">',
            '<rect width="480" height="384"/>',
            (127, 101.6),
        ),
        (HEAD, '<path d="M20 100 C20 20 180 20 180 100 S20 180 20 100 Z"/>', (160, None)),
    ],
)
def test_a_drawing_is_read_at_its_true_size(head, inside, size):
    found = read_outline(svg(inside, head))
    assert found.width_mm == pytest.approx(size[0], abs=0.1)
    assert size[1] is None or found.length_mm == pytest.approx(size[1], abs=0.1)
    assert found.notes == []


def test_up_in_the_drawing_is_back_on_the_cake_and_the_area_is_kept():
    found = read_outline(path("M0 0 L100 0 L50 80 Z"))
    assert Polygon(found.points_mm).area == pytest.approx(4000, rel=1e-3)
    lowest = min(found.points_mm, key=lambda point: point[1])
    assert lowest[0] == pytest.approx(50, abs=0.1)


def test_a_circle_keeps_its_area_within_the_corners_a_design_may_have():
    found = read_outline(svg('<circle cx="100" cy="100" r="75"/>'))
    assert len(found.points_mm) <= 400
    assert Polygon(found.points_mm).area == pytest.approx(math.pi * 75**2, rel=2e-3)


@pytest.mark.parametrize(
    "data, note",
    [
        (path("M10 10 L110 10 L110 110 L10 110 L10 10.8"), "joined"),
        (path("M10 10 H110 V110 H10 Z M40 40 H60 V60 H40 Z"), "no holes"),
        (path("M10 10 H110 V110 H60 L62 112 L64 108 L60 109 H10 Z"), "loop"),
        (path(star(2000, 90, 0.3)), "smoothed"),
    ],
)
def test_small_slips_are_repaired_and_said(data, note):
    found = read_outline(data)
    assert any(note in said for said in found.notes)
    FreeShape(points_mm=tuple(found.points_mm)).outline(100)


BOMB = b"""<?xml version="1.0"?><!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;">
<!ENTITY c "&b;&b;&b;&b;&b;&b;&b;&b;&b;&b;">]><svg xmlns="http://www.w3.org/2000/svg"><text>&c;</text></svg>"""
TANGLE = " ".join(f"{(7919 * index) % 1999 / 10},{(104729 * index) % 1987 / 10}" for index in range(1000))
"""A thousand pieces that cross one another all over."""
REFUSED = {
    "crossing": (path("M10 10 L110 110 L110 10 L10 110 Z"), "crosses itself"),
    "tangle": (svg(f'<polygon points="{TANGLE}"/>'), "over and over"),
    "deep": (svg('<g transform="rotate(1)">' * 900 + '<rect width="90" height="90"/>' + "</g>" * 900), "Ungroup"),
    "open": (path("M10 10 H150 V100"), "open"),
    "two": (path("M10 10 H70 V70 H10 Z M100 100 H170 V170 H100 Z"), "separate shapes"),
    "segments": (path("M0 0 " + "l1 0 l0 1 l-1 0 " * 3500 + "Z"), "Simplify"),
    "bomb": (BOMB, "entities"),
    "outside": (b'<!DOCTYPE svg SYSTEM "file:///etc/hostname"><svg xmlns="http://www.w3.org/2000/svg"/>', "entities"),
    "small": (path("M0 0 H10 V10 H0 Z"), "other units"),
    "large": (svg('<rect width="900" height="900"/>', HEAD.replace("200mm", "2m")), "units"),
    "empty": (svg(""), "no closed shape"),
    "line": (svg('<line x1="0" y1="0" x2="90" y2="90"/>'), "no closed shape"),
    "use": (svg('<defs><path id="a" d="M0 0"/></defs><use href="#a"/>'), "by reference"),
    "html": (b"<html><body/></html>", "not SVG"),
    "png": (b"\x89PNG\r\n\x1a\n\x00\x00", "not SVG"),
    "nothing": (b"", "not SVG"),
    "huge": (b"<svg>" + b" " * MAX_FILE_BYTES + b"</svg>", "larger than"),
    "parts": (svg("<g/>" * 3000), "parts"),
    "ragged": (path(star(3000, 60, 20)), "ragged"),
}  # fmt: skip


def test_style_sheets_are_not_read_at_all():
    plain = read_outline(svg('<rect width="90" height="80"/>'))
    sheet = "<style>" + "/*" * 100_000 + "</style>"
    begun = time.process_time()
    assert read_outline(svg(sheet + '<rect width="90" height="80" class="a"/>')) == plain
    assert time.process_time() - begun < 1


@pytest.mark.parametrize("name", REFUSED)
def test_what_cannot_be_a_tier_is_refused_with_a_reason_and_soon(name):
    data, words = REFUSED[name]
    begun = time.perf_counter()
    with pytest.raises(OutlineError, match=words) as caught:
        read_outline(data)
    assert time.perf_counter() - begun < 5
    assert str(caught.value).endswith(".")


@given(
    st.binary(max_size=300)
    | st.text(max_size=200).map(lambda text: path(text.replace("<", "").replace("&", "").replace('"', "")))
)
def test_no_file_does_worse_than_be_refused(data):
    try:
        found = read_outline(data)
    except OutlineError as error:
        assert str(error)
    else:
        assert Polygon(found.points_mm).area > 0


@given(st.lists(st.sampled_from("MmLlHhVvCcSsQqTtAaZz0123456789.,- "), max_size=60).map("".join))
def test_no_path_does_worse_than_be_refused(data):
    try:
        read_outline(path(data))
    except OutlineError as error:
        assert str(error)
