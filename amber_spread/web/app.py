"""The application: the API under /api, the built frontend for every other address."""

from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from pathlib import Path
from typing import Any

from fastapi import APIRouter, FastAPI, Response
from fastapi.openapi.utils import get_openapi
from fastapi.responses import FileResponse
from fastapi.staticfiles import StaticFiles
from starlette.exceptions import HTTPException

from amber_spread.store.notices import Listener
from amber_spread.store.orders import OrderBook
from amber_spread.web import (
    carving,
    clock,
    kit,
    line,
    marks,
    notices,
    orders,
    pantry,
    papers,
    places,
    planning,
    practice,
    shop,
    week,
)
from amber_spread.web.bounds import BoundedBody, BoundedTime
from amber_spread.web.caller import CallerOf
from amber_spread.web.compressed import Compressed
from amber_spread.web.errors import RESPONSES, catch_errors
from amber_spread.web.guard import Guard
from amber_spread.web.later import Later
from amber_spread.web.notices import Notices
from amber_spread.web.planner import Planner

BUILT = Path(__file__).resolve().parents[2] / "frontend" / "dist"


def _described(app: FastAPI) -> dict[str, Any]:
    """The API's description, in which every error is of the media type it is sent with."""
    if app.openapi_schema is None:
        app.openapi_schema = get_openapi(title=app.title, version=app.version, routes=app.routes)
        for path in app.openapi_schema["paths"].values():
            for operation in path.values():
                for status, answer in operation["responses"].items():
                    if int(status) >= 400:
                        answer["content"] = {"application/problem+json": next(iter(answer["content"].values()))}
    return app.openapi_schema


def make_app(book: OrderBook | None, built: Path = BUILT) -> FastAPI:
    """The application over an order book; without one only quick planning works."""
    listener = None if book is None else Listener(book.engine)
    planner = Planner(listener)
    told, later = Notices(), Later()

    @asynccontextmanager
    async def living(_: FastAPI) -> AsyncIterator[None]:
        with told.from_others(listener):
            yield
        later.stop()
        planner.stop()

    app = FastAPI(
        title="Amber Spread",
        version="1",
        responses=RESPONSES,
        docs_url=None,
        redoc_url=None,
        lifespan=living,
        separate_input_output_schemas=False,
        openapi_url=None,
    )
    app.state.book = book
    app.state.planner = planner
    app.state.notices = told
    app.state.later = later
    app.openapi = lambda: _described(app)  # type: ignore[method-assign]
    catch_errors(app)
    app.add_middleware(Compressed)
    app.add_middleware(BoundedTime)
    app.add_middleware(BoundedBody)
    app.add_middleware(Guard)
    api = APIRouter(prefix="/api")
    api.include_router(planning.router)
    api.include_router(line.router)
    api.include_router(kit.router)
    api.include_router(practice.router)
    api.include_router(places.router)
    api.include_router(pantry.router)
    api.include_router(shop.router)
    api.include_router(clock.router)
    api.include_router(week.router)
    api.include_router(marks.router)
    api.include_router(papers.router)
    api.include_router(carving.router)
    api.include_router(orders.router)
    api.include_router(notices.router)

    @api.get("/openapi.json", include_in_schema=False)
    def described(_: CallerOf) -> dict[str, Any]:
        """The API's description. Written in a thread, since the first time takes some tenths of a second."""
        return app.openapi()

    if built.exists():

        @api.get("/docs", include_in_schema=False)
        def docs() -> FileResponse:
            """Every address of the API, to read and to try."""
            return FileResponse(built / "api-docs.html")

    @api.api_route("/{rest:path}", methods=["GET", "POST", "PUT", "PATCH", "DELETE"], include_in_schema=False)
    def nothing() -> Response:
        raise HTTPException(404, "There is no such address in the API")

    app.include_router(api)
    if built.exists():
        app.mount("/assets", StaticFiles(directory=built / "assets"), name="assets")

        @app.get("/{rest:path}", include_in_schema=False)
        def page() -> FileResponse:
            """One page serves every view; the browser finds its own way from the address."""
            return FileResponse(built / "index.html", headers={"Cache-Control": "no-cache"})

    # FastAPI finishes a route on its first match: do that now, not on the first request.
    for route in app.routes:
        route.matches({"type": "http", "method": "GET", "path": "/api/-", "headers": []})
    return app
