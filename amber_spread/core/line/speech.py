"""How people say a cake, turned into the quick line as it is written with care.

    three tiers 10/8/6, chocolate, filled with lemon curd in a dam, swiss meringue 1/4in, white fondant

What is said is gone through once from left to right: sizes, shapes, ways to rise, flavours, media and techniques, each
by the words its own row has and by parts of its name. A medium says by its kind what it is for (a curd fills, a
buttercream coats, a fondant covers) unless a word beside it says otherwise. What is known of no row is given back.
"""

import difflib
import re
from collections.abc import Collection, Mapping
from dataclasses import dataclass, field
from functools import cached_property
from typing import NamedTuple

from amber_spread.core.design.forms import BUILDS, SHAPES
from amber_spread.core.design.kinds import PARTS
from amber_spread.core.design.shapes import RectangleShape
from amber_spread.core.kernel.units import LengthUnit, UnitError, parse_length
from amber_spread.core.line.quick_media import COLOURS, PLAIN, find_medium, name_parts, usual_role
from amber_spread.core.line.quick_words import (
    LOOKED_AHEAD,
    Token,
    Unread,
    find_kind,
    kind_word,
    length_written,
    phrases_of,
    tokens_of,
)
from amber_spread.core.stock.media import Medium
from amber_spread.core.stock.recipe_book import RECIPES

THICK_MM = 45.0
"""A length below this is how thick something is; from it on a tin, or a height."""
NEARNESS = 0.8
"""A word that is so like a known one is asked about."""
MOST_UNKNOWN = 20
"""After this many unknown words the listener stops."""
GIVEN_UP = "I stop here until the words before this are clear."
NO_SIZE = "No size is said: say how far each tin is across, such as 8 in."
_FILLERS = """
a an the with and of in on by to for cake cakes please then plus each all over tier tiers layer-cake using made topped
between inside it its is tin tins pan
"""
FILLERS = frozenset(_FILLERS.split())
"""Words that say nothing of the cake by themselves."""
NUMBERS = ("one", "two", "three", "four", "five", "six", "seven", "eight")
ROLES = {
    "fill": "fill", "filled": "fill", "filling": "fill", "fillings": "fill",
    "coat": "coat", "coated": "coat", "coating": "coat", "iced": "coat", "icing": "coat", "frosted": "coat",
    "frosting": "coat", "outside": "coat",
    "crumb": "crumb", "cover": "cover", "covered": "cover", "covering": "cover", "dam": "dam", "dammed": "dam",
    "border": "border", "borders": "border", "edged": "border", "syrup": "syrup", "soaked": "syrup",
}  # fmt: skip
"""What a word says a medium beside it is for."""
BEADS = {"rope": "rope", "shell": "shell", "shells": "shell", "pearl": "round", "pearls": "round", "beaded": "round",
         "bead": "round", "beads": "round", "rosette": "shell", "rosettes": "shell"}  # fmt: skip
"""What a border is piped as, and which bead comes nearest to it."""
SHEET = "rectangle"
NO = frozenset(("no", "without"))
TALL = frozenset(("tall", "high", "deep", "height"))


class Said(NamedTuple):
    """A line as it is written with care, where each stretch of it was said, and what of it was not understood."""

    line: str
    places: list[tuple[int, int, int, int]]
    """From and to in the line, and from and to in what was said."""
    unread: list[Unread]
    sizes: int
    """How many tiers were said."""

    def source(self, start: int, end: int) -> tuple[int, int]:
        """Where in what was said a stretch of the line comes from."""
        found = [(one[2], one[3]) for one in self.places if one[0] < end and start < one[1]]
        if not found:
            found = [(one[2], one[3]) for one in self.places] or [(0, 1)]
        return min(low for low, _ in found), max(high for _, high in found)


@dataclass
class _Clause:
    """What is said of one part so far."""

    words: dict[str, str] = field(default_factory=dict)
    start: int = 0
    end: int = 0


