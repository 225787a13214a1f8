"""Baking days: kept, planned, and on paper."""

from datetime import date, timedelta
from typing import Annotated
from urllib.parse import quote

from fastapi import APIRouter, Path, Query, Request, Response
from fastapi.responses import StreamingResponse
from pydantic import Field

from pancount.api.desk import may_answer
from pancount.api.long import off_loop
from pancount.api.planning import Planners
from pancount.api.records import RecordsOf
from pancount.api.tagged import is_known, mark_of
from pancount.core.base import most
from pancount.core.base.models import Frozen, Text
from pancount.core.day.day import Day, ToldStart
from pancount.core.day.papers import DayPapers, day_papers
from pancount.core.day.typed import TypedCount, read_counts
from pancount.formats.calendar import DayEvents, write_calendar
from pancount.formats.paper import Paper
from pancount.formats.wall_pdf import wall_pdf
from pancount.store import day as store
from pancount.store.day import DayHead, DayState, KeptDay
from pancount.store.kitchen import KitchenState, Settings, get_kitchen

router = APIRouter(prefix="/api/days", tags=["days"])

DayId = Annotated[int, Path(ge=1, le=2**31 - 1)]
VersionQuery = Annotated[int, Query(ge=0, le=2**31 - 1)]
PaperQuery = Annotated[Paper | None, Query()]
LINES = "application/x-ndjson"
CALENDAR = "text/calendar"
SUBSCRIBED_DAYS = 6
"""So many coming days, from yesterday on, stand in a subscribed calendar."""


class DayChange(Frozen):
    """What is being told of a day, resting on the `version` that was read."""

    day: Day
    version: Annotated[int, Field(ge=0, le=2**31 - 1)]


class Planning(Frozen):
    """A day to plan, and the last answer to go on from."""

    day: Day
    hint: Annotated[tuple[ToldStart, ...], Field(max_length=most.DAY_PRODUCTS * most.STEPS)] = ()


class Typed(Frozen):
    """Counts as they are typed."""

    text: Text


class DayPage(Frozen):
    """A day's papers with what stands around them."""

    name: str
    date: str
    kitchen: str
    settings: Settings
    papers: DayPapers


def _get_ready(request: Request) -> None:
    """It may be planned next."""
    planners: Planners = request.app.state.planners
    planners.get_ready()


@router.get("", responses=may_answer(503))
async def list_days(request: Request, records: RecordsOf) -> tuple[DayHead, ...]:
    """The kitchen's days, the latest first."""
    _get_ready(request)
    return await records(store.list_days)


@router.post("", status_code=201, responses=may_answer(409, 422, 503))
async def start_day(body: Day, records: RecordsOf) -> DayState:
    """Keep a new one."""
    return await records(store.start_day, body)


@router.post("/plan", response_class=StreamingResponse, responses=may_answer(422, 503) | {200: {"content": {LINES: {"schema": {"type": "string"}}}}})
async def plan_day(body: Planning, request: Request, records: RecordsOf) -> StreamingResponse:
    """Plan a day: a line of JSON (`Progress`) for the first timetable, which is there at once, and for each better one. Ends with its client."""
    asked = await records(store.asked_of, body.day)
    planners: Planners = request.app.state.planners
    return StreamingResponse(await planners.plan(asked.model_copy(update={"hint": body.hint})), media_type=LINES)


@router.post("/read-counts", responses=may_answer(422, 503))
async def read_typed(body: Typed, records: RecordsOf) -> tuple[TypedCount, ...]:
    """What is meant by "24 buns, 2 pans of squares". Keeps nothing."""
    return read_counts(body.text, await records(store.candidates))


@router.get("/calendar.ics", response_class=Response, responses=may_answer(503) | {200: {"content": {CALENDAR: {}}}})
async def subscribed(request: Request, records: RecordsOf) -> Response:
    """The coming days as a calendar to subscribe to: it follows their changes."""
    days = await records(store.coming_days, date.today() - timedelta(days=1), SUBSCRIBED_DAYS)  # noqa: DTZ011  # the kitchen's own day
    kitchen = await records(get_kitchen)
    mark = mark_of(*(f"{one.id}.{one.version}.{one.changed_at}".encode() for one in days), str(kitchen.version).encode())
    headers = {"Cache-Control": "no-cache", "ETag": mark}
    if is_known(request, mark):
        return Response(status_code=304, headers=headers)
    return Response(await off_loop(request, _calendar, days, kitchen, heavy=True), media_type=CALENDAR, headers=headers)


