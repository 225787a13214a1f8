"""The book: bakes that are over, found again, looked at, written in, put side by side, and out as files."""

import logging
import time
from collections.abc import AsyncIterator
from datetime import UTC, datetime
from functools import partial
from typing import Annotated, Literal
from urllib.parse import quote
from uuid import UUID

from fastapi import APIRouter, Query, Request, Response
from fastapi.responses import StreamingResponse
from pydantic import AwareDatetime, Field

from pancount.api.bench import bakes_of, begun_of, of_formula
from pancount.api.busy import Busy
from pancount.api.desk import may_answer
from pancount.api.long import off_loop
from pancount.api.records import Records, RecordsOf
from pancount.core.base.errors import CoreError
from pancount.core.base.models import PLAIN, Frozen
from pancount.core.bench.state import ground_of
from pancount.core.book.comparing import MOST_BESIDE, BesideRow, InTheBook, side_by_side
from pancount.core.book.habits import LAST, WaterHabit, water_habit
from pancount.core.book.outcome import Outcome
from pancount.core.book.record import Record, of_mix, record_of, step_label
from pancount.core.book.written import Written, written_events
from pancount.core.count.count import Count
from pancount.formats.bake_file import BakeFile, BakeOut, bake_csv, bakes_csv, bakes_head, file_head, points_csv
from pancount.formats.bake_pdf import bake_pdf
from pancount.formats.paper import Paper
from pancount.store import bench as bench_store
from pancount.store import book as store
from pancount.store.book import BookHead, Entry, FormulaHas, MonthHas, Point, Sought
from pancount.store.errors import NotFound, StoreError
from pancount.store.formula import get_formula, get_revision
from pancount.store.kitchen import get_kitchen
from pancount.store.photos import PhotoHead, first_photo, list_photos
from pancount.store.tasting import TastedBefore, tastings_of

router = APIRouter(prefix="/api/book", tags=["book"])
log = logging.getLogger("pancount")

FormulaNumber = Annotated[int, Field(ge=1, le=2**31 - 1)]
BRING_S, BRING_SOME = 0.4, 12
"""So long, and so many, bakes that ended are laid into the book before it is read; the others with the next asking. [s]"""
PAGE = 60
ALL_AT_ONCE = 100
"""Bakes in one piece of a file of all of them."""
EARLIEST = datetime(1970, 1, 2, tzinfo=UTC)
CSV = "text/csv; charset=utf-8"


class Looked(Frozen):
    """What is looked for."""

    words: Annotated[str, Field(max_length=200, pattern=PLAIN)] = ""
    formula_id: FormulaNumber | None = None
    ingredient: Annotated[str, Field(max_length=300, pattern=PLAIN)] = ""
    least_score: Annotated[float, Field(ge=1, le=5)] | None = None
    month: Annotated[str, Field(pattern=r"^(19[7-9]\d|20\d\d|21\d\d)-(0[1-9]|1[0-2])$")] | None = None


LookedFor = Annotated[Looked, Query()]


class Paged(Looked):
    """What is looked for, and how many of it are passed over."""

    offset: Annotated[int, Field(ge=0, le=100_000)] = 0


class BookPage(Frozen):
    """Bakes that are looked for, the last first, and what there is to look for."""

    bakes: tuple[BookHead, ...]
    total: int
    months: tuple[MonthHas, ...]
    formulas: tuple[FormulaHas, ...]
    more: bool = Field(description="Whether bakes that ended are still to come into the book: ask again.")


class BakePage(Frozen):
    """A bake with all that hangs on it."""

    entry: Entry
    photos: tuple[PhotoHead, ...]
    tastings: tuple[TastedBefore, ...]
    scales: tuple[str, ...]
    habit: WaterHabit | None
    """What was done the same way at the last bakes of its formula."""


class OutcomeChange(Frozen):
    """What a bake came to, resting on the `version` that was read."""

    outcome: Outcome
    version: Annotated[int, Field(ge=0, le=2**31 - 1)]


class WriteIn(Frozen):
    """A bake that was not at the bench."""

    id: UUID
    """Made where it is written, so that what is sent twice is one bake."""
    formula_id: FormulaNumber
    revision: FormulaNumber | None = None
    count: Count | None = None
    """As it was made; None for the count on the desk."""
    begun_at: AwareDatetime
    told: Written = Written()
    outcome: Outcome = Outcome()


class ToldLater(Frozen):
    """What was forgotten of a bake, and is known now."""

    id: UUID
    """Made where it is told, so that what is sent twice is told once."""
    told: Written


