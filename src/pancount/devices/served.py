"""A simulated device as a process of its own: a page to pour, tare, overload and unplug it, and a wire that its reports come out of.

`python -m pancount.devices.served scale` says where both are, in one line of JSON, and runs until its parent ends.
"""

import asyncio
import contextlib
import ctypes
import json
import signal
import socket
import sys
from pathlib import Path
from typing import Annotated, Any, Literal

import uvicorn
from fastapi import FastAPI
from fastapi.responses import FileResponse
from pydantic import BaseModel, ConfigDict, Field

from pancount.devices.simulated import GRAMS, OUNCES, SimulatedScale, SimulatedThermometer

PAGES = Path(__file__).parent / "pages"
TICK_S = 0.1
Device = SimulatedScale | SimulatedThermometer


class Touch(BaseModel):
    """What is done to a device. `value` in grams, grams a second or degrees."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)

    does: Literal["put", "set", "pour", "zero", "clear", "unit", "plugged", "frozen", "drift", "around", "probe"]
    value: Annotated[float, Field(ge=-20_000, le=20_000)] = 0.0


def touch_scale(scale: SimulatedScale, touch: Touch) -> None:
    """Do something to a scale."""
    match touch.does:
        case "put":
            scale.load_g = max(0.0, scale.load_g + touch.value)
        case "set":
            scale.load_g = max(0.0, touch.value)
        case "pour":
            scale.pours_g_s = touch.value
        case "clear":
            scale.load_g = scale.pours_g_s = 0.0
        case "zero":
            scale.zero()
        case "unit":
            scale.unit, scale.exponent = (OUNCES, -1) if scale.unit == GRAMS else (GRAMS, 0)
        case "plugged":
            scale.plugged = not scale.plugged
        case "frozen":
            scale.frozen = not scale.frozen
        case "drift":
            scale.drift_g_min = touch.value
        case _:
            pass


def touch_thermometer(thermometer: SimulatedThermometer, touch: Touch) -> None:
    """Do something to a thermometer."""
    match touch.does:
        case "around":
            thermometer.around_c = touch.value
        case "unit":
            thermometer.fahrenheit = not thermometer.fahrenheit
        case "plugged":
            thermometer.plugged = not thermometer.plugged
        case "probe":
            thermometer.probe = not thermometer.probe
        case _:
            pass


def told(device: Device) -> dict[str, Any]:
    """How it is, for its page."""
    report = device.report()
    own = {name: value for name, value in vars(device).items() if not name.startswith("_") and name != "random"}
    return own | {"bytes": "" if report is None else report.hex()}


def make_page(device: Device) -> FastAPI:
    """The page of a device."""
    app = FastAPI(docs_url=None, redoc_url=None, openapi_url=None)

    @app.get("/")
    async def page() -> FileResponse:
        return FileResponse(PAGES / ("scale.html" if isinstance(device, SimulatedScale) else "thermometer.html"))

    @app.get("/page.js")
    async def script() -> FileResponse:
        return FileResponse(PAGES / "page.js", media_type="text/javascript")

    @app.get("/page.css")
    async def style() -> FileResponse:
        return FileResponse(PAGES / "page.css", media_type="text/css")

    @app.get("/now")
    async def now() -> dict[str, Any]:
        return told(device)

    @app.post("/touch")
    async def touch(body: Touch) -> dict[str, Any]:
        if isinstance(device, SimulatedScale):
            touch_scale(device, body)
        else:
            touch_thermometer(device, body)
        return told(device)

    return app


async def run(device: Device, page: socket.socket, wire: socket.socket) -> None:
    """Serve a device's page and its wire."""
    listening: set[asyncio.StreamWriter] = set()

    async def heard(reader: asyncio.StreamReader, writer: asyncio.StreamWriter) -> None:
        listening.add(writer)
        with contextlib.suppress(ConnectionError):
            await reader.read()
        listening.discard(writer)
        writer.close()

    async def tick() -> None:
        while True:
            await asyncio.sleep(TICK_S)
            device.step(TICK_S)
            report = device.report()
            if report is None:
                continue
            for writer in tuple(listening):
                with contextlib.suppress(ConnectionError, RuntimeError):
                    writer.write(report.hex().encode() + b"\n")

    server = uvicorn.Server(uvicorn.Config(make_page(device), log_level="error", access_log=False))
    async with await asyncio.start_server(heard, sock=wire):
        ticking = asyncio.create_task(tick())
        await server.serve(sockets=[page])
        ticking.cancel()


def _listening(port: int) -> socket.socket:
    own = socket.socket(socket.AF_INET, socket.SOCK_STREAM, socket.IPPROTO_TCP)
    own.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        own.bind(("127.0.0.1", port))
    except OSError:
        own.bind(("127.0.0.1", 0))
    own.listen()
    return own


def main() -> None:
    """`served scale [port of its page]`."""
    kind, port = sys.argv[1], int(sys.argv[2]) if len(sys.argv) > 2 else 0
    ctypes.CDLL(None).prctl(1, signal.SIGTERM)  # PR_SET_PDEATHSIG of <linux/prctl.h>: it ends with the application
    device: Device = SimulatedScale() if kind == "scale" else SimulatedThermometer()
    page, wire = _listening(port), _listening(0)
    print(json.dumps({"kind": kind, "page": f"http://127.0.0.1:{page.getsockname()[1]}/", "wire": wire.getsockname()[1]}), flush=True)
    asyncio.run(run(device, page, wire))


if __name__ == "__main__":
    main()
