"""One reading of a line that is written with its signs: its pieces, heads and clauses, into a design."""

from collections.abc import Iterable, Iterator, Mapping
from typing import Any, NamedTuple

from pydantic import BaseModel, ValidationError

from amber_spread.core.design.complaints import complaints_of
from amber_spread.core.design.design import Design, Layers, Tier
from amber_spread.core.design.finishes import OnTop, SoftFilling
from amber_spread.core.design.forms import BUILDS, SHAPES
from amber_spread.core.design.part_ids import ids_carried_over, typed_fields
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.rows import DesignPart, Kind
from amber_spread.core.design.settled import SettledTier
from amber_spread.core.design.shapes import FreeShape, HeartShape
from amber_spread.core.kernel.base import Frozen
from amber_spread.core.kernel.units import LengthUnit
from amber_spread.core.line.quick_media import find_medium, usual_role
from amber_spread.core.line.quick_values import SEVERAL, STROKE, Terms, lengths, stripes
from amber_spread.core.line.quick_words import (
    CLAUSES,
    NESTED,
    WHOLE,
    CannotRead,
    Token,
    Unread,
    drawn_fields,
    find_kind,
    read_length,
    read_number,
    tokens_of,
    word_of,
)
from amber_spread.core.stock.media import Medium
from amber_spread.core.tier import cut_for_height

LAYER_MM = 30.0
"""Where the line gives only a height, as many layers are stacked as come nearest to this cut."""
NEW_COLOURS = ("#E3A63A", "#EBD3CC", "#9DAF86", "#74838C", "#B4374A", "#F3E6C4", "#5A3524", "#8FB7C4")


class LineRead(Frozen):
    """What a line says: its design where all of it could be read, and each stretch that could not."""

    design: Design | None
    unread: list[Unread]


class Read(NamedTuple):
    """A line read as it is written; `worked` says that all of it was understood, whether or not it can be made."""

    design: Design | None
    unread: list[Unread]
    worked: bool

    def told(self) -> LineRead:
        """As it is told."""
        return LineRead(design=self.design, unread=self.unread)


def split(text: str, sign: str, offset: int = 0) -> Iterator[tuple[int, str]]:
    """The pieces between signs that do not stand in quotes, each with where it begins."""
    start, quoted = 0, False
    for index, character in enumerate(text):
        quoted ^= character == '"'
        if character == sign and not quoted:
            yield start + offset, text[start:index]
            start = index + 1
    yield start + offset, text[start:]


