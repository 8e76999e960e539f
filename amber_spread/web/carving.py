"""Bodies over HTTP: how wide one is to be, one read from a 3D file, one in the round, a picture to trace one over.

Nothing is stored.
"""

from functools import partial
from typing import Annotated

from fastapi import APIRouter, Query, Request, Response
from pydantic import Field

from amber_spread.core.document import Document, FileError, complaint_at
from amber_spread.core.geometry.bodies.sliced import Level
from amber_spread.core.kernel import limits
from amber_spread.core.kernel.base import Frozen
from amber_spread.core.tier import Envelope, RoundView
from amber_spread.jobs.designs import Inputs, Wanted, Width, tier_as_model, tier_in_the_round, tier_levels, width_of
from amber_spread.papers.model_reading import ModelError, ReadModel, Unit, Up, read_model
from amber_spread.papers.model_writing import MEDIA_TYPES, ModelKind
from amber_spread.papers.picture_reading import PictureError, ReadPicture, read_picture
from amber_spread.web.caller import CallerOf
from amber_spread.web.files import download
from amber_spread.web.kit import OwnedKit
from amber_spread.web.orders import OpenDocument
from amber_spread.web.planner import PlannerOf, sent_as

router = APIRouter(tags=["carving"])
WIDTH_S, MODEL_S, PICTURE_S = 5.0, 12.0, 8.0
TOO_MUCH = "takes too long to work out: leave some of it out"
TOO_LARGE = "This picture is too large to read. Save it smaller, and bring it again."
TOO_ROUGH = "This body takes too long to read. Save it with fewer triangles, as for printing, and bring it again."
BINARY = {"schema": {"type": "string", "format": "binary"}}


@router.post("/width")
async def width(wanted: Wanted, planner: PlannerOf, caller: CallerOf) -> Width:
    """How wide a body of solids or out of a 3D file is, by itself or at another size that is wanted of it."""
    try:
        return await planner.alone(caller, ValueError(TOO_MUCH), WIDTH_S, width_of, wanted)
    except ValueError as error:
        raise FileError([complaint_at(("build",), str(error))]) from error


class OfTier(Frozen):
    """A tier of a design file, counted from 0."""

    document: Document
    tier: Annotated[int, Field(ge=0, lt=limits.TIERS.high)] = 0


class Looked(OfTier):
    """A tier that is looked at in the round."""

    cut_open: bool = True


@router.post("/round")
async def round(looked: Looked, caller: CallerOf, planner: PlannerOf, kit: OwnedKit) -> RoundView | None:
    """A carved tier in the round, as triangles; nothing of any other tier."""
    with sent_as("document"):
        return await planner.elsewhere(
            caller, partial(tier_in_the_round, looked.tier, looked.cut_open), Inputs(looked.document, kit)
        )


@router.post("/levels")
async def levels(asked: OfTier, caller: CallerOf, planner: PlannerOf, kit: OwnedKit) -> list[Level]:
    """A carved tier without its coats, cut level from its foot to its top; nothing of any other tier."""
    with sent_as("document"):
        return await planner.elsewhere(caller, partial(tier_levels, asked.tier), Inputs(asked.document, kit))


@router.post("/model", openapi_extra={"requestBody": {"content": {"application/octet-stream": BINARY}}})
async def model(
    request: Request,
    planner: PlannerOf,
    caller: CallerOf,
    unit: Annotated[Unit, Query()] = "mm",
    up: Annotated[Up, Query()] = "z",
) -> ReadModel:
    """The body in a 3D file whose lengths are in that unit and of whose axes that one points up."""
    return await planner.alone(caller, ModelError(TOO_ROUGH), MODEL_S, read_model, await request.body(), unit, up)


@router.post("/picture", openapi_extra={"requestBody": {"content": {"image/jpeg": BINARY, "image/png": BINARY}}})
async def picture(request: Request, planner: PlannerOf, caller: CallerOf) -> ReadPicture:
    """A photograph as it is laid under a drawing: turned the way it was taken, and made small."""
    return await planner.alone(caller, PictureError(TOO_LARGE), PICTURE_S, read_picture, await request.body())


@router.get("/orders/{id}/body.{kind}", response_class=Response)
async def body_file(
    kind: ModelKind,
    caller: CallerOf,
    document: OpenDocument,
    planner: PlannerOf,
    kit: OwnedKit,
    tier: Annotated[int, Query(ge=1, le=int(limits.TIERS.high))] = 1,
    of: Envelope = "bare",
) -> Response:
    """A carved tier as a 3D file: bare, under its coats, or covered."""
    found = await planner.elsewhere(caller, partial(tier_as_model, tier - 1, of, kind), Inputs(document, kit))
    if found is None:
        raise FileError(
            [complaint_at(("design", "tiers", tier - 1, "build"), "is not carved, so that it has no 3D file")]
        )
    return download(f"{document.title} tier {tier} {of}.{kind}", MEDIA_TYPES[kind], found)