class BlankLine(Frozen):
    """A line that may be told otherwise. [g]"""

    key: str
    of: str
    name: str
    meant_g: float | None


class BlankStep(Frozen):
    """A step whose time may be told. [min]"""

    key: str
    label: str
    planned_min: float


class Blank(Frozen):
    """What may be told of a bake of a formula, with what was meant."""

    name: str
    lines: tuple[BlankLine, ...]
    steps: tuple[BlankStep, ...]
    pieces: int
    dough_g: float
    scales: tuple[str, ...]


class BesideBake(Frozen):
    """A bake put beside others."""

    id: UUID
    name: str
    way: str
    revision: int | None
    begun_at: datetime
    outcome: Outcome
    changed: tuple[str, ...]
    notes: tuple[str, ...]
    photos: tuple[PhotoHead, ...]


class BesidePage(Frozen):
    """Bakes side by side."""

    bakes: tuple[BesideBake, ...]
    rows: tuple[BesideRow, ...]


async def bring_up(request: Request, records: Records) -> bool:
    """Lay bakes that ended into the book, as many as may be done at once; whether others are still to come."""
    bakes = bakes_of(request)
    waiting, begin = await records(store.stale, BRING_SOME + 1, bakes.unrecorded), time.monotonic()
    for n, one in enumerate(waiting):
        if n >= BRING_SOME or time.monotonic() - begin > BRING_S:
            return True
        try:
            await _bring(request, records, one.bake_id, one.outcome, one.version)
        except (StoreError, Busy):
            raise
        except Exception:  # whatever is wrong with one bake, the others are in the book
            log.exception("no record of bake %s", one.bake_id)
            bakes.unrecorded.add(one.bake_id)
    return False


async def _bring(request: Request, records: Records, bake_id: UUID, outcome: Outcome, version: int) -> None:
    number, record = await _recorded(request, records, bake_id, outcome)
    await records(store.keep_record, bake_id, number, record, version)


async def _recorded(request: Request, records: Records, bake_id: UUID, outcome: Outcome) -> tuple[int, Record]:
    """A bake's record by what it came to, and up to which event that is."""
    known = await bakes_of(request).brought_up(request, records, bake_id)
    made = partial(record_of, known.ground, known.events, known.head.begun_at.timestamp(), outcome, written=known.head.written)
    return known.head.number, await off_loop(request, made)


async def _sought(records: Records, asked: Looked) -> Sought:
    language = (await records(get_kitchen)).settings.language
    return Sought(asked.words, language, asked.formula_id, asked.ingredient, asked.least_score, asked.month or "")


@router.get("", responses=may_answer(422, 503))
async def get_book(asked: Annotated[Paged, Query()], request: Request, records: RecordsOf) -> BookPage:
    """Bakes that are looked for, the last first."""
    more = await bring_up(request, records)
    sought = await _sought(records, asked)
    found, total = await records(store.find, sought, asked.offset, PAGE)
    return BookPage(bakes=found, total=total, months=await records(store.months), formulas=await records(store.formulas), more=more)


@router.get("/points", responses=may_answer(422, 503))
async def get_points(asked: LookedFor, request: Request, records: RecordsOf) -> tuple[Point, ...]:
    """The same as points of charts, the oldest first; of very many the last."""
    await bring_up(request, records)
    return await records(store.points, await _sought(records, asked))


@router.get("/points.csv", response_class=Response, responses=may_answer(422, 503) | {200: {"content": {"text/csv": {}}}})
async def get_points_csv(asked: LookedFor, request: Request, records: RecordsOf) -> Response:
    """The figures behind the charts, as a table."""
    await bring_up(request, records)
    found = await records(store.points, await _sought(records, asked))
    content = points_csv([(one.begun_at, one.name, one.numbers) for one in found])
    return Response(content, media_type=CSV, headers={"Content-Disposition": "attachment; filename*=UTF-8''bakes%2C%20figures.csv"})


@router.get("/blank", responses=may_answer(404, 422, 503))
async def get_blank(request: Request, records: RecordsOf, formula_id: FormulaNumber, revision: FormulaNumber | None = None) -> Blank:
    """What may be told of a bake that was not at the bench."""
    asked = await of_formula(records, formula_id, revision, None)
    ground = await off_loop(request, ground_of, await begun_of(request, records, asked))
    plan = ground.plan
    sheet = ground.begun.sheet
    return Blank(
        name=ground.begun.formula.name,
        lines=tuple(BlankLine(key=one.key, of=f"{one.of}{of_mix(one.mix, sheet.mixes)}", name=one.name, meant_g=one.meant_g) for one in plan.lines.values() if one.what == "line" and one.in_dough),
        steps=tuple(
            BlankStep(key=one.key, label=step_label(ground, one), planned_min=one.lasts_min)
            for key in plan.order
            if (one := plan.todos.get(key)) is not None and one.lasts_min > 0
        ),
        pieces=sum(target.pieces for target in sheet.targets),
        dough_g=ground.before["divide_g"],
        scales=(await records(get_kitchen)).settings.scales,
    )