@dataclass
class _Tier:
    """One size and what is said of it alone."""

    across_mm: float
    start: int
    end: int
    long_mm: float | None = None
    tall_mm: float | None = None
    shape: str | None = None
    build: str | None = None
    clauses: dict[str, _Clause] = field(default_factory=dict)


def marks_as_inches(text: str) -> str:
    """The same text, as long as before, with a quote after a number that opens no quotation as a sign for inches."""
    found, quoted = [], False
    for index, letter in enumerate(text):
        if letter == '"':
            before = text[index - 1 : index]
            if before and not quoted and (before.isdigit() or before in "½¼¾⅓⅔⅛⅜⅝⅞"):
                found.append("″")
                continue
            quoted = not quoted
        found.append(letter)
    return "".join(found)


def understand(text: str, media: Mapping[str, Medium], unit: LengthUnit, colours: Collection[str] = ()) -> Said:
    """What is said of a cake as its line. Never raises.

    `unit` is that of a bare length; of `colours` it is known how they are shown.
    """
    return _Listener(text, media, unit, colours).line()


_COAT, _COVER = (next(part.kinds for part in PARTS if part.word == word) for word in ("coat", "cover"))
CHOSEN = {"shape": SHAPES, "build": BUILDS, "coat": _COAT, "cover": _COVER}
"""What is said by a kind alone: the parts of a tier, and the kinds of each."""
HALVES = {("half", "ball"): "ball halves 1", ("half", "sphere"): "ball halves 1"}
"""A build that is said with a number of its own."""
UNSAID = ("none", "free", "straight")
"""Kinds that no word by itself means: a part is refused as “no cover”."""
CAKES = {recipe.name.lower().split()[0]: recipe.key for recipe in RECIPES if recipe.cake}


