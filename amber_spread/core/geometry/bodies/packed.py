"""Triangles as a short text that can stand in a design file, and back again.

Corners are kept as whole steps of a stated length: none moves by more than half the diagonal of a step. Both corners
and triangles are written as what each differs from the one before it, then pressed by zlib and spelt in base 64.
"""

import base64
import binascii
import math
import struct
import zlib

import numpy

from amber_spread.core.geometry.bodies.triangles import Triangles
from amber_spread.core.geometry.rows import Numbers

HEAD = "<fII"
"""The step in mm, how many corners and how many triangles."""
STEPS = 30000
"""No side of a body is longer than so many steps."""
FINEST_MM = 0.01
MOST_CORNERS, MOST_TRIANGLES = 8_000, 16_000
PRESSED = 7
"""How hard zlib presses: at 9 a twentieth would be saved, for five times the time."""
MOST_TEXT = 220_000
"""A text is no longer."""


def step_for(corners: Numbers) -> float:
    """The length that corners are kept to, mm."""
    return float(max(FINEST_MM, numpy.ptp(corners, axis=0).max() / STEPS))


def moved_by(step_mm: float) -> float:
    """The farthest a corner moves on being kept to steps, mm: sqrt(3) step / 2. Source: geometry."""
    return math.sqrt(3) / 2 * step_mm


def packed(corners: Numbers, triangles: Triangles) -> str:
    """Triangles as text."""
    step = step_for(corners)
    whole = numpy.round((corners - corners.min(axis=0)) / step).astype(numpy.int64)
    data = struct.pack(HEAD, step, len(corners), len(triangles)) + _differences(whole) + _differences(triangles)
    return base64.b64encode(zlib.compress(data, PRESSED)).decode("ascii")


def unpacked(text: str) -> tuple[Numbers, Triangles]:
    """The corners and triangles of such a text. Raises ValueError where it is none, or of too many."""
    most = struct.calcsize(HEAD) + 12 * (MOST_CORNERS + MOST_TRIANGLES)
    try:
        data = zlib.decompressobj().decompress(base64.b64decode(text, validate=True), most + 1)
        step, corners, triangles = struct.unpack_from(HEAD, data)
    except (binascii.Error, zlib.error, struct.error) as error:
        raise ValueError("the body of the 3D file is damaged: bring the file again") from error
    head = struct.calcsize(HEAD)
    few = 0 < corners <= MOST_CORNERS and 0 < triangles <= MOST_TRIANGLES
    if not few or len(data) != head + 12 * (corners + triangles) or not 0 < step < STEPS:
        raise ValueError("the body of the 3D file is damaged: bring the file again")
    numbers = numpy.frombuffer(data, dtype="<i4", offset=head)
    whole = numpy.cumsum(numbers.reshape(-1, 3)[:corners], axis=0, dtype=numpy.int64)
    faces = numpy.cumsum(numbers.reshape(-1, 3)[corners:], axis=0, dtype=numpy.int64)
    if faces.min() < 0 or faces.max() >= corners:
        raise ValueError("the body of the 3D file is damaged: bring the file again")
    return whole.astype(numpy.float64) * step, faces


def _differences(rows: Triangles) -> bytes:
    return numpy.diff(rows, axis=0, prepend=0).astype("<i4").tobytes()
