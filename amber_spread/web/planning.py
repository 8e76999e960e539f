"""Live planning, and what the screen needs to know once: media, usual values, limits and rules."""

from collections.abc import Mapping
from typing import Annotated, Any, get_args

from fastapi import APIRouter, Body, Request, Response

from amber_spread.core.design.habits import HABITS, HANDLINGS, SHARES, Habit, Handling
from amber_spread.core.design.kinds import PARTS
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.rows import Choice, Kind
from amber_spread.core.document import Document
from amber_spread.core.kernel.base import Frozen
from amber_spread.core.kernel.figures import RULES, RuleText
from amber_spread.core.kernel.limits import LIMITS, MAX_FILE_BYTES, Limit
from amber_spread.core.plan import Plan
from amber_spread.core.stock.contents import Contents
from amber_spread.core.stock.goods import GOODS
from amber_spread.core.stock.kit import STARTING, Kit, ShapedBoard, TinShape
from amber_spread.core.stock.media import LIBRARY, MEDIUM_KINDS, Allergen, Medium
from amber_spread.core.stock.supports import SORTS, TEST_STEPS
from amber_spread.core.tier import BOARD_SHAPES
from amber_spread.web.planner import PlannerOf, sent_as

router = APIRouter(tags=["planning"])


class PartKinds(Frozen):
    """A part of a tier, by its path in the file, and every kind of it."""

    path: str
    kinds: list[Kind]


class Handbook(Frozen):
    """What does not change while the program runs. `words` are the names and words of other things to choose among."""

    media: list[Medium]
    parts: list[PartKinds]
    words: dict[str, list[Choice]]
    practice: Practice
    habits: list[Habit]
    handlings: list[Handling]
    shares: dict[str, str]
    limits: dict[str, Limit]
    rules: dict[str, RuleText]
    max_file_bytes: int
    kit: Kit
    goods: dict[str, str]
    support_test: list[str]


@router.post("/plan", response_model=Plan)
async def plan(
    document: Annotated[Document, Body()],
    kit: Annotated[Kit | None, Body()] = None,
    contents: Annotated[Contents | None, Body()] = None,
    *,
    request: Request,
    planner: PlannerOf,
) -> Response:
    """Every figure of a design, held against what the kitchen owns and makes. Nothing is stored."""
    # Written out here, since FastAPI would first validate the whole plan again, which takes longer than planning;
    # and on the event loop where it is soon done, since that takes less time than handing it to a thread and back.
    with sent_as("document"):
        return Response(await planner.written(request, document, kit, contents), media_type="application/json")


@router.post("/read")
def read(document: Document) -> Document:
    """A design file as today's format says it, whatever format it was written in. Nothing is stored."""
    return document


@router.get("/handbook")
def handbook() -> Handbook:
    """The media that come with the program, the starting practice and kit, the limits and every rule."""
    return Handbook(
        media=list(LIBRARY),
        parts=[PartKinds(path="/".join(part.path), kinds=list(part.kinds.values())) for part in PARTS],
        words=_words(),
        practice=Practice(),
        habits=list(HABITS),
        handlings=list(HANDLINGS),
        shares=SHARES,
        limits=LIMITS,
        rules=RULES,
        max_file_bytes=MAX_FILE_BYTES,
        kit=STARTING,
        goods=GOODS,
        support_test=list(TEST_STEPS),
    )


def _words() -> dict[str, list[Choice]]:
    """What is chosen among beside the kinds of a tier's parts: each list in the order its own type has."""
    lists: dict[str, Mapping[Any, str]] = {
        "media": MEDIUM_KINDS,
        "allergens": {name: name for name in get_args(Allergen)},
        "tins": {name: name for name in get_args(TinShape)},
        "boards": BOARD_SHAPES,
        "supports": {sort: words.many for sort, words in SORTS.items()},
        "boards owned": {name: name for name in get_args(ShapedBoard.model_fields["shape"].annotation)},
    }
    return {
        name: [Choice(value=value, words=words) for value, words in entries.items()] for name, entries in lists.items()
    }
