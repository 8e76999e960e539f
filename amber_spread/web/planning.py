"""Live planning, and what the screen needs to know once: media, usual values, limits and rules."""

from collections.abc import Mapping
from functools import cache, partial
from typing import Annotated, Any, get_args

from fastapi import APIRouter, Body, Depends, HTTPException, Response

from amber_spread.core.clock import Places
from amber_spread.core.clock.solver import MOST_S
from amber_spread.core.design.habits import HABITS, HANDLINGS, SHARES, Habit, Handling
from amber_spread.core.design.kinds import FIELD_NEEDS, PARTS
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.rows import Choice, Kind
from amber_spread.core.document import Document, FileError
from amber_spread.core.kernel.base import Frozen
from amber_spread.core.kernel.figures import RULES, Figure, RuleText
from amber_spread.core.kernel.limits import LIMITS, MAX_FILE_BYTES, Limit
from amber_spread.core.kernel.progress import Heard
from amber_spread.core.plan import Plan
from amber_spread.core.stock.contents import Contents
from amber_spread.core.stock.goods import GOODS
from amber_spread.core.stock.kit import STARTING, TIN_WORDS, Kit, ShapedBoard
from amber_spread.core.stock.media import LIBRARY, MEDIUM_KINDS, Allergen, Medium, MediumKind, kinds_that
from amber_spread.core.stock.supports import SORTS, TEST_STEPS
from amber_spread.core.tier import BOARD_SHAPES
from amber_spread.jobs.designs import Inputs, figure_of, without_its_workings, written
from amber_spread.web.caller import CallerOf
from amber_spread.web.errors import unusable
from amber_spread.web.lines import IN_LINES, LINES, in_lines, problem_line
from amber_spread.web.planner import PlannerOf, sent_as

router = APIRouter(tags=["planning"])


WORK = {
    "distances": "How far every place is from the cake",
    "climbed": "What lies at every height",
    "slices": "The layers",
    "templates": "Their templates",
    "openings": "What is cut out of it",
    "hollows": "Its hollows",
    "draped": "How the sheet lies",
    "reach": "How far the sheet reaches",
    "draped halves": "How the halves lie",
    "patches": "The patches",
    "drawn patches": "Their edges",
    "tins": "The tins",
    "one more tin": "Whether one tin more would save any",
}
"""What takes long of a carved cake, by the name it is kept under, as it is said; about in the order of the work."""


class PartKinds(Frozen):
    """A part of a tier, by its path in the file, and every kind of it."""

    path: str
    kinds: list[Kind]


class Handbook(Frozen):
    """What does not change while the program runs. `words` are the names and words of other things to choose among,
    `field_media` the kinds of medium that a field of its own may name. Better hours are looked for `search_s` at most.
    """

    media: list[Medium]
    parts: list[PartKinds]
    field_media: dict[str, list[MediumKind]]
    words: dict[str, list[Choice]]
    practice: Practice
    practice_in_inches: Practice
    habits: list[Habit]
    handlings: list[Handling]
    shares: dict[str, str]
    limits: dict[str, Limit]
    rules: dict[str, RuleText]
    max_file_bytes: int
    search_s: float
    kit: Kit
    places: Places
    goods: dict[str, str]
    support_test: list[str]


async def _inputs(
    document: Annotated[Document, Body()],
    kit: Annotated[Kit | None, Body()] = None,
    contents: Annotated[Contents | None, Body()] = None,
) -> Inputs:
    return Inputs(document, kit, contents)


InputsOf = Annotated[Inputs, Depends(_inputs)]


@router.post("/plan", response_model=Plan)
async def plan(inputs: InputsOf, caller: CallerOf, planner: PlannerOf) -> Response:
    """Every figure of a design, held against what the kitchen owns and makes. Nothing is stored."""
    # Written out here, since FastAPI would first validate the whole plan again, which takes longer than planning.
    with sent_as("document"):
        return Response(await planner.run(caller, written, inputs), media_type="application/json")


@router.post("/plan/parts", response_class=Response, responses=IN_LINES)
async def plan_in_parts(inputs: InputsOf, caller: CallerOf, planner: PlannerOf) -> Response:
    """The plan with its progress: a line of JSON for each part of the work as it begins (`part` and the `share` done),
    and last the `plan`, or the `problem` with the design. Figures come without their workings (`given` is null).
    """
    try:
        with sent_as("document"):
            found = await planner.at_once(caller, without_its_workings, inputs)
    except FileError as error:
        return Response(problem_line(unusable(error.complaints)), media_type=LINES)
    if found is not None:
        return Response(f'{{"plan":{found}}}\n', media_type=LINES)
    furthest = 0

    async def ask(heard: Heard) -> str:
        with sent_as("document"):
            return await planner.elsewhere(caller, without_its_workings, inputs, heard)

    def part_of(name: str) -> dict[str, Any] | None:
        nonlocal furthest
        if name not in WORK:
            return None
        furthest = max(furthest, list(WORK).index(name))
        return {"part": WORK[name], "share": round(furthest / len(WORK), 2)}

    return in_lines("plan", ask, part_of)


@router.post("/plan/figure")
async def figure_with_working(
    figure: Annotated[str, Body(max_length=400)], inputs: InputsOf, caller: CallerOf, planner: PlannerOf
) -> Figure:
    """One figure of a plan, by its id, with its working. Nothing is stored."""
    with sent_as("document"):
        found = await planner.run(caller, partial(figure_of, figure), inputs)
    if not found:
        raise HTTPException(404, "This plan has no such figure")
    return found[0]


@router.post("/read")
def read(document: Document) -> Document:
    """A design file as today's format says it, whatever format it was written in. Nothing is stored."""
    return document


@router.get("/handbook", response_model=Handbook)
def handbook() -> Response:
    """The media that come with the program, the starting practice and kit, the limits and every rule."""
    return Response(_handbook(), media_type="application/json")


@cache
def _handbook() -> str:
    """The handbook as JSON. It never changes, and writing it takes longer than most plans."""
    found = Handbook(
        media=list(LIBRARY),
        parts=[PartKinds(path="/".join(part.path), kinds=list(part.kinds.values())) for part in PARTS],
        field_media={field: list(kinds_that(*needs)) for field, needs in FIELD_NEEDS.items()},
        words=_words(),
        practice=Practice(),
        practice_in_inches=Practice.in_inches(),
        habits=list(HABITS),
        handlings=list(HANDLINGS),
        shares=SHARES,
        limits=LIMITS,
        rules=RULES,
        max_file_bytes=MAX_FILE_BYTES,
        search_s=MOST_S,
        kit=STARTING,
        places=Places(),
        goods=GOODS,
        support_test=list(TEST_STEPS),
    )
    return found.model_dump_json()


def _words() -> dict[str, list[Choice]]:
    """What is chosen among beside the kinds of a tier's parts: each list in the order its own type has."""
    lists: dict[str, Mapping[Any, str]] = {
        "media": MEDIUM_KINDS,
        "allergens": {name: name for name in get_args(Allergen)},
        "tins": TIN_WORDS,
        "boards": BOARD_SHAPES,
        "supports": {sort: words.many for sort, words in SORTS.items()},
        "boards owned": {name: name for name in get_args(ShapedBoard.model_fields["shape"].annotation)},
    }
    return {
        name: [Choice(value=value, words=words) for value, words in entries.items()] for name, entries in lists.items()
    }
