"""The application: routes, problems, and the built screens."""

from pathlib import Path
from typing import Any

from fastapi import FastAPI
from fastapi.openapi.utils import get_openapi
from sqlalchemy import Engine
from starlette.exceptions import HTTPException
from starlette.middleware.gzip import GZipMiddleware
from starlette.responses import Response
from starlette.staticfiles import StaticFiles
from starlette.types import Scope

from pancount.api import formulas, kitchen, pans, pantry, papers, reckoning, takings
from pancount.api.problems import Problem, tell_problems
from pancount.formats.formula_file import FormulaFile

WEB = Path(__file__).resolve().parents[3] / "web" / "dist"


class Screens(StaticFiles):
    """The built front end: any address that is not a file opens the one page, which reads the address itself."""

    async def get_response(self, path: str, scope: Scope) -> Response:
        if path.startswith("api/"):
            raise HTTPException(404, "There is no such address in this application.")
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
        for name, model in (("Problem", Problem), ("FormulaFile", FormulaFile)):
            own = model.model_json_schema(ref_template="#/components/schemas/{model}")
            schemas |= {key: value for key, value in own.pop("$defs", {}).items() if key not in schemas}
            schemas[name] = own
        app.openapi_schema = document
    return app.openapi_schema


def make_app(engine: Engine | None, web: Path | None = WEB) -> FastAPI:
    """The application over a database. Without `web` it is the API alone; without `engine`, its description."""
    app = FastAPI(
        title="Pan Count",
        version="0.1.0",
        docs_url=None,  # its pages would fetch scripts from elsewhere
        redoc_url=None,
        openapi_url="/api/openapi.json",
        generate_unique_id_function=lambda route: route.name,
        separate_input_output_schemas=False,
    )
    app.state.engine = engine
    tell_problems(app)
    routers = (reckoning, kitchen, pans, pantry, takings, formulas, papers)
    for router in (module.router for module in routers):
        app.include_router(router)
    app.openapi = lambda: _openapi(app)  # type: ignore[method-assign]  # the way FastAPI's documentation gives
    if web is not None:
        app.mount("/", GZipMiddleware(Screens(directory=web, html=True), minimum_size=1000))
    return app
