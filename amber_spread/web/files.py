"""A file to take away."""

from urllib.parse import quote

from fastapi import Response

JSON, PDF, SVG = "application/json", "application/pdf", "image/svg+xml"
CALENDAR = "text/calendar; charset=utf-8"


def download(name: str, media_type: str, content: str | bytes) -> Response:
    """An answer the browser keeps as a file of that name."""
    headers = {"Content-Disposition": f"attachment; filename*=UTF-8''{quote(name, safe='')}"}
    return Response(content, media_type=media_type, headers=headers)
