"""The bench: bakes begun, what happens of them added, and told to every device as it happens."""

import json
import time
from collections.abc import AsyncIterator
from dataclasses import dataclass
from typing import Annotated
from uuid import UUID

from cachetools import LRUCache
from fastapi import APIRouter, Header, Query, Request, Response
from fastapi.responses import StreamingResponse
from fastapi.sse import format_sse_event
from pydantic import Field

from pancount.api.desk import may_answer
from pancount.api.live import Live
from pancount.api.long import is_large, off_loop
from pancount.api.records import Records, RecordsOf
from pancount.core.base import most
from pancount.core.base.models import Frozen, Word
from pancount.core.bench.begun import Begun, begin
from pancount.core.bench.card import Card, card_of
from pancount.core.bench.events import Event
from pancount.core.bench.state import BakeNow, Ground, bake_now, ground_of
from pancount.core.count.count import Count
from pancount.core.day.laying import with_pieces
from pancount.core.formula.formula import Formula
from pancount.store import bench as store
from pancount.store.bench import BakeHead, News, Told
from pancount.store.day import get_day
from pancount.store.errors import NotFound
from pancount.store.formula import get_formula, get_revision
from pancount.store.kitchen import get_kitchen
from pancount.store.pantry import own_ingredients

router = APIRouter(prefix="/api", tags=["bench"])

Number = Annotated[int, Field(ge=1, le=2**31 - 1)]
STREAM = "text/event-stream"
CARDS_S = 0.4
"""So long bakes that were not asked for yet are worked out for the list; the others come with the next asking. [s]"""
REMEMBERED = 120
"""Bakes that a process remembers as they were last told."""


class OfDay(Frozen):
    """A product of a baking day."""

    day_id: Number
    product: Word


class Beginning(Frozen):
    """What a bake is begun from: a formula as it lies on the desk or a revision of it, with the desk's count or another; a product of a day; or
    an earlier bake, as it was begun. One of them."""

    id: UUID
    """Made where it is begun, so that what is sent twice is one bake."""
    formula_id: Number | None = None
    revision: Number | None = None
    count: Count | None = None
    day: OfDay | None = None
    again: UUID | None = None


class Happening(Frozen):
    """What happened, in the order in which its writer wrote it."""

    events: Annotated[tuple[Event, ...], Field(min_length=1, max_length=most.BENCH_SENT)]


class BakeState(Frozen):
    """A bake as it is, and what time it is at the server. [s since 1970, UTC]"""

    head: BakeHead
    bake: BakeNow
    now_s: float


class BakeCard(Frozen):
    """A bake under way, in a few words."""

    head: BakeHead
    card: Card | None
    """None where it is not worked out yet: asked again, it is."""


class BenchPage(Frozen):
    """All bakes under way, the number of the kitchen's last event, and what time it is."""

    bakes: tuple[BakeCard, ...]
    number: int
    now_s: float


@dataclass(slots=True)
class KnownBake:
    """A bake as this process last saw it."""

    ground: Ground
    events: tuple[Event, ...]
    head: BakeHead
    told: bytes | None = None
    """The bake as it is, as JSON: every device asks for it, and it is long."""
    card: Card | None = None


class Bakes:
    """Bakes as they were last told: a cache of what their events say, and no more than that."""

    def __init__(self) -> None:
        self._known: LRUCache[UUID, KnownBake] = LRUCache(REMEMBERED)
        self.unrecorded: set[UUID] = set()
        """Bakes of which no record could be made: not tried again by this process, so that they keep no other from the book."""

    async def brought_up(self, request: Request, records: Records, bake_id: UUID) -> KnownBake:
        """A bake with all its events. Raises `NotFound`."""
        known = self._known.get(bake_id)
        news: News = await records(store.news, bake_id, known.head.number if known else None)
        if known is not None and news.head.number == known.head.number:
            known.head = news.head
            return known
        if known is not None:
            ground = known.ground
        else:
            assert news.begun is not None
            ground = await off_loop(request, ground_of, news.begun)
        fresh = KnownBake(ground, (*(known.events if known else ()), *news.events), news.head)
        now = self._known.get(bake_id)
        if now is None or now.head.number < fresh.head.number:  # a slower request does not put an older state in its place
            self._known[bake_id] = fresh
        return fresh

    async def now(self, request: Request, records: Records, bake_id: UUID, status: int = 200) -> Response:
        """A bake as it is: a `BakeState`. Raises `NotFound`."""
        known = await self.brought_up(request, records, bake_id)
        if known.told is None:
            known.told = await off_loop(request, _told, known.ground, known.events, known.head.begun_at.timestamp())
        body = b'{"head":%b,"bake":%b,"now_s":%b}' % (known.head.model_dump_json().encode(), known.told, repr(time.time()).encode())
        return Response(body, status_code=status, media_type="application/json")

    async def card(self, request: Request, records: Records, head: BakeHead, *, quick: bool) -> BakeCard:
        """A bake in a few words; only where they are known already, if it is to be quick."""
        known = self._known.get(head.id)
        if known is not None and known.card is not None and known.head.number == head.number:
            return BakeCard(head=head, card=known.card)
        if quick:
            return BakeCard(head=head, card=None)
        known = await self.brought_up(request, records, head.id)
        if known.card is None:
            known.card = await off_loop(request, card_of, known.ground, known.events, known.head.begun_at.timestamp())
        return BakeCard(head=known.head, card=known.card)


def _told(ground: Ground, events: tuple[Event, ...], begun_s: float) -> bytes:
    return bake_now(ground, events, begun_s).model_dump_json().encode()


def bakes_of(request: Request) -> Bakes:
    """The bakes that this process remembers."""
    bakes: Bakes = request.app.state.bakes
    return bakes


