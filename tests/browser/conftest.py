"""The real application in headless Chromium."""

import threading
from collections.abc import Iterator

import pytest
import uvicorn
from playwright.sync_api import Browser, Page, expect, sync_playwright
from sqlalchemy import Engine

from browser_flags import CHROMIUM, FLAGS
from pancount.api.app import make_app
from pancount.api.devices import DeviceAt
from pancount.api.planning import Planners
from pancount.serving import listening

PATIENCE_MS = 40_000
"""For what is awaited, on a machine that is busy with other things; nothing waits as long where all is well."""
expect.set_options(timeout=PATIENCE_MS)


class Served:
    """The application on a port of its own, in a thread."""

    def __init__(self, engine: Engine, devices: tuple[DeviceAt, ...] = ()) -> None:
        self.listener = listening(0)
        self.address = f"http://127.0.0.1:{self.listener.getsockname()[1]}"
        app = make_app(engine, devices_at=devices)
        app.state.planners = Planners(counted=0.15)  # a good timetable is enough here
        self.server = uvicorn.Server(uvicorn.Config(app, log_level="warning"))
        self.thread = threading.Thread(target=self.server.run, kwargs={"sockets": [self.listener]})

    def __enter__(self) -> str:
        self.thread.start()
        while not self.server.started:
            self.thread.join(0.02)
        return self.address

    def __exit__(self, *_: object) -> None:
        self.server.should_exit = True
        self.thread.join()
        self.listener.close()


@pytest.fixture(scope="session")
def address(engine: Engine) -> Iterator[str]:
    with Served(engine) as address:
        yield address


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        yield browser
        browser.close()


@pytest.fixture
def page(browser: Browser, address: str) -> Iterator[Page]:
    """A page of 1280 × 800 at the application; an error in its scripts fails the test."""
    context = browser.new_context(base_url=address, viewport={"width": 1280, "height": 800}, accept_downloads=True)
    context.set_default_timeout(PATIENCE_MS)
    page = context.new_page()
    errors: list[str] = []
    page.on("pageerror", lambda error: errors.append(str(error)))
    yield page
    context.close()
    assert not errors
