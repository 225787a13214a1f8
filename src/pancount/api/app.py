"""The application: routes, problems, and the built screens."""

from collections.abc import AsyncIterator, Iterable
from contextlib import asynccontextmanager
from pathlib import Path
from typing import Any

from fastapi import FastAPI
from fastapi.openapi.utils import get_openapi
from sqlalchemy import Engine
from starlette.exceptions import HTTPException
from starlette.middleware.gzip import DEFAULT_EXCLUDED_CONTENT_TYPES, GZipMiddleware
from starlette.responses import Response
from starlette.staticfiles import StaticFiles
from starlette.types import Scope

from pancount.api import (
    beginnings,
    bench,
    book,
    day,
    devices,
    formula,
    kitchen,
    learned,
    pans,
    pantry,
    papers,
    photos,
    reckoning,
    reference,
    taking,
    tasting,
)
from pancount.api.bench import Bakes
from pancount.api.devices import DeviceAt, Wires
from pancount.api.door import Door
from pancount.api.live import Live
from pancount.api.long import Bench
from pancount.api.planning import Planners
from pancount.api.problems import Problem, tell_problems
from pancount.api.records import Places
from pancount.core.day.plan import Progress
from pancount.formats.formula_file import FormulaFile

WEB = Path(__file__).resolve().parents[3] / "web" / "dist"


class Screens(StaticFiles):
    """The built front end: any address that is not a file opens the one page, which reads the address itself."""

    async def get_response(self, path: str, scope: Scope) -> Response:
        if path.startswith("api/"):
            raise HTTPException(404, "There is no such address in this application.")
        if scope["method"] not in ("GET", "HEAD"):
            raise HTTPException(405, "Pages are only read here.", {"Allow": "GET, HEAD"})
        try:
            response = await super().get_response(path, scope)
        except HTTPException as error:
            if error.status_code != 404 or path.startswith("assets/"):
                raise
            response = await super().get_response("index.html", scope)
        # Files under assets/ carry a hash of their content in their name; the page itself must stay fresh.
        kept = "public, max-age=31536000, immutable" if path.startswith("assets/") else "no-cache"
        response.headers["Cache-Control"] = kept
        return response


def _openapi(app: FastAPI) -> dict[str, Any]:
    if app.openapi_schema is None:
        document = get_openapi(
            title=app.title, version=app.version, routes=app.routes, separate_input_output_schemas=False
        )
        schemas = document["components"]["schemas"]
        for name, model in (("Problem", Problem), ("FormulaFile", FormulaFile), ("Progress", Progress)):
            own = model.model_json_schema(ref_template="#/components/schemas/{model}")
            schemas |= {key: value for key, value in own.pop("$defs", {}).items() if key not in schemas}
            schemas[name] = own
        app.openapi_schema = document
    return app.openapi_schema


COMPRESSED_FROM = 2_000
"""Answers smaller than this go as they are. [bytes]"""
ALREADY_SMALL = (*DEFAULT_EXCLUDED_CONTENT_TYPES, "application/pdf", papers.ODS, day.LINES, "font/woff2", photos.JPEG)
"""Small by themselves, or told line by line: a line that waited to be compressed would come late."""


@asynccontextmanager
async def _life(app: FastAPI) -> AsyncIterator[None]:
    """As long as it runs; then what waits for a question is ended."""
    yield
    await let_go(app)
    planners: Planners = app.state.planners
    await planners.close()


async def let_go(app: FastAPI) -> None:
    """Let those go who listen: an application that stops would wait for them."""
    live: Live = app.state.live
    app.state.wires.closed = True
    await live.close()


def make_app(
    engine: Engine | None, web: Path | None = WEB, *, hosts: Iterable[str] = (), folder: Path | None = None, devices_at: Iterable[DeviceAt] = ()
) -> FastAPI:
    """The application over a database. Without `web` it is the API alone; without `engine`, its description.

    `hosts`: names beside those of this machine that it answers to. `folder`: where the records lie, if they are our own.
    `devices_at`: simulated devices that were started with it.
    """
    app = FastAPI(
        title="Pan Count",
        version="0.1.0",
        lifespan=_life,
        docs_url=None,  # its pages would fetch scripts from elsewhere
        redoc_url=None,
        openapi_url="/api/openapi.json",
        generate_unique_id_function=lambda route: route.name,
        separate_input_output_schemas=False,
    )
    app.state.places = Places(engine)
    app.state.bench = Bench()
    app.state.planners = Planners()
    app.state.live = Live(engine, app.state.places)
    app.state.bakes = Bakes()
    app.state.wires = Wires(tuple(devices_at))
    tell_problems(app, folder)
    routers = (reckoning, reference, beginnings, kitchen, pans, pantry, taking, formula, papers, day, bench, devices, learned, book, photos, tasting)
    for router in (module.router for module in routers):
        app.include_router(router)
    app.openapi = lambda: _openapi(app)  # type: ignore[method-assign]  # the way FastAPI's documentation gives
    if web is not None:
        app.router.default = Screens(directory=web, html=True)  # not mounted, so that a wrong verb at an address of ours is 405
    app.add_middleware(
        GZipMiddleware, minimum_size=COMPRESSED_FROM, compresslevel=4, exclude_content_types=ALREADY_SMALL
    )
    app.add_middleware(Door, hosts=hosts)
    return app
