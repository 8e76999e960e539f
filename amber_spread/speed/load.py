"""./amber load: many people editing at once, and how long each waits for the figures.

Every one has a three-tier cake of their own on a connection of their own, changes the tin of one tier, waits for the
plan, thinks, and changes the next. The server and these people share the machine, so on few cores its figures are the
worse for it.
"""

import asyncio
import itertools
import json
import statistics
import time
from collections.abc import Iterator
from datetime import date
from typing import NamedTuple

from amber_spread.core.stock.kit import STARTING
from amber_spread.demo.week import week
from amber_spread.kitchen import kitchen
from amber_spread.web.patient import LONGEST_KEPT_S

WARM_S = LONGEST_KEPT_S + 5.0
"""What is answered before then is not counted: the first process to be ready serves everybody until their connections
are renewed.
"""


class Answered(NamedTuple):
    """One edit: when it was answered, s of the clock; how long that took; with what status and how many bytes."""

    at: float
    seconds: float
    status: int
    size: int


def run_load(planners: int, think_s: float, seconds: float, workers: int) -> int:
    """Let so many people edit for so long, and print the figures. Returns the exit status: 1 where one was refused."""
    with kitchen(options=("--workers", str(workers))) as served:
        answered = asyncio.run(_all_edit(served.port, planners, think_s, seconds))
    times = sorted(1000 * one.seconds for one in answered)
    refused = sum(one.status != 200 for one in answered)
    spent = max(one.at for one in answered) - min(one.at - one.seconds for one in answered)
    high = statistics.quantiles(times, n=20)[-1] if len(times) > 1 else times[0]
    print(
        f"{planners} at once, {think_s:g} s between edits, {workers} {'process' if workers == 1 else 'processes'}: "
        f"{len(times) / spent:.0f} plans a second; median {statistics.median(times):.1f} ms, p95 {high:.1f} ms, "
        f"slowest {times[-1]:.0f} ms; {answered[-1].size / 1000:.0f} kB an answer; refused {refused}"
    )
    return 1 if refused else 0


async def _all_edit(port: int, planners: int, think_s: float, seconds: float) -> list[Answered]:
    began = time.perf_counter()
    until = began + WARM_S + seconds
    people = [_edit(port, number, think_s, until, number / planners * think_s) for number in range(planners)]
    told = itertools.chain.from_iterable(await asyncio.gather(*people))
    return [one for one in told if one.at > began + WARM_S]


async def _edit(port: int, number: int, think_s: float, until: float, first_s: float) -> list[Answered]:
    """One person's edits, the first after `first_s`."""
    reader, writer = await asyncio.open_connection("127.0.0.1", port)
    told = []
    try:
        await asyncio.sleep(first_s)
        for request in _requests(number):
            began = time.perf_counter()
            if began > until:
                break
            writer.write(request)
            head = (await reader.readuntil(b"\r\n\r\n")).lower()
            size = await _read_body(reader, head)
            now = time.perf_counter()
            told.append(Answered(now, now - began, int(head.split(b" ", 2)[1]), size))
            if b"\r\nconnection: close" in head:
                writer.close()
                reader, writer = await asyncio.open_connection("127.0.0.1", port)
            await asyncio.sleep(think_s)
    finally:
        writer.close()
    return told


async def _read_body(reader: asyncio.StreamReader, head: bytes) -> int:
    """Read the body of an answer, whole or in chunks. Returns its bytes."""
    length = head.partition(b"content-length:")[2].partition(b"\r\n")[0]
    if length:
        return len(await reader.readexactly(int(length)))
    size = 0
    while chunk := int(await reader.readuntil(b"\r\n"), 16):
        size += chunk
        await reader.readexactly(chunk + len(b"\r\n"))
    await reader.readexactly(len(b"\r\n"))
    return size


def _requests(number: int) -> Iterator[bytes]:
    """What one person's browser asks: a plan of a cake nobody else has, with another tin each time."""
    cake = next(one for one in week(date(2026, 11, 24)) if len(one.design.tiers) == 3)
    document = cake.model_dump(mode="json")
    tiers = document["design"]["tiers"]
    for tier in tiers:
        tier["tin_diameter_mm"] += 0.013 * number
    own_name = {"X-Amber-Spread": f"{number:032x}"}
    lines = {"Host": "127.0.0.1", **own_name, "Content-Type": "application/json", "Accept-Encoding": "gzip"}
    for step in itertools.count(1):
        tiers[step % len(tiers)]["tin_diameter_mm"] += 0.0001
        body = json.dumps({"document": document, "kit": STARTING.model_dump(mode="json")}).encode()
        head = "".join(f"{name}: {value}\r\n" for name, value in {**lines, "Content-Length": len(body)}.items())
        yield f"POST /api/plan/parts HTTP/1.1\r\n{head}\r\n".encode() + body
