"""Answers that take long, as lines of JSON: one for each part of the work as it begins, and last the result."""

import asyncio
import json
from collections.abc import AsyncIterator, Awaitable, Callable
from typing import Any

from fastapi.responses import StreamingResponse

from amber_spread.core.document import FileError
from amber_spread.core.kernel.progress import Heard
from amber_spread.jobs.not_ready import NotReady, Unwanted
from amber_spread.web.errors import Problem, not_ready, unusable

LINES = "application/x-ndjson"
TOLD: dict[str, Any] = {"type": "string", "description": "A JSON object a line."}
IN_LINES: dict[int | str, dict[str, Any]] = {200: {"content": {LINES: {"schema": TOLD}}}}
"""How such an answer is described."""


def in_lines(
    name: str, ask: Callable[[Heard], Awaitable[str]], part_of: Callable[[str], dict[str, Any] | None]
) -> StreamingResponse:
    """The result of some work, which is JSON, as the line called `name`. Before it stands a line for each part of the
    work, as `part_of` has it; a part of which that is None is left out. Where there is no result, the last line is the
    `problem`.
    """
    return StreamingResponse(_lines(name, ask, part_of), media_type=LINES)


def problem_line(problem: Problem) -> str:
    """A line that says what is wrong."""
    return f'{{"problem":{problem.model_dump_json()}}}\n'


async def _lines(
    name: str, ask: Callable[[Heard], Awaitable[str]], part_of: Callable[[str], dict[str, Any] | None]
) -> AsyncIterator[str]:
    loop, parts = asyncio.get_running_loop(), asyncio.Queue[str | None]()

    def heard(part: str) -> None:
        loop.call_soon_threadsafe(parts.put_nowait, part)

    work = asyncio.ensure_future(ask(heard))
    work.add_done_callback(lambda _: parts.put_nowait(None))
    try:
        while (part := await parts.get()) is not None:
            line = part_of(part)
            if line is not None:
                yield json.dumps(line) + "\n"
        yield f'{{"{name}":{await work}}}\n'
    except FileError as error:
        yield problem_line(unusable(error.complaints))
    except NotReady as error:
        yield problem_line(not_ready(error))
    except Unwanted:
        return
    finally:
        work.cancel()