@dataclass(frozen=True, slots=True)
class From:
    """What a bake is begun from, as the records have it."""

    formula: Formula
    count: Count
    formula_id: int
    revision: int | None


async def of_formula(records: Records, formula_id: int, revision: int | None, count: Count | None) -> From:
    """A formula as it lies on the desk, or a revision of it, with the desk's count or another. Raises `NotFound`."""
    state = await records(get_formula, formula_id)
    own = count or state.count
    if revision is not None:
        return From((await records(get_revision, formula_id, revision)).formula, own, formula_id, revision)
    return From(state.formula, own, formula_id, None if state.head.unsaved else state.head.latest_number or None)


async def _of_day(records: Records, asked: OfDay) -> From:
    day = (await records(get_day, asked.day_id)).day
    product = next((one for one in day.products if one.key == asked.product), None)
    if product is None:
        raise NotFound("That is not in this day any more.")
    found = await of_formula(records, product.formula_id, product.revision, None)
    count = with_pieces(found.count, product)
    return From(found.formula, count.model_copy(update={"way": product.way or count.way}), found.formula_id, found.revision)


async def _asked(records: Records, body: Beginning) -> From:
    if body.day is not None:
        return await _of_day(records, body.day)
    if body.again is not None:
        news = await records(store.news, body.again, None)
        if news.begun is not None and news.head.formula_id is not None:
            learned = (await records(get_formula, news.head.formula_id)).count.learned  # the recipe as it was, the kitchen as it is
            return From(news.begun.formula, news.begun.count.model_copy(update={"learned": learned}), news.head.formula_id, news.head.revision)
    if body.formula_id is None:
        raise NotFound("Say what is baked: a formula, a product of a day, or an earlier bake whose formula is still here.")
    return await of_formula(records, body.formula_id, body.revision, body.count)


async def begun_of(request: Request, records: Records, asked: From) -> Begun:
    """A bake as it is begun in this kitchen now. Raises what `begin` raises."""
    settings = (await records(get_kitchen)).settings
    own = await records(own_ingredients)
    heavy = is_large(asked.formula, asked.count)
    return await off_loop(request, begin, asked.formula, asked.count, own, settings.practice, settings.kit, settings.climate, settings.scale, heavy=heavy)


@router.get("/bench", responses=may_answer(503))
async def get_bench(request: Request, records: RecordsOf) -> BenchPage:
    """All bakes under way: what is next of each, and what rings."""
    number = await records(store.last_number)
    heads = await records(store.list_bakes, under_way=True)
    cards, begin = list[BakeCard](), time.monotonic()
    for head in heads:
        cards.append(await bakes_of(request).card(request, records, head, quick=time.monotonic() - begin > CARDS_S))
    return BenchPage(bakes=tuple(cards), number=number, now_s=time.time())


@router.get("/bakes", responses=may_answer(503))
async def list_bakes(records: RecordsOf) -> tuple[BakeHead, ...]:
    """Bakes that are over, the last first."""
    return await records(store.list_bakes, under_way=False)


@router.post("/bakes", status_code=201, response_model=BakeState, responses=may_answer(404, 409, 422, 503))
async def begin_bake(body: Beginning, request: Request, records: RecordsOf) -> Response:
    """Begin a bake: revision, count, way, sheet and method stay as they are now."""
    asked = await _asked(records, body)
    begun = await begun_of(request, records, asked)
    await records(store.begin_bake, body.id, begun, asked.formula_id, asked.revision)
    return await bakes_of(request).now(request, records, body.id, 201)


@router.get("/bakes/{bake_id}", response_model=BakeState, responses=may_answer(404, 422, 503))
async def get_bake(bake_id: UUID, request: Request, records: RecordsOf) -> Response:
    """A bake as it is."""
    return await bakes_of(request).now(request, records, bake_id)


@router.get("/bakes/{bake_id}/events", responses=may_answer(404, 422, 503))
async def get_events(bake_id: UUID, records: RecordsOf) -> tuple[Event, ...]:
    """All that happened of a bake, in the order in which it was kept."""
    return (await records(store.news, bake_id, 0)).events


@router.post("/bakes/{bake_id}/events", response_model=BakeState, responses=may_answer(404, 409, 422, 503))
async def add_events(body: Happening, bake_id: UUID, request: Request, records: RecordsOf) -> Response:
    """Add what happened: once this answers, it is kept. What was sent before counts once."""
    await records(store.append, bake_id, body.events)
    return await bakes_of(request).now(request, records, bake_id)


@router.get("/bench/live", response_class=StreamingResponse, responses=may_answer(422, 503) | {200: {"content": {STREAM: {"schema": {"type": "string"}}}}})
async def live(
    request: Request,
    records: RecordsOf,
    after: Annotated[int | None, Query(ge=0, le=2**53)] = None,
    last_event_id: Annotated[str | None, Header(max_length=40)] = None,
) -> StreamingResponse:
    """What happens at the bench as it happens, as server-sent events: on from the last number seen (`Last-Event-ID`, else `after`), or from now."""
    hub: Live = request.app.state.live
    seen = int(last_event_id) if last_event_id and last_event_id.isdecimal() and len(last_event_id) < 16 else after
    told = await hub.begin(records.kitchen_id, seen)
    return StreamingResponse(_lines(told), media_type=STREAM, headers={"Cache-Control": "no-store", "X-Accel-Buffering": "no"})


async def _lines(told: AsyncIterator[list[Told]]) -> AsyncIterator[bytes]:
    async for some in told:
        if not some:
            yield format_sse_event(event="alive", data_str=json.dumps({"now_s": time.time()}))
        for one in some:
            data = {"number": one.number, "bake": str(one.bake_id), "event": one.body}
            yield format_sse_event(event="happened", id=str(one.number), data_str=json.dumps(data))
