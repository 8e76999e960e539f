"""The quick line: a whole cake typed as one line, read into a design, and any design printed back as its line.

    10in x 5in round; 8in x 5in; 6in x 4in | fill lemon curd dam | coat meringue 6mm | fondant 3mm

Tiers are parted by semicolons, bottom first: the tin across, the finished height wanted, the shape, how it rises.
After a bar stand clauses for every tier; after a comma, clauses for one tier alone, which win over those. A clause
begins with its part (fill, crumb, coat, cover, layers, ...); then come a kind, a medium, a colour in quotes, a bare
length for the kind's leading measure, and any field by its name with its value.
"""

from typing import Any

from amber_spread.core.design.design import Design
from amber_spread.core.design.practice import Practice
from amber_spread.core.kernel.limits import TIERS
from amber_spread.core.kernel.units import LengthUnit
from amber_spread.core.line.quick_reader import LineRead, Read, Reader, split
from amber_spread.core.line.quick_steps import with_orders_by_id
from amber_spread.core.line.quick_words import Unread, tokens_of
from amber_spread.core.line.speech import NO_SIZE, Said, marks_as_inches, sizes_apart, understand
from amber_spread.core.stock.media import Medium

SAID_ONCE = ("fill", "crumb", "coat", "cover")
MOST_TOKENS = 4000
MOST_CLAUSES = 200
TOO_LONG = f"This line is too long: write at most {MOST_TOKENS:,} words, numbers and signs."
TOO_MANY_TIERS = f"A cake has at most {TIERS.high:g} tiers. Leave out those from here on."
TOO_MANY_CLAUSES = f"A line has at most {MOST_CLAUSES} clauses. Leave out those from here on."


def read_line(
    text: str, media: dict[str, Medium], practice: Practice, unit: LengthUnit = "in", in_hand: Design | None = None
) -> LineRead:
    """The design a line describes. A bare length is in `unit`; what the line leaves out is as usual.

    Tiers and colours keep their ids, colours how they are shown, and free outlines their points, from the design
    `in_hand`. Never raises: each
    stretch that cannot be read is given back with what would be.
    """

    def reader() -> Reader:
        return Reader(media, practice, unit, in_hand)

    tokens = tokens_of(text)
    if len(tokens) > MOST_TOKENS:
        return LineRead(design=None, unread=[_from_on(tokens[MOST_TOKENS].start, text, TOO_LONG)])
    text = sizes_apart(marks_as_inches(text))
    read = _written(text, reader())
    if read.worked:
        return read.told()
    said = understand(text, media, unit, [colour.name for colour in in_hand.colours] if in_hand else [])
    if said.unread:
        # What is written with signs is told as such, and so is what no word came near to.
        guessed = any(one.meant for one in said.unread)
        as_written = "|" in text or ";" in text or (not guessed and len(read.unread) <= len(said.unread))
        return read.told() if as_written else LineRead(design=None, unread=said.unread)
    if said.sizes:
        return _as_said(_written(said.line, reader()), said)
    if in_hand is None:
        return LineRead(design=None, unread=[Unread(start=0, end=max(1, len(text)), message=NO_SIZE)])
    return _as_said(_changed(said.line, reader(), in_hand), said)


def _from_on(start: int, text: str, message: str) -> Unread:
    """The rest of the line, left unread."""
    return Unread(start=start, end=max(start + 1, len(text)), message=message)


def _as_said(heard: Read, said: Said) -> LineRead:
    """What was read of the line, each stretch that could not be read where it was said."""
    unread = [
        one.model_copy(update=dict(zip(("start", "end"), said.source(one.start, one.end), strict=True)))
        for one in heard.unread
    ]
    return LineRead(design=heard.design, unread=unread)


def _changed(line: str, reader: Reader, in_hand: Design) -> Read:
    """The design in hand with what is said of all its tiers, where no size is said."""
    design = in_hand.model_dump(mode="json")
    shared = reader.of_tiers(split(line, "|"), design)
    for tier in design["tiers"]:
        for start, piece in shared:
            reader.clause(piece, start, tier)
    return reader.done(design, len(line))


def _written(text: str, reader: Reader) -> Read:
    """The design of a line that is written with its signs."""
    (first, heads), *sections = split(text, "|")
    tiers = [list(split(piece, ",", start)) for start, piece in split(heads, ";", first)]
    design: dict[str, Any] = {"tiers": [], "colours": []}
    common = [one for start, piece in sections for one in split(piece, ",", start)]
    begins = [start for (start, _), *_ in tiers]
    clauses = sorted(start for start, _ in [*(one for _, *own in tiers for one in own), *common])
    for found, most, message in ((begins, int(TIERS.high), TOO_MANY_TIERS), (clauses, MOST_CLAUSES, TOO_MANY_CLAUSES)):
        if len(found) > most:
            reader.unread.append(_from_on(found[most], text, message))
            return reader.done(design, len(text))
    shared = [(at, piece, reader.part_at(piece)) for at, piece in reader.of_tiers(common, design)]
    for index, ((start, head), *own) in enumerate(tiers):
        tier = reader.head(head, start, index)
        alone = [(at, piece, reader.part_at(piece)) for at, piece in own]
        taken = {part for _, _, part in alone}
        said = set[str]()
        for at, piece, part in (*alone, *(one for one in shared if one[2] not in taken)):
            if part in SAID_ONCE and part in said:
                reader.twice(piece, at)
            said.add(part)
            reader.clause(piece, at, tier)
        design["tiers"].append(tier)
        reader.spans[index] = (start, start + len(head))
    read = reader.done(design, len(text))
    return read if read.design is None else read._replace(design=with_orders_by_id(read.design))
