"""How people say a cake, turned into the quick line as it is written with care.

    three tiers 10/8/6, chocolate, filled with lemon curd in a dam, swiss meringue 1/4in, white fondant

What is said is gone through once from left to right: sizes, shapes, ways to rise, flavours, media and techniques, each
by the words its own row has and by parts of its name. A medium says by its kind what it is for (a curd fills, a
buttercream coats, a fondant covers) unless a word beside it says otherwise. What is known of no row is given back.
"""

import difflib
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import NamedTuple

from amber_spread.core.design.forms import BUILDS, SHAPES
from amber_spread.core.design.kinds import PARTS
from amber_spread.core.kernel.units import LengthUnit, UnitError, parse_length
from amber_spread.core.line.quick_words import Token, Unread, kind_word, length_written, tokens_of, usual_role
from amber_spread.core.stock.media import Medium
from amber_spread.core.stock.recipe_book import RECIPES

THICK_MM = 45.0
"""A length below this is how thick something is; from it on a tin, or a height."""
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
SAID_MEDIA = {
    "swiss": "meringue_buttercream", "italian": "meringue_buttercream", "smbc": "meringue_buttercream",
    "imbc": "meringue_buttercream", "french": "custard_buttercream", "german": "custard_buttercream",
    "ermine": "flour_buttercream", "sugarpaste": "fondant", "preserve": "raspberry_jam",
}  # fmt: skip
"""What media are also called. Source: common practice."""
SAID_KINDS = {
    "shape": {"circle": "round", "hex": "polygon", "rectangular": "rectangle", "traybake": "rectangle"},
    "build": {"tapering": "tapered", "dome": "domed", "sphere": "ball", "on side": "side", "half ball": "ball halves 1",
              "half sphere": "ball halves 1"},
    "coat": {
        "crust and towel": "towel", "towelled": "towel", "scraped": "freehand", "seminaked": "semi_naked",
        "half naked": "semi_naked", "deckle": "deckled", "piped all over": "textured", "piped": "textured",
        "textured": "textured", "upside down": "inverted", "acrylics": "twin", "discs": "twin",
    },
    "cover": {"draped": "drape", "panelled": "panel", "panels": "panel", "uncovered": "none", "paneled": "panel"},
}  # fmt: skip
"""What kinds are also called, beside the words of their own rows. Source: common practice."""
BEADS = {"rope": "half", "shell": "half", "shells": "half", "pearl": "round", "pearls": "round", "beaded": "round",
         "bead": "round", "beads": "round", "rosette": "half", "rosettes": "half"}  # fmt: skip
"""What a border is piped as, and which bead comes nearest to it."""
COLOURS = {
    "ivory": "#F3E6C4", "cream": "#F6EBD0", "blush": "#EBD3CC", "pink": "#E9A9B4", "red": "#B3332E",
    "orange": "#DE8A3A", "yellow": "#EFCF62", "gold": "#C99A3B", "green": "#86A872", "sage": "#A9B89A",
    "blue": "#7FA3C4", "navy": "#2F4460", "lilac": "#C9B6DB", "purple": "#7C5A93", "brown": "#7B4E32",
    "black": "#2B2522", "grey": "#9A958E", "gray": "#9A958E",
}  # fmt: skip
PLAIN = frozenset(("white", "plain", "uncoloured"))
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


def understand(text: str, media: Mapping[str, Medium], unit: LengthUnit) -> Said:
    """What is said of a cake as its line. `unit` is that of a bare length. Never raises."""
    return _Listener(text, media, unit).line()


def _vocabulary() -> dict[tuple[str, ...], tuple[str, str]]:
    """Every phrase for a kind, as lower-case words, with the part and the kind it stands for."""
    found: dict[tuple[str, ...], tuple[str, str]] = {}
    parts = {"shape": SHAPES, "build": BUILDS} | {
        part.word: part.kinds for part in PARTS if part.word in ("coat", "cover")
    }
    for part, kinds in parts.items():
        for kind in kinds.values():
            for words in (kind_word(kind.kind), kind.words.lower(), *kind.said):
                if words not in ("none", "free", "an outline of your own", "straight"):
                    found.setdefault(_words(words), (part, kind.kind))
        for words, name in SAID_KINDS[part].items():
            found.setdefault(_words(words), (part, name))
    return found


def _words(text: str) -> tuple[str, ...]:
    return tuple(token.text.lower() for token in tokens_of(text))


VOCABULARY = _vocabulary()
LONGEST = max(len(words) for words in VOCABULARY)
CAKES = {recipe.name.lower().split()[0]: recipe.key for recipe in RECIPES if recipe.cake}


