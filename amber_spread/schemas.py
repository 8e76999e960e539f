"""Write the API's OpenAPI document for the frontend, and the design file's JSON Schema for readers."""

import json
from pathlib import Path
from typing import Any

from amber_spread.core.document import Document
from amber_spread.web.app import make_app

ROOT = Path(__file__).resolve().parents[1]
OPENAPI = ROOT / "docs" / "openapi.json"
DESIGN_FILE = ROOT / "docs" / "amber-spread-2.schema.json"


def schemas() -> dict[Path, str]:
    """What each schema file should say."""
    return {
        OPENAPI: _text(make_app(None, built=Path("nowhere")).openapi()),
        DESIGN_FILE: _text(Document.model_json_schema()),
    }


def write_schemas() -> int:
    """Write every schema file. Returns the exit status."""
    for path, text in schemas().items():
        path.parent.mkdir(parents=True, exist_ok=True)
        path.write_text(text)
        print(f"wrote {path.relative_to(ROOT)}")
    return 0


def _text(schema: dict[str, Any]) -> str:
    return json.dumps(schema, indent=1, ensure_ascii=False) + "\n"
