"""What media are called in a line: by their keys, their names, parts of those, and what the trade also calls them."""

import re
from collections.abc import Collection, Mapping, Sequence
from functools import cache, lru_cache
from itertools import takewhile

from amber_spread.core.design.kinds import PARTS
from amber_spread.core.design.part_ids import typed_fields
from amber_spread.core.line.quick_words import WHOLE, Token, phrases_of, tokens_of, word_of
from amber_spread.core.stock.media import LIBRARY, Medium

MOST_WORDS = 5
BY_KIND = {
    "fondant": "cover", "filling": "fill", "buttercream": "coat", "ganache": "coat", "frosting": "coat",
    "glaze": "coat", "chocolate": "coat", "syrup": "syrup",
}  # fmt: skip
"""What a medium is for where nothing says so, by its kind."""
ALSO = {
    "swiss": "meringue_buttercream", "italian": "meringue_buttercream", "smbc": "meringue_buttercream",
    "imbc": "meringue_buttercream", "french": "custard_buttercream", "german": "custard_buttercream",
    "ermine": "flour_buttercream", "sugarpaste": "fondant", "preserve": "raspberry_jam",
}  # fmt: skip
"""What media are also called. Source: common practice."""
COLOURS = {
    "ivory": "#F3E6C4", "cream": "#F6EBD0", "blush": "#EBD3CC", "pink": "#E9A9B4", "red": "#B3332E",
    "orange": "#DE8A3A", "yellow": "#EFCF62", "gold": "#C99A3B", "green": "#86A872", "sage": "#A9B89A",
    "blue": "#7FA3C4", "navy": "#2F4460", "lilac": "#C9B6DB", "purple": "#7C5A93", "brown": "#7B4E32",
    "black": "#2B2522", "grey": "#9A958E", "gray": "#9A958E",
}  # fmt: skip
"""Colours by name, as they are shown."""
PLAIN = frozenset(("white", "plain", "uncoloured"))


_OWN = frozenset(medium.key for medium in LIBRARY)
_SIGNS = ("none", "named", "colour", "order", "have", "of", "x", "marbled", "yes", "no", *COLOURS, *PLAIN)


@cache
def _reserved() -> frozenset[str]:
    """Every word that the line gives a meaning of its own: its clauses, kinds, fields and signs."""
    words = {*_SIGNS, *ALSO, *(whole.word for whole in WHOLE)}
    models = [model for part in PARTS for model in part.kinds] + [whole.model for whole in WHOLE]
    for part in PARTS:
        words |= {part.word, *(word for kind in part.kinds.values() for phrase in phrases_of(kind) for word in phrase)}
    for model in models:
        words |= {word for field in typed_fields(model) for word in word_of(field).split()}
    return frozenset(words)


def usual_role(medium: Medium) -> str:
    """The part a medium is for where nothing says so: what is soft fills."""
    return "fill" if medium.soft and medium.kind != "glaze" else BY_KIND[medium.kind]


@lru_cache(maxsize=256)
def _words_of(name: str) -> tuple[list[str], list[str]]:
    return name.lower().split(), re.split(r"[ -]+", name.lower())


def name_parts(medium: Medium) -> list[str]:
    """The words of a medium's name, at its hyphens too."""
    return _words_of(medium.name)[1]


def find_medium(tokens: Sequence[Token], media: Mapping[str, Medium]) -> tuple[str, int] | None:
    """The medium named at the head of `tokens`, and how many of them name it: by key, whole name, or parts of it."""
    if tokens and tokens[0].kind == "medium":
        key = tokens[0].text[1:]
        return (key, 1) if key in media else None
    words = [token.text.lower() for token in takewhile(lambda token: token.kind == "word", tokens[:MOST_WORDS])]
    if words and words[0] in media:
        return words[0], 1
    named = {part for medium in media.values() for part in name_parts(medium)}
    words = list(takewhile(lambda word: word in ALSO or _in_names(word, named), words))
    for length in range(len(words), 0, -1):
        whole = (key for key, medium in media.items() if _words_of(medium.name)[0] == words[:length])
        found = next(whole, None) or _by_parts(words[:length], media)
        if found is not None:
            return found, length
    return None


def _in_names(word: str, named: Collection[str]) -> bool:
    """Whether every hyphenated part of a word is in the names; a plural s does not matter."""
    return all(part in named or part.rstrip("s") in named for part in word.split("-"))


def _by_parts(said: Sequence[str], media: Mapping[str, Medium]) -> str | None:
    """The first medium all of whose said words are parts of its name, or are commonly said for it."""
    if all(word in COLOURS or word in PLAIN for word in said):
        return None  # In “white fondant” the colour alone names no medium.
    own = [ALSO[word] for word in said if word in ALSO]
    # Ganache is of chocolate, whether that is said or not.
    rest = [word for word in said if word not in ALSO and not (word == "chocolate" and "ganache" in said)]
    for key, medium in media.items():
        parts = name_parts(medium)
        if all(_in_names(word, parts) for word in rest) and (not own or key in own):
            return key
    return None


def medium_written(key: str, media: Mapping[str, Medium]) -> str:
    """A medium by its name, or by its key where the name would not be read back as it; with an = before the key where a
    word of it is one of the line's own.
    """
    name = media[key].name.lower() if key in media else key
    if key not in _OWN and any(word in _reserved() for word in (key, *re.split(r"[^a-z]+", name))):
        return f"={key}"
    plain = re.fullmatch(r"[a-z][a-z -]*", name) is not None
    return name if plain and find_medium(tokens_of(name), media) == (key, len(tokens_of(name))) else key