class Reader:
    """One reading of a line: it gathers what cannot be read as it goes."""

    def __init__(self, media: dict[str, Medium], practice: Practice, unit: LengthUnit, in_hand: Design | None) -> None:
        self.media, self.practice, self.unit, self.in_hand = media, practice, unit, in_hand
        self.terms = Terms(unit, media)
        self.unread: list[Unread] = []
        self.spans: dict[int, tuple[int, int]] = {}

    def told(self) -> list[Unread]:
        """What could not be read, each stretch once, in the order of the line."""
        found = {(one.start, one.end): one for one in self.unread}
        return [found[key] for key in sorted(found)]

    def part_at(self, piece: str) -> str:
        """The opening word of a clause, as the part it stands for."""
        tokens = tokens_of(piece)
        if not tokens:
            return ""
        word = tokens[0].text.lower()
        known = {part.word for part in CLAUSES} | {one.word for one in WHOLE} | {"named", "colour", "order"}
        if word in known:
            return word
        found = find_medium(tokens, self.media)
        return usual_role(self.media[found[0]]) if found else word

    def twice(self, piece: str, start: int) -> None:
        """A part that is said twice is asked about: one of the two would be forgotten silently."""
        tokens = tokens_of(piece, start)
        words = "This is said of a part that was said already: leave one of them out, or say what each is for."
        self.unread.append(Unread(start=tokens[0].start, end=tokens[-1].end, message=words))

    def of_cake(self, piece: str, start: int, design: dict[str, Any]) -> bool:
        """Read a clause that belongs to the whole cake; False when it is one of every tier's."""
        tokens = tokens_of(piece, start)
        word = tokens[0].text.lower() if tokens else ""
        whole = next((one for one in WHOLE if one.word == word), None)
        if whole is not None:
            with _caught(self):
                values: dict[str, Any] = {}
                self.fields(tokens[1:], whole.model, whole.leading, values, tokens[0])
                design[whole.field] = values
            return True
        if word == "order":
            with _caught(self):
                design.setdefault("orders", []).append(self.order(tokens, start, start + len(piece)))
            return True
        if word == "colour":
            with _caught(self):
                design["colours"].append(self.colour(tokens, start, start + len(piece)))
            return True
        return False

    def of_tiers(self, pieces: Iterable[tuple[int, str]], design: dict[str, Any]) -> list[tuple[int, str]]:
        """The clauses that are every tier's; those of the whole cake are read into the design."""
        return [(start, piece) for start, piece in pieces if piece.strip() and not self.of_cake(piece, start, design)]

    def done(self, design: dict[str, Any], end: int) -> Read:
        """What came of it."""
        return Read(None, self.told(), False) if self.unread else self.finish(design, end)

    def order(self, tokens: list[Token], start: int, end: int) -> dict[str, Any]:
        """What is decided of a bowl: its key, what of it is there, and the order of its steps."""
        if len(tokens) < 2 or tokens[1].kind != "text":
            raise CannotRead(start, end, 'An order is given as: order "fondant" have 400 tier_2_cover / …')
        decided: dict[str, Any] = {"bowl": tokens[1].unquoted}
        rest = tokens[2:]
        if len(rest) > 1 and rest[0].text.lower() == "have":
            decided["have_g"], rest = read_number(rest[1]), rest[2:]
        return {**decided, "steps": [token.text for token in rest if token.text != "/"]}

    def colour(self, tokens: list[Token], start: int, end: int) -> dict[str, Any]:
        """A colour: its name, how it is shown, and what it is blended of."""
        if len(tokens) < 3 or tokens[1].kind != "text" or tokens[2].kind != "hex":
            raise CannotRead(
                start, end, 'A colour is given as: colour "ivory" #F3E6C4, or with of "honey" 1 / plain 3 when blended.'
            )
        colour: dict[str, Any] = {"name": tokens[1].unquoted, "hex": tokens[2].text}
        rest = tokens[3:]
        if rest and rest[0].text.lower() == "marbled":
            colour["marbled"], rest = True, rest[1:]
        if rest and rest[0].text.lower() == "of":
            if len(rest) < 2:
                raise CannotRead(rest[0].start, end, 'What it is blended of belongs here: of "honey" 1 / plain 3.')
            parts, rest = stripes(rest[1:], self.terms)
            colour["parts"] = [{"colour": part["colour"], "parts": part.get("share", 1.0)} for part in parts]
        if rest:
            raise CannotRead(rest[0].start, end, 'Only “marbled” and “of "honey" 1 / plain 3” may follow a colour.')
        return colour

    def head(self, piece: str, start: int, index: int) -> dict[str, Any]:
        """The head of a tier: tin, height, shape and build."""
        tokens = tokens_of(piece, start)
        tier: dict[str, Any] = {}
        values: dict[str, Any]
        with _caught(self):
            if not tokens:
                raise CannotRead(
                    start, start + max(1, len(piece)), "A tier begins with its tin, such as 8 in x 4 in round."
                )
            tier["tin_diameter_mm"] = read_length(tokens[0], self.unit)
            rest = tokens[1:]
            if rest and rest[0].text.lower() in ("x", "×"):
                if len(rest) < 2:
                    raise CannotRead(rest[0].start, rest[0].end, "A height belongs after the x, such as 8 in x 4 in.")
                second = read_length(rest[1], self.unit)
                rest = rest[2:]
                if second > tier["tin_diameter_mm"] and not rest:
                    # 9 x 13 is a sheet, and no tower: a height beyond the tin is said with its shape.
                    tier["shape"] = {"kind": "rectangle", "length_mm": second}
                else:
                    tier["layers"] = {"target_height_mm": second}
            shape, rest = self.kind(rest, SHAPES)
            if shape is not None:
                values = {"kind": shape.model_fields["kind"].default}
                rest = self.fields(rest, shape, None, values, tokens[0], partly=True)
                if drawn_fields(shape):
                    values |= self.drawn_in_hand(index, "shape", shape, tokens[-1])
                tier["shape"] = _begun(shape, SHAPES[shape], tier) | values
            build, rest = self.kind(rest, BUILDS)
            if build is not None:
                values = {"kind": build.model_fields["kind"].default}
                rest = self.fields(rest, build, BUILDS[build].leading, values, tokens[0], partly=True)
                if drawn_fields(build):
                    values |= self.drawn_in_hand(index, "build", build, tokens[-1])
                tier["build"] = _begun(build, BUILDS[build], tier) | values
            if rest:
                raise CannotRead(
                    rest[0].start,
                    rest[-1].end,
                    "This is neither a shape (round, square, hexagon, oval, heart, petal …) nor a way to rise "
                    "(tapered, domed, ball …).",
                )
        return tier

    def drawn_in_hand(self, index: int, field: str, model: type[BaseModel], token: Token) -> dict[str, Any]:
        """What of a part is drawn, which no line can hold: that of the tier in hand, or for a build what it begins
        with.
        """
        tiers = self.in_hand.tiers if self.in_hand else ()
        names = drawn_fields(model)
        if index < len(tiers) and isinstance(part := getattr(tiers[index], field), model):
            return {name: getattr(part, name) for name in names}
        if model in BUILDS:
            return {}
        raise CannotRead(token.start, token.end, "A free outline is read from a drawing, in the Brief lens.")

    def kind(
        self, tokens: list[Token], kinds: Mapping[type[BaseModel], Kind]
    ) -> tuple[type[BaseModel] | None, list[Token]]:
        """The kind named at the head of the tokens, if they name one, and the tokens after it."""
        found = find_kind(tokens, kinds)
        return (None, tokens) if found is None else (found[0], tokens[found[1] :])

    def clause(self, piece: str, start: int, tier: dict[str, Any]) -> None:
        """One clause of a tier."""
        tokens = tokens_of(piece, start)
        if not tokens:
            return
        with _caught(self):
            word = self.part_at(piece)
            if word == "named":
                if len(tokens) != 2 or tokens[1].kind != "text":
                    raise CannotRead(tokens[0].start, tokens[-1].end, 'A name stands in quotes: named "Top hive".')
                tier["name"] = tokens[1].unquoted
                return
            part = next((one for one in CLAUSES if one.word == word), None)
            if part is None:
                words = ", ".join(one.word for one in CLAUSES)
                raise CannotRead(tokens[0].start, tokens[0].end, f"A clause begins with one of: {words}, or a medium.")
            opening = tokens[0]
            rest = tokens[1:] if tokens[0].text.lower() == part.word else tokens
            model, rest = self.kind(rest, part.kinds)
            now = _now(tier, part)
            model = model or self.guess(part, rest, now)
            values: dict[str, Any] = {}
            if "kind" in model.model_fields:
                values["kind"] = model.model_fields["kind"].default
            if model is OnTop:
                shape, rest = self.kind(rest, {model: kind for model, kind in SHAPES.items() if model is not FreeShape})
                held: dict[str, Any] = {"kind": (shape or HeartShape).model_fields["kind"].default}
                rest = self.fields(rest, shape or HeartShape, None, held, opening, partly=True)
                values["shape"] = held
            self.fields(rest, model, part.kinds[model].leading, values, opening)
            # What the tier in hand has of the same kind stays, where nothing else is said.
            before = now if now.get("kind") == values.get("kind") else {}
            self.put(tier, part, _begun(model, part.kinds[model], tier) | before | values)

    def guess(self, part: DesignPart, tokens: list[Token], now: Mapping[str, Any]) -> type[BaseModel]:
        """The kind a clause means when it does not say: soft where it runs or a dam is named, else that of the tier in
        hand where it takes such a medium, else the first.
        """
        found = find_medium(tokens, self.media)
        if part.word == "fill":
            if any(token.text.lower() == "dam" for token in tokens) or (found and self.media[found[0]].soft):
                return SoftFilling
            return next(iter(part.kinds))
        own = next((model for model, kind in part.kinds.items() if now and kind.kind == now.get("kind")), None)
        return own if own and (found is None or "medium" in own.model_fields) else next(iter(part.kinds))

    def put(self, tier: dict[str, Any], part: DesignPart, values: dict[str, Any]) -> None:
        """Set what a clause says at its place in the tier."""
        if part.many:
            tier.setdefault(part.path[0], []).append(values)
            return
        holder = tier
        for step in part.path[:-1]:
            holder = holder.setdefault(step, {})
        holder[part.path[-1]] = values

    def fields(
        self,
        tokens: list[Token],
        model: type[BaseModel],
        leading: str | None,
        values: dict[str, Any],
        opening: Token,
        partly: bool = False,
    ) -> list[Token]:
        """Read fields of a model into `values`; gives back what is left, which must be nothing unless `partly`."""
        names = typed_fields(model)
        words: dict[str, list[str]] = {}
        for name in names:
            if name not in ("kind", *NESTED, *drawn_fields(model)) and not (name == "shape" and model is OnTop):
                words.setdefault(word_of(name), []).append(name)
        longest = max((len(word.split()) for word in words), default=0)
        while tokens:
            token = tokens[0]
            said = next(
                (
                    length
                    for length in range(longest, 0, -1)
                    if length <= len(tokens) and " ".join(one.text.lower() for one in tokens[:length]) in words
                ),
                0,
            )
            if said and " ".join(one.text.lower() for one in tokens[:said]) in words:
                tokens = self.named(words[" ".join(one.text.lower() for one in tokens[:said])], tokens, said, values)
            elif token.kind == "text" and "colour" in names:
                values["colour"], tokens = token.unquoted, tokens[1:]
            elif model is Layers and token.kind == "number" and "count" not in values:
                values["count"], tokens = read_number(token), tokens[1:]
                tokens = tokens[1:] if tokens and tokens[0].text.lower() in ("of", "x", "×") else tokens
            elif token.kind in ("length", "number") and leading and leading not in values:
                values[leading], tokens = read_length(token, self.unit), tokens[1:]
                if leading == "side_mm" and "top_mm" not in values:
                    values["top_mm"] = values[leading]
            elif "medium" in names and (found := find_medium(tokens, self.media)) is not None:
                values["medium"], tokens = found[0], tokens[found[1] :]
            elif token.text.lower() == "dam" and model is SoftFilling:
                tokens = self.dam(tokens[1:], values)
            elif partly:
                return tokens
            else:
                known = ", ".join(sorted(words))
                raise CannotRead(
                    token.start,
                    token.end,
                    f"This is not known after “{opening.text}”. Known are: {known or 'nothing more'}.",
                )
        return tokens

    def dam(self, tokens: list[Token], values: dict[str, Any]) -> list[Token]:
        """A dam, with its medium and width where they are said."""
        found = find_medium(tokens, self.media) if tokens and tokens[0].kind == "word" else None
        if found:
            values["dam_medium"], tokens = found[0], tokens[found[1] :]
        if tokens and tokens[0].kind == "length":
            values["dam_width_mm"], tokens = read_length(tokens[0], self.unit), tokens[1:]
        return tokens

    def named(self, fields: list[str], tokens: list[Token], said: int, values: dict[str, Any]) -> list[Token]:
        """The value after a field's own word."""
        label, rest = tokens[said - 1], tokens[said:]
        if not rest:
            raise CannotRead(tokens[0].start, label.end, "A value belongs after this.")
        token = rest[0]
        if token.text in ("-", "−") and len(rest) > 1 and rest[1].kind == "number":
            values[fields[0]] = -read_number(rest[1])
            return rest[2:]
        measured = token.kind in ("length", "number")
        field = next((one for one in fields if one.endswith("_mm") == measured), fields[0])
        if token.text.lower() == "none" and field not in ("top", "at"):
            values[field] = None
        elif (several := SEVERAL.get(field)) is not None:
            values[field], rest = several(rest, self.terms)
            return rest
        elif field.endswith("_mm") and len(rest) > 1 and rest[1].text == STROKE:
            values[field], rest = lengths(rest, self.terms)
            return rest
        elif field.endswith("medium"):
            found = find_medium(rest, self.media)
            if found is None:
                raise CannotRead(
                    token.start, token.end, f"No medium is called that; known are {', '.join(self.media)}."
                )
            values[field] = found[0]
            return rest[found[1] :]
        elif field.endswith("colour"):
            values[field] = token.unquoted if token.kind == "text" else token.text
        elif field.endswith("_mm"):
            values[field] = read_length(token, self.unit)
        elif token.kind == "number":
            values[field] = read_number(token)
        else:
            values[field] = {"yes": True, "no": False}.get(token.text.lower(), token.text.lower())
        return rest[1:]

    def finish(self, design: dict[str, Any], end: int) -> Read:
        """The design, with layers that reach the heights asked for and the colours it names."""
        shown = {colour.name: colour for colour in self.in_hand.colours} if self.in_hand else {}
        try:
            for tier in design["tiers"]:
                self.reach(tier)
            named = [colour["name"] for colour in design["colours"]]
            wanted = list(_colours_in(design["tiers"]))
            for name in wanted:
                if name in named:
                    continue
                named.append(name)
                kept = shown.get(name)
                if kept is None:
                    design["colours"].append({"name": name, "hex": NEW_COLOURS[(len(named) - 1) % len(NEW_COLOURS)]})
                else:
                    design["colours"].append(kept.model_dump())
                    wanted.extend(part.colour for part in kept.parts if part.colour is not None)
            if self.in_hand is not None:
                before = [tier.model_dump(mode="json") for tier in self.in_hand.tiers]
                design["tiers"] = ids_carried_over(design["tiers"], before)
            for colour in design["colours"]:
                if colour["name"] in shown:
                    colour["id"] = shown[colour["name"]].id
            return Read(Design.model_validate(design), [], True)
        except ValidationError as error:
            for complaint in complaints_of(error.errors(include_url=False, include_input=False)):
                path = complaint.pointer.split("/")[1:]
                tier = int(path[1]) if len(path) > 1 and path[0] == "tiers" else -1
                start, stop = self.spans.get(tier, (0, end))
                field = next((part for part in reversed(path) if not part.isdecimal()), "this")
                message = f"{word_of(field).capitalize()} {complaint.message}."
                self.unread.append(Unread(start=start, end=max(stop, start + 1), message=message))
            return Read(None, self.told(), True)

    def reach(self, tier: dict[str, Any]) -> None:
        """Where only a height is given, the layers and the cut that reach it."""
        layers = tier.get("layers", {})
        target = layers.get("target_height_mm")
        if target is None or "count" in layers or "height_mm" in layers:
            return
        made = SettledTier(Tier.model_validate({**tier, "layers": {}}), self.practice)
        filling, bare = made.filling.value, target - made.above_mm
        count = max(1, min(12, round((bare + filling) / (LAYER_MM + filling))))
        layers["count"] = count
        layers["height_mm"] = round(max(5.0, min(150.0, cut_for_height(bare, count, filling))), 2)


