"""The design file: read in any format there has been, what is wrong with it in sentences, written, and planned."""

from amber_spread.core.design.complaints import Complaint, complaint_at, complaints_of
from amber_spread.core.document.document import (
    FORMAT,
    Document,
    FileError,
    carved_bodies,
    file_text,
    plan_document,
    read_document,
    without_private,
    worked_tiers,
    write_document,
)
from amber_spread.core.document.upgrades import LAST_WITH_HOURS, NOW, FileKind, FromLater, hours_once, upgraded

__all__ = [
    "Complaint",
    "Document",
    "FORMAT",
    "LAST_WITH_HOURS",
    "FileError",
    "FromLater",
    "FileKind",
    "NOW",
    "carved_bodies",
    "complaint_at",
    "complaints_of",
    "file_text",
    "plan_document",
    "read_document",
    "hours_once",
    "upgraded",
    "without_private",
    "worked_tiers",
    "write_document",
]
