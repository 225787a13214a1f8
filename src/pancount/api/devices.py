"""Scale and thermometer: raw reports in, from a real device by way of the browser or from a simulated one, and what they mean for the bench out."""

import asyncio
import json
import time
from collections.abc import AsyncIterator, Sequence
from contextlib import suppress
from dataclasses import dataclass
from typing import Annotated, Literal

from fastapi import APIRouter, Request
from fastapi.responses import StreamingResponse
from fastapi.sse import format_sse_event
from pydantic import Field

from pancount.api.bench import STREAM
from pancount.api.busy import Busy
from pancount.api.desk import may_answer
from pancount.core.base import most
from pancount.core.base.errors import CoreError
from pancount.core.base.models import Frozen
from pancount.core.bench.scale import OnScale, watch, zeroed
from pancount.devices import hid_scale, thermometer

router = APIRouter(prefix="/api/devices", tags=["devices"])

Kind = Literal["scale", "thermometer"]
Hex = Annotated[str, Field(max_length=128, pattern=r"^([0-9a-fA-F]{2})*$")]
"""Bytes, two signs each."""
At = Annotated[float, Field(ge=0, le=1e11)]
LISTENERS = 40
AGAIN_S = 1.0
QUIET_S = 5.0
"""So long without a report a comment goes out instead, so that who has gone is noticed. [s]"""


class NotRead(CoreError):
    """Bytes that are no report of such a device."""

    code = "not_read"


class ScaleReport(Frozen):
    """One report as it came: its number, the bytes behind that, and when. [s since 1970, UTC]"""

    report: Annotated[int, Field(ge=0, le=255)]
    data: Hex
    at_s: At


class Weighing(Frozen):
    """What the scale was, what it said since, and what is being weighed. `zero`: what is on it now counts as nothing. [g]"""

    before: OnScale = OnScale()
    reports: Annotated[tuple[ScaleReport, ...], Field(max_length=most.BENCH_READINGS)] = ()
    target_g: Annotated[float, Field(ge=0, le=1e7)] | None = None
    tolerance_g: Annotated[float, Field(ge=0, le=1e6)] = 1.0
    now_s: At
    bowl: bool = True
    """Into a bowl, which is tared by itself; else piece by piece, as they are."""
    zero: bool = False


class Probe(Frozen):
    """A thermometer's report."""

    data: Hex


class Temperature(Frozen):
    """What it says. [°C]"""

    celsius: float


class DeviceAt(Frozen):
    """A simulated device: where its page is, and where its reports come from on this machine."""

    kind: Kind
    page: str
    wire: int


@dataclass(slots=True)
class Wires:
    """The simulated devices that were started with the application, and how many listen to them."""

    devices: Sequence[DeviceAt] = ()
    listeners: int = 0
    closed: bool = False

    def at(self, kind: Kind) -> DeviceAt | None:
        """The one of a kind; None where there is none."""
        return next((one for one in self.devices if one.kind == kind), None)


@router.get("", responses=may_answer(503))
async def list_devices(request: Request) -> tuple[DeviceAt, ...]:
    """The simulated devices that were started with the application."""
    return tuple(_wires(request).devices)


@router.post("/scale/read", responses=may_answer(422, 503))
async def read_scale(body: Weighing) -> OnScale:
    """The scale after these reports. The same reports always give the same. Raises `NotRead`."""
    try:
        readings = [hid_scale.read(one.report, bytes.fromhex(one.data), one.at_s) for one in body.reports]
    except hid_scale.NoReport as error:
        raise NotRead(str(error), ("reports",)) from None
    state = watch(body.before, readings, body.target_g, body.tolerance_g, body.now_s, bowl=body.bowl)
    return zeroed(state) if body.zero else state


@router.post("/thermometer/read", responses=may_answer(422, 503))
async def read_thermometer(body: Probe) -> Temperature:
    """What the thermometer says. Raises `NotRead`."""
    try:
        return Temperature(celsius=thermometer.read(bytes.fromhex(body.data)))
    except thermometer.NoMeasurement as error:
        raise NotRead(str(error), ("data",)) from None


@router.get("/{kind}/reports", response_class=StreamingResponse, responses=may_answer(422, 503) | {200: {"content": {STREAM: {"schema": {"type": "string"}}}}})
async def reports(kind: Kind, request: Request) -> StreamingResponse:
    """The raw reports of a simulated device, as they come; it says so where there is none, or it is silent."""
    wires = _wires(request)
    if wires.listeners >= LISTENERS:
        raise Busy("Too many listen to that device.")
    return StreamingResponse(_lines(wires, wires.at(kind)), media_type=STREAM, headers={"Cache-Control": "no-store"})


def _wires(request: Request) -> Wires:
    wires: Wires = request.app.state.wires
    return wires


async def _lines(wires: Wires, device: DeviceAt | None) -> AsyncIterator[bytes]:
    wires.listeners += 1
    try:
        yield format_sse_event(event="wire", data_str=json.dumps({"there": device is not None}))
        while device is not None and not wires.closed:
            try:
                reader, writer = await asyncio.open_connection("127.0.0.1", device.wire)
            except OSError:
                yield format_sse_event(comment="away")
                await asyncio.sleep(AGAIN_S)
                continue
            try:
                async for line in _read(reader):
                    if wires.closed:
                        break
                    yield format_sse_event(data_str=json.dumps({"data": line, "at_s": time.time()})) if line else format_sse_event(comment="quiet")
            finally:
                writer.close()
                with suppress(OSError):
                    await writer.wait_closed()
    finally:
        wires.listeners -= 1


async def _read(reader: asyncio.StreamReader) -> AsyncIterator[str]:
    """Lines as they come; a blank one where nothing came for a while."""
    with suppress(ConnectionError, ValueError):
        while True:
            try:
                async with asyncio.timeout(QUIET_S):
                    line = await reader.readline()
            except TimeoutError:
                yield ""
                continue
            if not line:
                return
            yield line.decode("ascii", "replace").strip()