def _out_of_time(at: datetime) -> None:
    if not EARLIEST <= at <= datetime.now(UTC):
        raise CoreError("A bake in the book was begun before now. When was it?", ("begun_at",))


@router.post("/bakes", status_code=201, responses=may_answer(404, 409, 422, 503))
async def write_in(body: WriteIn, request: Request, records: RecordsOf) -> Entry:
    """Write in a bake that was not at the bench."""
    _out_of_time(body.begun_at)
    asked = await of_formula(records, body.formula_id, body.revision, body.count)
    begun = await begun_of(request, records, asked)
    ground = await off_loop(request, ground_of, begun)
    events = written_events(ground, body.told, body.id, body.begun_at.timestamp())
    await records(bench_store.write_in, body.id, begun, asked.formula_id, asked.revision, body.begun_at, events)
    await _bring(request, records, body.id, Outcome(), 0)
    return await _kept(request, records, body.id, body.outcome, 1)


@router.post("/bakes/{bake_id}/told", responses=may_answer(404, 409, 422, 503))
async def tell_more(body: ToldLater, bake_id: UUID, request: Request, records: RecordsOf) -> Entry:
    """Tell what was forgotten of a bake that is over: what is told last holds."""
    entry = await records(store.get_entry, bake_id)
    known = await bakes_of(request).brought_up(request, records, bake_id)
    seen: dict[str, int] = {}
    for one in known.events:
        seen[one.writer] = max(seen.get(one.writer, 0), one.clock)
    events = written_events(known.ground, body.told, body.id, known.head.begun_at.timestamp(), seen, ends=False)
    if events and not any(one.id == events[0].id for one in known.events):
        await records(bench_store.append, bake_id, events)
    await _bring(request, records, bake_id, entry.outcome, entry.version)
    return await records(store.get_entry, bake_id)


@router.get("/bakes/{bake_id}", responses=may_answer(404, 422, 503))
async def get_book_bake(bake_id: UUID, request: Request, records: RecordsOf) -> BakePage:
    """A bake in the book with its photos, its tastings, and what its last bakes have in common."""
    await bring_up(request, records)
    entry = await records(store.get_entry, bake_id)
    settings = (await records(get_kitchen)).settings
    return BakePage(
        entry=entry, photos=await records(list_photos, bake_id), tastings=await records(tastings_of, bake_id), scales=settings.scales,
        habit=await _habit(records, entry),
    )  # fmt: skip


async def _habit(records: Records, entry: Entry) -> WaterHabit | None:
    """What the last bakes of a formula's latest revision have in common, to be laid on the desk."""
    if entry.formula_id is None or entry.revision is None:
        return None
    try:
        state = await records(get_formula, entry.formula_id)
        if state.head.latest_number != entry.revision:
            return None
        formula = (await records(get_revision, entry.formula_id, entry.revision)).formula
    except NotFound:
        return None
    last = await records(store.last_numbers, entry.formula_id, entry.revision, LAST)
    return water_habit(last, formula, (await records(get_kitchen)).settings.practice)


@router.put("/bakes/{bake_id}/outcome", responses=may_answer(404, 409, 422, 503))
async def put_outcome(body: OutcomeChange, bake_id: UUID, request: Request, records: RecordsOf) -> Entry:
    """Keep what a bake came to. 409 where another window changed it since."""
    return await _kept(request, records, bake_id, body.outcome, body.version)


async def _kept(request: Request, records: Records, bake_id: UUID, outcome: Outcome, version: int) -> Entry:
    _, record = await _recorded(request, records, bake_id, outcome)
    return await records(store.put_outcome, bake_id, outcome, version, record)


