"""Which version of the program this is, and digests that no other version shares."""

import hashlib
from functools import cache
from pathlib import Path

ROOT = Path(__file__).resolve().parents[2]


@cache
def program_version() -> str:
    """A digest of the source: no cached result outlives a change of the arithmetic, and no job goes to a worker of
    another version.
    """
    digest = hashlib.sha256()
    for path in sorted((ROOT / "amber_spread").rglob("*.py")):
        digest.update(path.read_bytes())
    return digest.hexdigest()[:16]


def digest_of(*parts: str) -> str:
    """A digest of texts and of this version of the program."""
    return hashlib.sha256("\n".join([program_version(), *parts]).encode()).hexdigest()