class _Listener:
    """One hearing of what is said."""

    def __init__(self, text: str, media: Mapping[str, Medium], unit: LengthUnit, colours: Collection[str]) -> None:
        self.media, self.unit, self.known = media, unit, colours
        self.tokens = tokens_of(text)
        self.at = 0
        self.tiers: list[_Tier] = []
        self.shared: dict[str, _Clause] = {}
        self.ahead: dict[str, str] = {}
        """A shape or a build that was said before its size: that of the sizes to come."""
        self.colours: dict[str, str] = {}
        self.unread: list[Unread] = []
        self.role = ""
        self.tint: str | None = None
        self.last: _Clause | None = None

    def line(self) -> Said:
        """All of it, gone through."""
        while self.at < len(self.tokens):
            if len(self.unread) >= MOST_UNKNOWN:
                self.unread.append(Unread(start=self.tokens[self.at].start, end=self.tokens[-1].end, message=GIVEN_UP))
                break
            for heard in (self._sign, self._count, self._size, self._refused, self._kind, self._cake, self._medium,
                          self._colour, self._bead, self._word):  # fmt: skip
                before = self.at
                heard()
                if self.at > before:
                    break
            else:
                self._unknown()
        return self._written()

    # What stands at the place reached.

    def _token(self, ahead: int = 0) -> Token | None:
        place = self.at + ahead
        return self.tokens[place] if place < len(self.tokens) else None

    def _rest(self, ahead: int = 0) -> list[Token]:
        """The tokens ahead, up to LOOKED_AHEAD."""
        return self.tokens[self.at + ahead : self.at + ahead + LOOKED_AHEAD]

    def _lower(self, ahead: int = 0) -> str:
        token = self._token(ahead)
        return token.text.lower() if token else ""

    def _mm(self, ahead: int = 0) -> float | None:
        """The length at a place; a bare number is in the unit of the next length beside it, or in the person's own."""
        token = self._token(ahead)
        if token is None or token.kind not in ("length", "number") or token.text.endswith("%"):
            return None
        try:
            return parse_length(token.text, self._unit_at(ahead) if token.kind == "number" else self.unit)
        except UnitError:
            return None

    def _unit_at(self, ahead: int) -> LengthUnit:
        for token in self._rest(ahead):
            if token.kind == "length":
                words = token.text.lower()
                return "cm" if words.endswith("cm") else "mm" if words.endswith("mm") else "in"
            if token.kind != "number" and token.text.lower() not in (",", "/", "and", "x", "×", ";", "by", "then"):
                break
        return self.unit

    def _clause(self, part: str) -> _Clause:
        """What is said of a part: of the last tier, or of all of them before the first and after the last."""
        holder = self.tiers[-1].clauses if self.tiers else self.shared
        token = self.tokens[min(self.at, len(self.tokens) - 1)]
        clause = holder.setdefault(part, _Clause(start=token.start, end=token.end))
        clause.end = max(clause.end, token.end)
        self.last = clause
        return clause

    # What may be said.

    def _sign(self) -> None:
        if self._lower() in (",", ";", "|", ".", "+", "&", "/", ":", "(", ")", "-", "–", "—"):
            if self._lower() in (",", ";", "|", "."):
                self.role = ""
            self.at += 1

    def _count(self) -> None:
        """So many layers, so many tiers."""
        token, following = self._token(), self._lower(1)
        assert token is not None
        word = token.text.lower()
        if word in (*NUMBERS, "single", "double") and following in ("tier", "tiers", "tiered"):
            self.at += 2
        elif re.fullmatch(r"(?:one|two|three|four|five|six)-tier(?:ed)?", word):
            self.at += 1
        elif token.kind == "number" and following in ("tier", "tiers"):
            self.at += 2
        elif (token.kind == "number" or word in NUMBERS) and following in ("layer", "layers"):
            clause = self._clause("layers")
            clause.words["count"] = token.text if token.kind == "number" else str(NUMBERS.index(word) + 1)
            self.at += 2
            step = 1 if self._lower() in ("of", "at", "x", "×", "each") else 0
            mm = self._mm(step)
            given = self._token(step)
            if mm is not None and mm < 2 * THICK_MM and given is not None and (step or given.kind == "length"):
                clause.words["height"] = f"height {length_written(mm)}"
                self.at += step + 1

    def _size(self) -> None:
        token, mm = self._token(), self._mm()
        if mm is None or token is None:
            return
        if self._lower(1) in TALL and self.tiers:
            self.tiers[-1].tall_mm, self.at = mm, self.at + 2
            return
        if mm < THICK_MM:
            if self.last is not None:
                self.last.words["length"] = length_written(mm)
                self.last.end = max(self.last.end, token.end)
                self.at += 1
            return
        tier = _Tier(mm, token.start, token.end)
        sides = []
        self.at += 1
        while self._lower() in ("x", "×", "by") and (side := self._mm(1)) is not None:
            sides.append(side)
            tier.end = self.tokens[self.at + 1].end
            self.at += 2
        long = len(sides) == 2 or (len(sides) == 1 and (sides[0] > mm or self._sheet_said()))
        if long:
            tier.long_mm, tier.across_mm, tier.shape = max(mm, sides[0]), min(mm, sides[0]), SHEET
            sides = sides[1:]
        if sides:
            tier.tall_mm = sides[0]
        elif (tall := self._mm()) is not None and self._lower(1) in TALL:
            tier.tall_mm, self.at = tall, self.at + 2
        self.tiers.append(tier)
        self.role, self.last = "", None

    def _sheet_said(self) -> bool:
        found = find_kind(self._rest(), SHAPES)
        return found is not None and found[0] is RectangleShape

    def _refused(self) -> None:
        """No cover, no coat: what is left out."""
        if self._lower() not in NO:
            return
        words = self._lower(1)
        part = ROLES.get(words) or ("cover" if words in ("fondant", "sugarpaste") else "")
        if part in ("cover", "coat"):
            self._clause(part).words["kind"] = "none"
            self.at += 2

    def _kind(self) -> None:
        """A shape, a way to rise, a coat or a cover by the words of its row."""
        rest = self._rest()
        half = HALVES.get((self._lower(), self._lower(1)))
        if half is not None:
            self._formed("build", half, 2)
            return
        found = ((part, kinds, find_kind(rest, kinds)) for part, kinds in CHOSEN.items())
        best = max(((one[1], part, kinds[one[0]].kind) for part, kinds, one in found if one), default=None)
        # “Naked” is said of a coat that is left out; “none” is said of nothing.
        if best is None or (best[2] in UNSAID and self._lower() in UNSAID):
            return
        length, part, kind = best
        if part in ("shape", "build"):
            self._formed(part, kind_word(kind), length)
        else:
            self._clause(part).words["kind"] = kind_word(kind)
            self.at += length

    def _formed(self, part: str, words: str, length: int) -> None:
        """The last size said is of that shape or build; before the first, those to come."""
        if self.tiers:
            setattr(self.tiers[-1], part, words)
            self.tiers[-1].end = max(self.tiers[-1].end, self.tokens[self.at + length - 1].end)
        else:
            self.ahead[part] = words
        self.at += length

    def _cake(self) -> None:
        """A flavour: by the first word of a cake's name, unless that word belongs to a medium."""
        word, following = self._lower(), self._lower(1)
        if word not in CAKES or self.role not in ("", "cake"):
            return
        if following in ("cake", "sponge", "layers", "cakes"):
            self.at += 1
        elif (self._medium_at() or ("", 0))[1] > 1:
            return
        self._clause("layers").words["cake"] = f"cake {CAKES[word]}"
        self.at += 1

    def _medium_at(self) -> tuple[str, int] | None:
        return find_medium(self._rest(), self.media)

    def _medium(self) -> None:
        found = self._medium_at()
        if found is None:
            return
        key, length = found
        medium = self.media[key]
        following = ROLES.get(self._lower(length), "")
        role = self.role if self.role and self.role != following else following or self.role
        if not role:
            role = usual_role(medium)
        clause = self._clause("fill" if role == "dam" else role)
        if role == "dam":
            clause.words["dam"] = f"dam {key}"
        else:
            self._once(clause, key, length)
            clause.words["medium"] = key
            if self.tint:
                clause.words["colour"] = f'"{self.tint}"'
        self.tint = None
        self.at += length
        if following and following == ROLES.get(self._lower(), ""):
            self.at += 1
        if role != "dam":
            self.role = ""

    def _once(self, clause: _Clause, key: str, length: int) -> None:
        """Two media for one part are asked about: one of them would be forgotten silently."""
        before = clause.words.get("medium", key)
        if before != key:
            first, last = self.tokens[self.at], self.tokens[self.at + length - 1]
            said = f"{self.media[before].name} is said for the same: leave one of them out, or say what each is for."
            self.unread.append(Unread(start=first.start, end=last.end, message=said))

    def _colour(self) -> None:
        word = self._lower()
        if word in PLAIN or word in COLOURS:
            self.tint = None if word in PLAIN else word
            if self.tint and self.tint not in self.known:
                self.colours[word] = COLOURS[word]
            self.at += 1

    def _bead(self) -> None:
        """A border by what it is piped as: rope, shells, pearls."""
        word = self._lower()
        if word not in BEADS or not (self.role == "border" or self._lower(1) in ("border", "borders")):
            return
        self._clause("border").words["kind"] = f"bead {BEADS[word]}"
        self.at += 2 if self._lower(1) in ("border", "borders") else 1

    def _word(self) -> None:
        word = self._lower()
        if word in ROLES:
            self.role = ROLES[word]
            self.at += 1
            if word == "crumb" and self._lower() in ("coat", "coated"):
                self.at += 1
            if self.role == "dam":
                self._clause("fill").words.setdefault("dam", "dam")
            elif self.role in ("border", "crumb"):
                self._clause(self.role)
        elif word in FILLERS or word in TALL or word == "sponge":
            self.at += 1

    def _unknown(self) -> None:
        token = self._token()
        assert token is not None
        near = difflib.get_close_matches(token.text.lower(), self._known, 1, NEARNESS)
        said = (
            f"Did you mean “{near[0]}”?"
            if near
            else (
                "This is not known here: say sizes, shapes, flavours, and what it is filled, coated and covered with."
            )
        )
        self.unread.append(Unread(start=token.start, end=token.end, message=said, meant=near[0] if near else None))
        self.at += 1

    @cached_property
    def _known(self) -> list[str]:
        """Every word that says something."""
        parts = {part for medium in self.media.values() for part in name_parts(medium)}
        rows = (kind for kinds in CHOSEN.values() for kind in kinds.values() if kind.kind not in UNSAID)
        kinds = {phrase[0] for kind in rows for phrase in phrases_of(kind) if len(phrase) == 1}
        return sorted(parts | kinds | set(ROLES) | set(CAKES) | set(COLOURS) | {"layers", "tall"})

    # What it comes to.

    def _written(self) -> Said:
        """The line, and where each piece of it was said."""
        text, places = "", list[tuple[int, int, int, int]]()

        def add(piece: str, start: int, end: int) -> None:
            nonlocal text
            places.append((len(text), len(text) + len(piece), start, end))
            text += piece

        shapes = [tier.shape for tier in self.tiers]
        # One shape said after the last size is meant for all of them; so is one said before the first.
        usual = self.ahead.get("shape") or (
            shapes[-1] if shapes and not any(shapes[:-1]) and shapes[-1] != SHEET else None
        )
        last = self.tiers[-1].clauses if self.tiers else dict[str, _Clause]()
        common = {**last, **{part: clause for part, clause in self.shared.items() if part not in last}}
        for index, tier in enumerate(self.tiers):
            if index:
                text += "; "
            add(_head(tier, tier.shape or usual, tier.build or self.ahead.get("build")), tier.start, tier.end)
            for part, clause in tier.clauses.items() if tier is not self.tiers[-1] else ():
                text += ", "
                add(_clause_line(part, clause), clause.start, clause.end)
        for part, clause in common.items():
            text += " | " if text else ""
            add(_clause_line(part, clause), clause.start, clause.end)
        for name, hex in self.colours.items():
            text += f' | colour "{name}" {hex}'
        return Said(text, places, self.unread, len(self.tiers))