@router.get("/beside", responses=may_answer(404, 422, 503))
async def get_beside(request: Request, records: RecordsOf, bake: Annotated[list[UUID], Query(min_length=2, max_length=MOST_BESIDE)]) -> BesidePage:
    """Two to four bakes side by side, what differs first."""
    await bring_up(request, records)
    entries = [await records(store.get_entry, one) for one in dict.fromkeys(bake)]
    rows = side_by_side([InTheBook(one.record, one.outcome) for one in entries])
    found = [
        BesideBake(
            id=one.id, name=one.record.name, way=one.record.way, revision=one.revision, begun_at=one.begun_at, outcome=one.outcome, changed=one.record.changed,
            notes=tuple(note.says for note in one.record.notes), photos=await records(list_photos, one.id),
        )
        for one in entries
    ]  # fmt: skip
    return BesidePage(bakes=tuple(found), rows=rows)


def _out(entry: Entry) -> BakeOut:
    return BakeOut(id=entry.id, revision=entry.revision, begun_at=entry.begun_at, record=entry.record, outcome=entry.outcome)


def _named(entry: Entry, ending: str, how: str = "attachment") -> dict[str, str]:
    name = quote(f"{entry.record.name[:80]} {entry.begun_at:%Y-%m-%d}{ending}".replace("/", " "))
    return {"Content-Disposition": f"{how}; filename*=UTF-8''{name}"}


@router.get("/bakes/{bake_id}/bake.json", responses=may_answer(404, 422, 503))
async def get_bake_json(bake_id: UUID, response: Response, records: RecordsOf) -> BakeFile:
    """A bake as a file (docs/bake.schema.json)."""
    entry = await records(store.get_entry, bake_id)
    response.headers.update(_named(entry, ".json"))
    return BakeFile(kitchen=(await records(get_kitchen)).name, bakes=(_out(entry),))


@router.get("/bakes/{bake_id}/bake.csv", response_class=Response, responses=may_answer(404, 422, 503) | {200: {"content": {"text/csv": {}}}})
async def get_bake_csv(bake_id: UUID, records: RecordsOf) -> Response:
    """A bake as a table."""
    entry = await records(store.get_entry, bake_id)
    return Response(bake_csv(_out(entry)), media_type=CSV, headers=_named(entry, ".csv"))


@router.get("/bakes/{bake_id}/card.pdf", response_class=Response, responses=may_answer(404, 422, 503) | {200: {"content": {"application/pdf": {}}}})
async def get_bake_card(bake_id: UUID, request: Request, records: RecordsOf, paper: Annotated[Paper | None, Query()] = None) -> Response:
    """A bake as a card on paper, with its photo."""
    entry = await records(store.get_entry, bake_id)
    kitchen = await records(get_kitchen)
    photo = await records(first_photo, bake_id)
    content = await off_loop(request, _card, _out(entry), kitchen.name, paper or kitchen.settings.paper, photo, heavy=True)
    return Response(content, media_type="application/pdf", headers=_named(entry, ", bake card.pdf", "inline"))


def _card(bake: BakeOut, kitchen: str, paper: Paper, photo: tuple[PhotoHead, bytes] | None) -> bytes:
    square = photo is not None and photo[0].square
    return bake_pdf(bake, kitchen=kitchen, paper=paper, photo=photo[1] if photo else None, square=square, begun=bake.begun_at.astimezone())


@router.get("/bakes.{ending}", response_class=StreamingResponse, responses=may_answer(422, 503) | {200: {"content": {"application/json": {}, "text/csv": {}}}})
async def get_all(ending: Literal["json", "csv"], request: Request, records: RecordsOf) -> StreamingResponse:
    """All bakes of the book, as a file or as a table, some at a time."""
    await bring_up(request, records)
    kitchen = await records(get_kitchen)
    lines = _all_json(records, kitchen.name) if ending == "json" else _all_csv(records, kitchen.settings.scales)
    # Told as it is: to pack a hundred megabytes would take longer than to send them.
    headers = {"Content-Disposition": f'attachment; filename="bakes.{ending}"', "Content-Encoding": "identity"}
    return StreamingResponse(lines, media_type="application/json" if ending == "json" else CSV, headers=headers)


async def _all_json(records: Records, kitchen: str) -> AsyncIterator[str]:
    yield file_head(kitchen)
    after: UUID | None = None
    while page := await records(store.told_whole, after, ALL_AT_ONCE):
        yield ("," if after else "") + ",".join(one.text for one in page)
        after = page[-1].id
    yield "]}"


async def _all_csv(records: Records, scales: tuple[str, ...]) -> AsyncIterator[str]:
    yield bakes_head(scales)
    after: UUID | None = None
    while page := await records(store.told_rows, after, ALL_AT_ONCE):
        yield bakes_csv([(str(one.id), one.begun_at, one.name, one.way, one.revision, one.status, one.numbers, one.outcome) for one in page], scales)
        after = page[-1].id
