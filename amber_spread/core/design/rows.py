"""What a row for a kind says, and how one is made: with its own words, and with what its type says by itself."""

from collections.abc import Callable, Mapping
from functools import cache, cached_property, partial
from typing import Any, Literal, NamedTuple

from pydantic import BaseModel, JsonValue, PrivateAttr, computed_field
from pydantic_core import to_jsonable_python

from amber_spread.core.design.part_ids import typed_fields
from amber_spread.core.design.silhouettes import ACROSS_MM, from_above, from_the_side, of_solid
from amber_spread.core.kernel.base import Frozen, Usual
from amber_spread.core.stock.media import Ability, MediumKind, kinds_that


class Ask(Frozen):
    """A number that a part of a design asks for: its field, what it is called, the limit it keeps to.

    `usual` is the value of the practice that is taken where it is left open, `left` what stands in the field then where
    there is none; `percent` one that is shown in hundredths. What is `one_tier` is a size of that tier alone, and is
    not given to the others with it. `figure` is where the figure that it becomes stands in the plan of its tier.
    """

    field: str
    words: str
    limit: str
    usual: str | None = None
    left: str | None = None
    percent: bool = False
    one_tier: bool = False
    figure: str | None = None


class Choice(Frozen):
    """One of a few ways, as it stands in the file and as people say it."""

    value: str | int | bool | None
    words: str


class Pick(Frozen):
    """A choice that a part of a design asks for."""

    field: str
    words: str
    choices: tuple[Choice, ...]


class Kind(Frozen):
    """One kind of a part of a design.

    In words: what it is called on a button, what is done (“drawn freehand”), what it is called in a sentence, and what
    else the quick line reads for it; `leading` is the field a bare length there sets. A new one begins as `begins`, its
    sizes shares of the tin (`of_tin`), with what the one before it had of `keeps`.

    In the work: its medium can do one of `needs`, as the kinds in `media` can. Then its technique in the practice; the
    disc or card it is scraped against and how many of those and of papers; whether a scraper and smoothers go over it;
    the builds it suits; whether it is cut out of a larger sheet. `top_field` and `side_field` are its fields that say
    how thick a coat lies on the top and at the side, `crumb` is the usual of the crumb coat below it, where that is
    another. Where it takes longer to plan from nothing than an everyday tier, `effort_ms` says how long (measured, and
    doubled): a build always, a shape where the wall is not straight. A `round_only` kind needs a round tin. A kind with
    its `own_outline` ignores the tier's shape.
    """

    kind: str
    words: str
    does: str = ""
    called: str = ""
    said: tuple[str, ...] = ()
    leading: str | None = None
    asks: tuple[Ask, ...] = ()
    picks: tuple[Pick, ...] = ()
    begins: dict[str, JsonValue] = {}
    of_tin: dict[str, float] = {}
    keeps: tuple[str, ...] = ()
    needs: tuple[Ability, ...] = ()
    media: tuple[MediumKind, ...] = ()
    technique: str = ""
    plate: Literal["disc", "card"] | None = None
    plates: int = 0
    papers: int = 0
    scraper: bool = False
    smoother: bool = False
    suits: tuple[str, ...] = ()
    cut_out: bool = False
    top_field: str | None = None
    side_field: str | None = None
    crumb: str | None = None
    effort_ms: float | None = None
    round_only: bool = False
    own_outline: bool = False
    _drawn: Callable[[], str] = PrivateAttr(default=str)

    @computed_field  # type: ignore[prop-decorator]
    @cached_property
    def icon(self) -> str:
        """Its silhouette, a path in a box of 24 by 24; drawn when it is first asked for."""
        return self._drawn()


class DesignPart(NamedTuple):
    """A part of a tier: where it stands in it, the word the quick line opens it with, its kinds, and whether a tier may
    have several. One that is `left` says nothing where it is as it would be left.
    """

    path: tuple[str, ...]
    word: str
    kinds: dict[type[BaseModel], Kind]
    many: bool = False
    left: bool = False


@cache
def usuals_of(model: type[BaseModel]) -> Mapping[str, str]:
    """Every field of a part of a design that may be left open, and the field of the practice that is taken then."""
    return {
        name: one.name for name, field in model.model_fields.items() for one in field.metadata if isinstance(one, Usual)
    }


def ask(field: str, words: str, limit: str, left: str | None = None, **more: Any) -> Ask:
    """A number that a kind asks for."""
    return Ask(field=field, words=words, limit=limit, left=left, **more)


def pick(field: str, words: str, *choices: tuple[str | int | bool | None, str]) -> Pick:
    """A choice that a kind asks for."""
    return Pick(field=field, words=words, choices=tuple(Choice(value=value, words=said) for value, said in choices))


def row(model: type[BaseModel], words: str, *asked: Ask | Pick, **more: Any) -> tuple[type[BaseModel], Kind]:
    """A row, with what the type itself says: its name, the usual of each field, what it is where nothing is said."""
    usual = usuals_of(model)
    fields = {name: model.model_fields[name] for name in typed_fields(model)}
    own = {name: each.get_default() for name, each in fields.items() if not each.is_required()}
    kept = {name: one for name, one in own.items() if one is not None and not isinstance(one, BaseModel)}
    begins = {name: to_jsonable_python(one) for name, one in kept.items()}
    begins |= more.pop("begins", {})
    found = Kind(
        kind=own.get("kind", ""),
        words=words,
        asks=tuple(one.model_copy(update={"usual": usual.get(one.field)}) for one in asked if isinstance(one, Ask)),
        picks=tuple(one for one in asked if isinstance(one, Pick)),
        begins=begins,
        round_only=getattr(model, "round_only", False),
        own_outline=getattr(model, "own_outline", False),
        media=kinds_that(*more.get("needs", ())),
        **more,
    )
    sizes = {name: share * ACROSS_MM for name, share in found.of_tin.items()}
    found._drawn = partial(_icon, model, begins | sizes)
    return model, found


def _icon(model: Any, begins: dict[str, Any]) -> str:
    """The silhouette of a shape or a build as it begins; nothing of any other part."""
    if hasattr(model, "outline"):
        return from_above(model(**begins).outline(ACROSS_MM))
    if hasattr(model, "itself"):
        return of_solid(model(**begins).itself())
    return from_the_side(model(**begins)) if hasattr(model, "profile") else ""