class _Listener:
    """One hearing of what is said."""

    def __init__(self, text: str, media: Mapping[str, Medium], unit: LengthUnit) -> None:
        self.media, self.unit = media, unit
        self.tokens = tokens_of(text)
        self.at = 0
        self.tiers: list[_Tier] = []
        self.shared: dict[str, _Clause] = {}
        self.colours: dict[str, str] = {}
        self.unread: list[Unread] = []
        self.role = ""
        self.tint: str | None = None
        self.last: _Clause | None = None

    def line(self) -> Said:
        """All of it, gone through."""
        while self.at < len(self.tokens):
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
        for token in self.tokens[self.at + ahead :]:
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
        return VOCABULARY.get((self._lower(),), ("", ""))[1] == SHEET

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
        for length in range(min(LONGEST, len(self.tokens) - self.at), 0, -1):
            said = tuple(self._lower(ahead) for ahead in range(length))
            if said not in VOCABULARY:
                continue
            part, kind = VOCABULARY[said]
            if part in ("shape", "build"):
                if not self.tiers:
                    self._ahead(part, kind)
                else:
                    setattr(self.tiers[-1], part, kind)
                    self.tiers[-1].end = max(self.tiers[-1].end, self.tokens[self.at + length - 1].end)
            else:
                self._clause(part).words["kind"] = kind_word(kind)
            self.at += length
            return

    def _ahead(self, part: str, kind: str) -> None:
        """A shape said before its size is that of the sizes to come."""
        clause = self.shared.setdefault(f" {part}", _Clause())
        clause.words["kind"] = kind

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
        """The medium named here by parts of its name, and how many words name it: the most that name one."""
        best: tuple[str, int] | None = None
        for length in range(1, 4):
            said = [self._lower(ahead) for ahead in range(length)]
            if not all(re.fullmatch(r"[a-z-]{3,}", word) for word in said):
                break
            # A colour alone names no medium: in “white fondant” it says how it is coloured.
            key = None if all(word in COLOURS or word in PLAIN for word in said) else self._called(said)
            if key is None:
                if length > 1:
                    break
                continue
            best = key, length
        return best

    def _called(self, said: Sequence[str]) -> str | None:
        """The medium all of whose said words are parts of its name; also what is commonly said for it."""
        own = [SAID_MEDIA[word] for word in said if word in SAID_MEDIA]
        # Ganache is of chocolate, whether that is said or not.
        rest = [word for word in said if word not in SAID_MEDIA and not (word == "chocolate" and "ganache" in said)]
        for key, medium in self.media.items():
            if own and key not in own:
                continue
            parts = re.split(r"[ -]+", medium.name.lower())
            if all(any(part == word or part == word.rstrip("s") for part in parts) for word in rest):
                return key
        return None

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
            if self.tint:
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
        near = difflib.get_close_matches(token.text.lower(), self._known(), 1, 0.8)
        said = (
            f"Did you mean “{near[0]}”?"
            if near
            else (
                "This is not known here: say sizes, shapes, flavours, and what it is filled, coated and covered with."
            )
        )
        self.unread.append(Unread(start=token.start, end=token.end, message=said, meant=near[0] if near else None))
        self.at += 1

    def _known(self) -> list[str]:
        parts = {part for medium in self.media.values() for part in re.split(r"[ -]+", medium.name.lower())}
        kinds = {" ".join(words) for words in VOCABULARY if len(words) == 1}
        return sorted(parts | kinds | set(ROLES) | set(CAKES) | set(COLOURS) | {"layers", "tall"})

    # What it comes to.

    def _written(self) -> Said:
        """The line, and where each piece of it was said."""
        text, places = "", list[tuple[int, int, int, int]]()

        def add(piece: str, start: int, end: int) -> None:
            nonlocal text
            places.append((len(text), len(text) + len(piece), start, end))
            text += piece

        ahead = {
            part: self.shared.pop(f" {part}").words["kind"] for part in ("shape", "build") if f" {part}" in self.shared
        }
        shapes = [tier.shape for tier in self.tiers]
        # One shape said after the last size is meant for all of them; so is one said before the first.
        usual = ahead.get("shape") or (shapes[-1] if shapes and not any(shapes[:-1]) and shapes[-1] != SHEET else None)
        last = self.tiers[-1].clauses if self.tiers else dict[str, _Clause]()
        common = {**last, **{part: clause for part, clause in self.shared.items() if part not in last}}
        for index, tier in enumerate(self.tiers):
            if index:
                text += "; "
            add(_head(tier, tier.shape or usual, tier.build or ahead.get("build")), tier.start, tier.end)
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
    words.append(kind_word(shape or "round"))
    if tier.long_mm is not None:
        words.append(f"length {length_written(round(tier.long_mm, 3))}")
    if build:
        words.append(kind_word(build))
    return " ".join(words)


_ORDER = ("kind", "medium", "colour", "length", "dam", "count", "height", "cake")


def _clause_line(part: str, clause: _Clause) -> str:
    return " ".join([part, *(clause.words[name] for name in _ORDER if name in clause.words)])
