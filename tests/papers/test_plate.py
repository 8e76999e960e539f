"""The plate and the bench sheet: every tier and bowl is on them, to scale, within the page, nothing over anything."""

import io
import re
from datetime import date
from xml.etree import ElementTree

import pytest
from pypdf import PdfReader

from amber_spread.core.design.design import Design
from amber_spread.core.design.practice import Practice
from amber_spread.core.document import Document, plan_document
from amber_spread.core.kernel.units import format_length, format_weight
from amber_spread.core.line import read_line
from amber_spread.demo.week import week
from amber_spread.papers.bench_sheet import write_bench_sheet
from amber_spread.papers.page import write_page_pdf, write_page_svg
from amber_spread.papers.plate import plate_of
from tests.designs import MEDIA, tier

DEMO = week(date(2026, 11, 27))
TOWER = Document(
    format="amber-spread/5",
    title="Thirty tiers, a “tower” with a very long name that goes on and on",
    design=Design(tiers=tuple(tier(560 - 16 * index) for index in range(30))),
)
SAID = ("8in ball", "6in half ball", "8in dome", "10in on its side", "10in square tapered 6in", "8in heart")
BODIES = [
    Document(format="amber-spread/5", title=said, design=read_line(said, MEDIA, Practice()).design) for said in SAID
]
EACH = [*DEMO, TOWER, *BODIES]


@pytest.mark.parametrize("document", EACH, ids=[one.title for one in EACH])
def test_all_of_a_cake_lies_within_the_page_and_no_words_cover_others(document):
    plan = plan_document(document)
    for paper in ("a4", "letter"):
        plate = plate_of(document, plan, "in", "g", paper)
        wide, high = plate.size
        for shape in plate.shapes:
            for x, y in shape.points:
                assert 4 < x < wide - 4
                assert 4 < y < high - 4
        boxes = []
        for words in plate.words:
            assert 4 < words.x < wide - 4
            assert 4 < words.y < high - 4
            long = 0.55 * words.size * len(words.text)
            left = words.x - {"start": 0, "middle": long / 2, "end": long}[words.anchor]
            boxes.append((left, words.y - 0.7 * words.size, left + long, words.y, words.text))
        beside = [one for one in boxes if any(one[4].startswith(name.name) for name in plan.tiers)]
        for index, a in enumerate(beside):
            for b in beside[index + 1 :]:
                apart = a[2] <= b[0] or b[2] <= a[0] or a[3] <= b[1] or b[3] <= a[1]
                assert apart or len(plan.tiers) > 9, (a, b)


def test_it_is_to_scale_and_its_bar_is_as_long_as_it_says():
    document = DEMO[0]
    plan = plan_document(document)
    plate = plate_of(document, plan, "in", "g", "a4")
    table, foil, *_ = plate.shapes
    across = 2 * (max(x for x, _ in foil.points) - min(x for x, _ in foil.points))
    scale = across / plan.stack.base_diameter.value
    bars = [shape for shape in plate.shapes if shape.fill == "#FFFFFF" and len(shape.points) == 4]
    quarter = bars[0].points[1][0] - bars[0].points[0][0]
    (said,) = (words.text for words in plate.words if words.text.endswith("to scale"))
    assert 4 * quarter == pytest.approx(float(said.split()[0]) * 25.4 * scale, rel=1e-6)
    high = max(y for _, y in table.points) - min(y for shape in plate.shapes if shape.fill for _, y in shape.points)
    assert high == pytest.approx(plan.stack.height.value * scale, rel=1e-6)


@pytest.mark.parametrize("document", DEMO[:6], ids=[one.title for one in DEMO[:6]])
def test_the_pdf_and_the_drawing_say_the_same(document):
    plan = plan_document(document)
    plate = plate_of(document, plan, "cm", "g", "letter")
    pdf = PdfReader(io.BytesIO(write_page_pdf(plate)))
    assert len(pdf.pages) == 1
    text = pdf.pages[0].extract_text()
    root = ElementTree.fromstring(write_page_svg(plate))
    drawn = [one.text for one in root.iter("{http://www.w3.org/2000/svg}text")]
    assert drawn == [words.text for words in plate.words]
    for one in plan.tiers:
        assert one.name in text
    assert format_length(plan.stack.height.value, "cm") in text
    for bowl in plan.bowls.values():
        assert bowl.name in " ".join(drawn)


@pytest.mark.parametrize("document", DEMO, ids=[one.title for one in DEMO])
def test_the_bench_sheet_weighs_every_bowl_and_cuts_every_tier(document):
    plan = plan_document(document)
    pages = PdfReader(io.BytesIO(write_bench_sheet(document, plan))).pages
    text = re.sub(r"\s+", " ", " ".join(page.extract_text() for page in pages))
    for bowl in plan.bowls.values():
        assert f"{bowl.name} {format_weight(bowl.mix.value, 'g', 'up')}" in text
    for number, one in enumerate(plan.tiers, 1):
        assert f"Tier {number}, {one.name} {document.design.tiers[number - 1].layers.count} layers" in text
        if one.cover and one.cover.roll_diameter:
            assert f"{format_length(one.cover.roll_diameter.value, 'in', 'up')} across" in text
