"""The bodies in a 3MF file: a zip archive with an XML part that says triangles, and where each body lies.

Published: 3MF Core Specification 1.3, 3MF Consortium, sections 3 and 4 (from memory).
"""

import io
import zipfile
from collections.abc import Iterator
from typing import Any

import numpy
from defusedxml import DefusedXmlException
from defusedxml.ElementTree import ParseError, iterparse

from amber_spread.core.geometry.bodies.triangles import Triangles
from amber_spread.core.geometry.rows import Numbers
from amber_spread.core.kernel.units import MM_PER_INCH

MM = {
    "micron": 0.001,
    "millimeter": 1.0,
    "centimeter": 10.0,
    "inch": MM_PER_INCH,
    "foot": 12 * MM_PER_INCH,
    "meter": 1000.0,
}
MOST_BYTES = 96 * 1024 * 1024
"""What an archive unpacks to may be no larger."""
MOST_BODIES = 200
"""So many bodies may be made of one another."""
Mesh = tuple[Numbers, Triangles]
Placed = tuple[str, Numbers]
"""A body by its number, and the matrix it is placed by."""


def read_threemf(data: bytes, most: int) -> tuple[Numbers, Triangles, float]:
    """The corners and triangles of all bodies in a 3MF file, and how many mm a length of it is. Raises ValueError where
    it is none, OverflowError where there are more than `most` triangles.
    """
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as archive:
            models = [one for one in archive.infolist() if one.filename.lower().endswith(".model")]
            if not models:
                raise ValueError("there is no model in it")
            if sum(one.file_size for one in archive.infolist()) > MOST_BYTES:
                raise ValueError(f"it unpacks to more than {MOST_BYTES // 2**20} MB")
            first = min(models, key=lambda one: len(one.filename))
            with archive.open(first) as part:
                return _model(part.read(MOST_BYTES + 1), most)
    except (zipfile.BadZipFile, zipfile.LargeZipFile, NotImplementedError, RuntimeError, EOFError) as error:
        raise ValueError("it is damaged or locked") from error
    except (DefusedXmlException, ParseError, LookupError, TypeError) as error:
        raise ValueError("what is in it is garbled") from error


def _model(xml: bytes, most: int) -> tuple[Numbers, Triangles, float]:
    if len(xml) > MOST_BYTES:
        raise ValueError(f"it unpacks to more than {MOST_BYTES // 2**20} MB")
    read = _Reading(most)
    for event, element in iterparse(io.BytesIO(xml), events=("start", "end"), forbid_dtd=True):
        name = element.tag.rpartition("}")[2]
        if event == "start":
            if name == "model":
                read.unit = element.get("unit", read.unit)
        else:
            read.take(name, element)
            element.clear()
    if read.unit not in MM:
        raise ValueError("it says no unit that is known")
    placed = list(read.laid())
    if not placed or sum(len(triangles) for _, triangles in placed) > most:
        raise ValueError("there is no body in it, or too many")
    if any(faces.min() < 0 or faces.max() >= len(corners) for corners, faces in placed):
        raise ValueError("it names corners that it does not have")
    starts = numpy.cumsum([0, *(len(corners) for corners, _ in placed)])
    triangles = [faces + start for (_, faces), start in zip(placed, starts, strict=False)]
    return numpy.vstack([corners for corners, _ in placed]), numpy.vstack(triangles), MM[read.unit]


class _Reading:
    """What was read of a model so far."""

    def __init__(self, most: int) -> None:
        self.most, self.count, self.unit = most, 0, "millimeter"
        self.meshes: dict[str, Mesh] = {}
        self.parts: dict[str, list[Placed]] = {}
        self.items: list[Placed] = []
        self.corners: list[tuple[float, ...]] = []
        self.faces: list[tuple[int, ...]] = []
        self.made_of: list[Placed] = []

    def take(self, name: str, element: Any) -> None:
        """One element that ends. Raises OverflowError where there are too many triangles."""
        if name == "vertex":
            self.corners.append(tuple(float(element.get(axis)) for axis in "xyz"))
        elif name == "triangle":
            self.faces.append(tuple(int(element.get(corner)) for corner in ("v1", "v2", "v3")))
            self.count += 1
            if self.count > self.most:
                raise OverflowError
        elif name == "component":
            self.made_of.append((element.get("objectid"), _matrix(element)))
        elif name == "item":
            self.items.append((element.get("objectid"), _matrix(element)))
        elif name == "object":
            number = element.get("id")
            if self.faces:
                self.meshes[number] = numpy.array(self.corners), numpy.array(self.faces, dtype=numpy.int64)
            self.parts[number] = self.made_of
            self.corners, self.faces, self.made_of = [], [], []

    def laid(self) -> Iterator[Mesh]:
        """Every body that is to be made, where it lies. Raises ValueError where they are made of too many others."""
        left = self.items or [(number, numpy.eye(4)[:, :3]) for number in self.meshes]
        for _ in range(MOST_BODIES):
            if not left:
                return
            (number, matrix), *left = left
            if number in self.meshes:
                corners, triangles = self.meshes[number]
                mirrored = numpy.linalg.det(matrix[:3]) < 0
                yield corners @ matrix[:3] + matrix[3], triangles[:, ::-1] if mirrored else triangles
            for part, own in self.parts.get(number, []):
                left = [*left, (part, numpy.vstack([own[:3] @ matrix[:3], own[3] @ matrix[:3] + matrix[3]]))]
        raise ValueError(f"its bodies are made of more than {MOST_BODIES} others")


def _matrix(element: Any) -> Numbers:
    """The matrix a body is placed by: four rows of three, the last how far it is moved."""
    written = element.get("transform")
    if not written:
        return numpy.eye(4)[:, :3]
    numbers = numpy.array([float(one) for one in written.split()])
    if len(numbers) != 12 or not numpy.isfinite(numbers).all():
        raise ValueError("it places a body nowhere")
    return numbers.reshape(4, 3)