def sizes_apart(text: str) -> str:
    """The same text, as long as before, with sizes parted by strokes, as in 10/8/6, parted by commas."""
    return re.sub(r"(?<![\d/])\d{1,2}(?:/\d{1,2})+(?![\d/])", _parted, text)


def _parted(match: re.Match[str]) -> str:
    """Sizes parted by strokes as parted by commas; a fraction stays one."""
    numbers = [int(one) for one in match[0].split("/")]
    if len(numbers) == 2 and (numbers[0] < numbers[1] or numbers[1] < 4):
        return match[0]
    return match[0].replace("/", ",")


def _head(tier: _Tier, shape: str | None, build: str | None) -> str:
    words = [length_written(round(tier.across_mm, 3))]
    if tier.tall_mm is not None:
        words.append(f"x {length_written(round(tier.tall_mm, 3))}")
    words.append(shape or "round")
    if tier.long_mm is not None:
        words.append(f"length {length_written(round(tier.long_mm, 3))}")
    if build:
        words.append(build)
    return " ".join(words)


_ORDER = ("kind", "medium", "colour", "length", "dam", "count", "height", "cake")


def _clause_line(part: str, clause: _Clause) -> str:
    return " ".join([part, *(clause.words[name] for name in _ORDER if name in clause.words)])
