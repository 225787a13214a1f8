"""The screens as a browser meets them: bytes of the first page, and the time from a key to every number, on the buns of
ten lines, on a formula of 60 lines in 6 stages, and on the method of a way of 25 steps with 6 rises.

Run beside a running application: PYTHONPATH=src:tests:bench .venv/bin/python bench/screen.py http://127.0.0.1:8137
"""

import json
import statistics
import sys
import urllib.request

from method import PAN, WAYS
from playwright.sync_api import Browser, Page, sync_playwright

from browser_flags import CHROMIUM, FLAGS
from pancount.core.count.count import one_target

CHANGES = 100
STAGES = ("Levain, first step", "Levain, second step", "Cooked-flour paste", "Soaker", "Dough", "Folded in")
LINES = (
    ("Bread flour", "flour"), ("Whole milk", "liquid"), ("Water", "liquid"), ("Egg", "egg"), ("Butter", "fat"),
    ("Sugar", "sugar"), ("Fine salt", "salt"), ("Instant yeast", "leaven"), ("Honey", "sugar"), ("Olive oil", "fat"),
)  # fmt: skip
WATCH = """() => {
  window.times = []
  let pressed = 0
  addEventListener('keydown', (event) => { pressed = event.timeStamp }, true)
  const trays = document.querySelector('.trays, .method-page')
  let stale = false
  new MutationObserver(() => {
    const now = trays.classList.contains('stale')
    if (stale && !now) {
      const from = pressed
      // The next frame is the first that shows them.
      requestAnimationFrame(() => window.times.push(performance.now() - from))
    }
    stale = now
  }).observe(trays, { attributes: true })
}"""
"""Every number is there when the trays are no longer marked as stale."""


def first_page(page: Page, address: str, path: str) -> dict[str, int]:
    """Bytes over the wire by kind, headers not counted."""
    kinds: dict[str, str] = {}
    sizes: dict[str, int] = {}
    session = page.context.new_cdp_session(page)
    session.send("Network.enable")
    session.send("Network.setCacheDisabled", {"cacheDisabled": True})
    session.on("Network.responseReceived", lambda e: kinds.update({e["requestId"]: e["type"]}))

    def done(event: dict) -> None:
        kind = kinds.get(event["requestId"], "other")
        sizes[kind] = sizes.get(kind, 0) + int(event["encodedDataLength"])

    session.on("Network.loadingFinished", done)
    page.goto(address + path)
    page.wait_for_load_state("networkidle")
    session.detach()
    return sizes


def told(page: Page, address: str, path: str) -> None:
    sizes = first_page(page, address, path)
    code = sizes.get("Script", 0) + sizes.get("Stylesheet", 0)
    print(f"{path}: scripts and styles {code / 1000:.0f} kB, all by kind {sizes}")


def sixty_lines(address: str) -> int:
    """A formula of 60 lines in 6 stages, taken in from a file; its number."""
    lines = [{"name": name, "role": role, "weight_g": 100 + n} for n, (name, role) in enumerate(LINES)]
    stages = [{"name": name, "lines": lines} for name in STAGES]
    file = {"format": "pancount-formula", "version": 2, "formula": {"name": "Sixty lines", "stages": stages}}
    request = urllib.request.Request(
        f"{address}/api/formulas/import", json.dumps(file).encode(), {"Content-Type": "application/json"}
    )
    return json.load(urllib.request.urlopen(request))["head"]["id"]


def twenty_five_steps(address: str) -> int:
    """The formula of bench/method.py, kept; its number."""
    body = {"formula": WAYS.model_dump(mode="json"), "count": one_target(PAN, pieces=24, pans=2).model_dump(mode="json")}
    request = urllib.request.Request(f"{address}/api/formulas", json.dumps(body).encode(), {"Content-Type": "application/json"})
    return json.load(urllib.request.urlopen(request))["head"]["id"]


COUNT_FIELDS = ('[data-quantity="flour_g"] input', '[data-cell="1:1:percent"] input')
METHOD_FIELDS = ('[aria-label="Counter today"]', '[aria-label="Warm spot today"]')


def keys_to_numbers(browser: Browser, url: str, name: str, fields: tuple[str, str] = COUNT_FIELDS) -> None:
    page = browser.new_page(viewport={"width": 1280, "height": 800})
    page.goto(url)
    page.locator(fields[0]).wait_for()
    page.evaluate(WATCH)
    for n in range(CHANGES):
        page.locator(fields[n % 2]).focus()
        page.keyboard.press("End")
        page.keyboard.press("Backspace" if n % 4 > 1 else str(n % 10))
        page.wait_for_timeout(250)
    page.wait_for_timeout(500)
    times = page.evaluate("window.times")
    cuts = statistics.quantiles(times, n=100)
    print(f"{name}: key to every number over {len(times)} changes: p50 {cuts[49]:.0f} ms, p95 {cuts[94]:.0f} ms")
    page.close()


def main(address: str) -> None:
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        told(page, address, "/formulas")
        formula = page.get_by_role("link", name="Cardamom milk buns", exact=True).get_attribute("href")
        page.close()
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        told(page, address, formula)
        page.close()
        keys_to_numbers(browser, f"{address}{formula}", "ten lines")
        keys_to_numbers(browser, f"{address}/formulas/{sixty_lines(address)}", "60 lines")
        keys_to_numbers(browser, f"{address}/formulas/{twenty_five_steps(address)}/method", "method of 25 steps", METHOD_FIELDS)
        browser.close()


if __name__ == "__main__":
    main(sys.argv[1])