@router.get("/{day_id}", responses=may_answer(404, 422, 503))
async def get_day(day_id: DayId, request: Request, records: RecordsOf) -> DayState:
    """One, whole."""
    _get_ready(request)
    return await records(store.get_day, day_id)


@router.put("/{day_id}", responses=may_answer(404, 409, 422, 503))
async def put_day(body: DayChange, day_id: DayId, records: RecordsOf) -> DayState:
    """Keep what is being told. 409 where another window changed it since."""
    return await records(store.put_day, day_id, body.day, body.version)


@router.delete("/{day_id}", status_code=204, responses=may_answer(404, 409, 422, 503))
async def drop_day(day_id: DayId, version: VersionQuery, records: RecordsOf) -> None:
    """Throw one away."""
    await records(store.drop_day, day_id, version)


def _page(kept: KeptDay, kitchen: KitchenState) -> DayPage:
    day, settings = kept.asked.day, kitchen.settings
    return DayPage(name=day.name, date=day.date, kitchen=kitchen.name, settings=settings, papers=day_papers(kept.asked, settings.scale, settings.practice.starter))


def _pdf(kept: KeptDay, kitchen: KitchenState, paper: Paper | None) -> bytes:
    page = _page(kept, kitchen)
    return wall_pdf(page.papers, name=page.name, kitchen=page.kitchen, day=date.fromisoformat(page.date), paper=paper or page.settings.paper)


def _calendar(days: tuple[KeptDay, ...], kitchen: KitchenState) -> bytes:
    return write_calendar([_events(one, kitchen) for one in days], f"{kitchen.name}, baking")


def _events(kept: KeptDay, kitchen: KitchenState) -> DayEvents:
    papers, day = _page(kept, kitchen).papers, kept.asked.day
    return DayEvents(
        uid=kept.uid, date=date.fromisoformat(day.date), name=day.name, version=kept.version, changed_at=kept.changed_at,
        keys=tuple(product.key for product in day.products), bakers=papers.bakers, lines=papers.lines,
    )  # fmt: skip


@router.get("/{day_id}/papers", responses=may_answer(404, 422, 503))
async def get_papers(day_id: DayId, request: Request, records: RecordsOf) -> DayPage:
    """The wall sheet, the evening before and all that is to be weighed, of the timetable that is gone by."""
    kept, kitchen = await records(store.kept_day, day_id), await records(get_kitchen)
    return await off_loop(request, _page, kept, kitchen, heavy=True)


@router.get("/{day_id}/wall.pdf", response_class=Response, responses=may_answer(404, 422, 503) | {200: {"content": {"application/pdf": {}}}})
async def get_wall_pdf(day_id: DayId, request: Request, records: RecordsOf, paper: PaperQuery = None) -> Response:
    """The same as a PDF, on the kitchen's paper or another."""
    kept, kitchen = await records(store.kept_day, day_id), await records(get_kitchen)
    content = await off_loop(request, _pdf, kept, kitchen, paper, heavy=True)
    return Response(content, media_type="application/pdf", headers=_named(kept.asked.day, ", wall sheet.pdf", "inline"))


@router.get("/{day_id}/day.ics", response_class=Response, responses=may_answer(404, 422, 503) | {200: {"content": {CALENDAR: {}}}})
async def get_calendar(day_id: DayId, request: Request, records: RecordsOf) -> Response:
    """A day's touches as a calendar file."""
    kept, kitchen = await records(store.kept_day, day_id), await records(get_kitchen)
    content = await off_loop(request, _calendar, (kept,), kitchen, heavy=True)
    return Response(content, media_type=CALENDAR, headers=_named(kept.asked.day, ".ics", "attachment"))


def _named(day: Day, ending: str, how: str) -> dict[str, str]:
    name = quote((day.name or day.date)[:80].replace("/", " ") + ending)
    return {"Content-Disposition": f"{how}; filename*=UTF-8''{name}"}
