"""What jobs do with a design file: functions of plain values.

Nothing of the web or the database is imported here: each job has a process of its own, which would import it again.
"""

import logging
import pickle
import zlib
from collections.abc import Callable
from typing import Annotated, Any, NamedTuple, TypeAlias, TypeVar

from pydantic import Field

from amber_spread.core.cake import seen_round, volume_for
from amber_spread.core.design.builds import Bodied, JoinedBuild, ModelledBuild
from amber_spread.core.design.practice import Practice
from amber_spread.core.document import Document, FileError, carved_bodies, plan_document, worked_tiers
from amber_spread.core.geometry.bodies.bare import BareBody, made_of, take_over
from amber_spread.core.geometry.bodies.sliced import Level
from amber_spread.core.kernel import limits
from amber_spread.core.kernel.base import Frozen
from amber_spread.core.kernel.figures import Figure, without_workings
from amber_spread.core.kernel.naming import figures
from amber_spread.core.stock.contents import Contents
from amber_spread.core.stock.kit import Kit
from amber_spread.core.tier import Envelope, PlannedTier, RoundView, envelope_of, levels_of
from amber_spread.jobs.calls import WithEntry
from amber_spread.papers.model_writing import ModelKind, write_model

log = logging.getLogger("amber_spread")
T = TypeVar("T")


class Inputs(NamedTuple):
    """Everything a plan depends on."""

    document: Document
    kit: Kit | None = None
    contents: Contents | None = None


Work: TypeAlias = Callable[[Document, Kit | None, Contents | None], T]


class Known(NamedTuple):
    """An entry of the body cache: the bodies of a design, and what they were made of, with all computed results."""

    bodies: tuple[BareBody, ...]
    made: dict[str, Any]


EMPTY = Known((), {})


def unpack(entry: bytes | None) -> Known:
    """An entry of the body cache. EMPTY if there is none, or if it is damaged."""
    if entry is None:
        return EMPTY
    try:
        # Only this program writes there, into a database of its own.
        known: Known = pickle.loads(zlib.decompress(entry))
    except Exception:  # a damaged pickle may raise any of them
        log.exception("a cached body cannot be read and is computed again")
        return EMPTY
    return known


class Wanted(Frozen):
    """A body, and the height, length, volume or number of portions wanted of it; its own size if none is given.

    The size of a portion is in `practice`, or is the usual one.
    """

    build: Annotated[JoinedBuild | ModelledBuild, Field(discriminator="kind")]
    height_mm: Annotated[float, limits.SOLID_SIZE.field()] | None = None
    length_mm: Annotated[float, limits.SOLID_SIZE.field()] | None = None
    volume_ml: Annotated[float, limits.BODY_VOLUME.field()] | None = None
    portions: Annotated[int, limits.SERVINGS.field()] | None = None
    practice: Practice | None = None


class Width(Frozen):
    """How wide a body is to be."""

    width_mm: float


def width_of(wanted: Wanted) -> Width:
    """How wide a body is at the size that is wanted of it. Raises ValueError where it cannot be made."""
    volume_ml, usual = wanted.volume_ml, wanted.practice or Practice()
    if wanted.portions is not None:
        size = usual.portion_wide_mm, usual.portion_deep_mm, usual.portion_high_mm
        volume_ml = volume_for(wanted.portions, *size)
    return Width(width_mm=wanted.build.width_for(wanted.height_mm, wanted.length_mm, volume_ml))


def with_bodies(work: Work[T], inputs: Inputs, entry: bytes | None = None) -> WithEntry:
    """Run a job on a design file with the cached results of its bodies.

    The result is a pair: what the job found, and whether the entry changed. A FileError is such a result, not raised:
    what was computed until then is cached too, so the same file fails faster the next time.
    """
    known = unpack(entry)
    take_over(known.bodies, known.made)
    before = {body.key: body.known for body in known.bodies}
    found: T | FileError
    try:
        found = work(*inputs)
    except FileError as error:
        found = error
    bodies = tuple(carved_bodies(inputs.document))
    made = made_of(tier.build.made_key for tier in inputs.document.design.tiers if isinstance(tier.build, Bodied))
    if all(body.known == before.get(body.key) for body in bodies) and made.keys() <= known.made.keys():
        return WithEntry((found, False), None)
    return WithEntry((found, True), zlib.compress(pickle.dumps(Known(bodies, {**known.made, **made})), 1))


def written(document: Document, kit: Kit | None, contents: Contents | None) -> str:
    """The plan of a design file as JSON. Raises FileError where it cannot be planned."""
    return plan_document(document, kit, contents).model_dump_json()


def without_its_workings(document: Document, kit: Kit | None, contents: Contents | None) -> str:
    """The same, with null for the `given` of every figure."""
    planned = plan_document(document, kit, contents)
    with without_workings():
        return planned.model_dump_json()


def figure_of(id: str, document: Document, kit: Kit | None, contents: Contents | None) -> list[Figure]:
    """The figure of a plan with this id, with its working; none if there is no such figure. Raises FileError."""
    return [figure for figure in figures(plan_document(document, kit, contents)) if figure.id == id]


def tier_in_the_round(
    tier: int, cut_open: bool, document: Document, kit: Kit | None, _: Contents | None
) -> RoundView | None:
    """A tier, counted from 0, in the round; nothing of one that is not carved. Raises FileError likewise."""
    return next((seen_round(done, cut_open, (kit or Kit()).tins) for done in _worked(tier, document, kit)), None)


def tier_levels(tier: int, document: Document, kit: Kit | None, _: Contents | None) -> list[Level]:
    """A tier, counted from 0, cut level; nothing of one that is not carved. Raises FileError likewise."""
    return [level for done in _worked(tier, document, kit) for level in levels_of(done)]


def tier_as_model(
    tier: int, of: Envelope, kind: ModelKind, document: Document, kit: Kit | None, _: Contents | None
) -> bytes | None:
    """A tier, counted from 0, as a 3D file; nothing of one that is not carved. Raises FileError likewise."""
    found = next((envelope_of(done, of) for done in _worked(tier, document, kit)), None)
    return None if found is None else write_model(*found, kind)


def _worked(tier: int, document: Document, kit: Kit | None) -> list[PlannedTier]:
    """The tier as its rooms left it; none where there is no such tier."""
    return worked_tiers(document, kit)[tier : tier + 1]
