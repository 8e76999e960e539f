"""Rectangles laid on as few sheets as a packer finds, upright or turned a quarter."""

import math
from collections.abc import Sequence
from typing import NamedTuple

from rectpack import newPacker

STEPS_PER_MM = 20
"""The packer counts in whole steps of this many to a millimetre, rounded up."""


class Packed(NamedTuple):
    """Boxes laid on sheets: how many sheets, and for each box its sheet, place, and whether it was turned."""

    sheets: int
    laid: list[tuple[int, float, float, bool]]


def pack(boxes: Sequence[tuple[float, float]], sheet: tuple[float, float], turn: bool) -> Packed | None:
    """The boxes (width, height, mm) on as few sheets as the packer finds, turned only where `turn` lets them; None
    where one of them lies on no sheet.
    """
    if not all(_upright(box, sheet) or (turn and _upright(box[::-1], sheet)) for box in boxes):
        return None
    packer = newPacker(rotation=turn)
    wide, high = (math.floor(side * STEPS_PER_MM + 1e-3) for side in sheet)
    packer.add_bin(wide, high, count=len(boxes))
    whole = [
        tuple(min(limit, math.ceil(side * STEPS_PER_MM - 1e-3)) for side, limit in zip(box, limits, strict=True))
        for box, limits in ((box, (wide, high) if _upright(box, sheet) else (high, wide)) for box in boxes)
    ]
    for index, (across, along) in enumerate(whole):
        packer.add_rect(across, along, rid=index)
    packer.pack()
    found = {rid: (bin, x, y, width) for bin, x, y, width, _, rid in packer.rect_list()}
    if len(found) < len(boxes):
        return None
    laid = [
        (bin, round(x / STEPS_PER_MM, 2), round(y / STEPS_PER_MM, 2), width != whole[index][0])
        for index, (bin, x, y, width) in sorted(found.items())
    ]
    return Packed(max(bin for bin, _, _, _ in laid) + 1, laid)


def _upright(box: tuple[float, float], sheet: tuple[float, float]) -> bool:
    """Whether a box lies on a sheet without being turned. It is held to that side, so that rounding up to whole steps
    does not push off what just fits.
    """
    return box[0] <= sheet[0] + 1e-6 and box[1] <= sheet[1] + 1e-6