def _now(tier: Mapping[str, Any], part: DesignPart) -> dict[str, Any]:
    """What a tier has of a part that it has one of."""
    now: Any = {} if part.many else tier
    for step in () if part.many else part.path:
        now = (now or {}).get(step) or {}
    return dict(now)


def _begun(model: type[BaseModel], kind: Kind, tier: Mapping[str, Any]) -> dict[str, Any]:
    """What a kind begins with where it must be said and is not: as its row says, sizes as shares of the tin."""
    across_mm = tier.get("tin_diameter_mm", 0.0)
    begins = kind.begins | {name: round(share * across_mm, 1) for name, share in kind.of_tin.items()}
    return {name: value for name, value in begins.items() if model.model_fields[name].is_required()}


class _caught:
    """Keeps what cannot be read, and goes on with the rest of the line."""

    def __init__(self, reader: Reader) -> None:
        self.reader = reader

    def __enter__(self) -> None:
        return None

    def __exit__(self, kind: object, error: BaseException | None, trace: object) -> bool:
        if isinstance(error, CannotRead):
            self.reader.unread.append(error.unread)
            return True
        return False


def _colours_in(node: Any) -> Iterator[str]:
    """Every colour a design names, in its order."""
    if isinstance(node, dict):
        for name, value in node.items():
            if name.endswith("colour") and isinstance(value, str):
                yield value
            else:
                yield from _colours_in(value)
    elif isinstance(node, list):
        for one in node:
            yield from _colours_in(one)
