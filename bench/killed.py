"""Two devices weigh in while the application or the database is killed, or the network is cut: nothing acknowledged is lost, nothing is doubled,
and the bench goes on by itself.

Run: PYTHONPATH=src:tests .venv/bin/python bench/killed.py application|database|network [times]
"""

import json
import os
import random
import shutil
import signal
import sys
import tempfile
import threading
import time
import urllib.error
import urllib.request
from collections import Counter
from pathlib import Path
from uuid import uuid4

from relay import Relay
from started import Started, free_port, until

EVENTS = 60
"""Of each device in one bake; then they begin another."""
PAUSE_S = 0.04
AGAIN_S = 0.1


def answer(address: str, path: str, body: object = None) -> object:
    data = None if body is None else json.dumps(body).encode()
    request = urllib.request.Request(address + path, data, {"Content-Type": "application/json"} if data else {})
    with urllib.request.urlopen(request, timeout=4) as got:
        return json.loads(got.read())


class Device:
    """A device that keeps what it does until the server has said that it has it, and sends it in order."""

    def __init__(self, name: str, way: dict[str, str]) -> None:
        self.name, self.way = name, way
        self.acknowledged: dict[str, list[str]] = {}
        self.sent = self.refused = 0

    def weigh(self, bake: str, lines: list[dict]) -> None:
        """A whole weigh-in of one bake."""
        own = self.acknowledged.setdefault(bake, [])
        for clock in range(1, EVENTS + 1):
            line = random.choice(lines)
            what = {"deed": "weighed", "line": line["key"], "g": line["target_g"]}
            event = {"id": str(uuid4()), "writer": self.name, "clock": clock, "at_s": time.time(), "who": self.name, "what": what}
            while True:
                self.sent += 1
                try:
                    answer(self.way["address"], f"/api/bakes/{bake}/events", {"events": [event]})
                except urllib.error.HTTPError as error:
                    assert error.code in (502, 503, 504), (error.code, error.read())
                    self.refused += 1
                    time.sleep(AGAIN_S)
                except (OSError, ValueError):  # broken off, perhaps after it was kept
                    self.refused += 1
                    time.sleep(AGAIN_S)
                else:
                    own.append(event["id"])
                    break
            time.sleep(random.random() * PAUSE_S)


def main(what: str, times: int) -> None:
    state = Path(tempfile.mkdtemp(prefix="pancount-killed-", dir="/tmp"))
    state.chmod(0o755)
    arguments = ("--port", free_port())
    started = Started(state, *arguments)
    way = {"address": started.address()}
    direct = way["address"]
    relay = Relay(int(direct.rsplit(":", 1)[1])) if what == "network" else None
    if relay:
        way["address"] = relay.address
    formula = next(one["id"] for one in answer(direct, "/api/formulas") if one["name"] == "Malted seed bagels")
    devices, done, bakes = [Device("tablet", way), Device("phone", way)], threading.Event(), list[str]()
    killed, back_s = 0, list[float]()

    def bench() -> None:
        while not done.is_set():
            bake = str(uuid4())
            own = until(lambda bake=bake: begun(way["address"], bake, formula), 120)
            bakes.append(bake)
            lines = [line for line in own["bake"]["lines"] if line["target_g"]]
            both = [threading.Thread(target=device.weigh, args=(bake, lines)) for device in devices]
            for one in both:
                one.start()
            for one in both:
                one.join()
            end = {"id": str(uuid4()), "writer": "end", "clock": 1, "at_s": time.time(), "who": "end", "what": {"deed": "ended", "how": "done"}}
            until(lambda bake=bake, end=end: reached(way["address"], f"/api/bakes/{bake}/events", {"events": [end]}), 120)

    weighing = threading.Thread(target=bench)
    weighing.start()
    until(lambda: bakes and devices[0].acknowledged, 60)
    try:
        while killed < times:
            time.sleep(0.3 + random.random())
            begin = time.monotonic()
            if what == "application":
                started.process.send_signal(signal.SIGKILL)
                started.close()
                started = Started(state, *arguments)
                started.address()
            elif what == "database":
                pids = [int(p.read_text().split()[0]) for p in state.glob("*/data/postmaster.pid")]
                for pid in pids:
                    os.kill(pid, signal.SIGKILL)
            else:
                relay.cut()
                time.sleep(0.2 + random.random() / 2)
                relay.mend()
            killed += 1
            until(lambda: reached(way["address"], "/api/bench"), 120)
            back_s.append(time.monotonic() - begin)
    finally:
        done.set()
        weighing.join(180)
    lost = doubled = strange = kept = 0
    for bake in bakes:
        events = answer(direct, f"/api/bakes/{bake}/events")
        there = Counter(event["id"] for event in events)
        kept += len(events)
        doubled += sum(n - 1 for n in there.values())
        told = {one for device in devices for one in device.acknowledged.get(bake, [])}
        lost += len(told - set(there))
        strange += len(set(there) - told - {event["id"] for event in events if event["writer"] == "end"})
        for device in devices:
            clocks = [event["clock"] for event in events if event["writer"] == device.name]
            assert clocks == sorted(clocks), "a writer's order was not kept"
    acknowledged = sum(len(some) for device in devices for some in device.acknowledged.values())
    tries = sum(device.sent for device in devices)
    print(
        f"{what} {killed} times: {acknowledged} events acknowledged in {tries} sendings ({sum(device.refused for device in devices)} broken off or put off), "
        f"{lost} lost, {doubled} doubled, {strange} nobody's, of {kept} kept in {len(bakes)} bakes; back after {sorted(back_s)[len(back_s) // 2]:.1f} s in the middle, {max(back_s):.1f} s at most",
        flush=True,
    )
    if relay:
        relay.close()
    started.stop(signal.SIGTERM)
    started.close()
    shutil.rmtree(state, ignore_errors=True)
    sys.exit(1 if lost or doubled or strange else 0)


def begun(address: str, bake: str, formula: int) -> dict | None:
    try:
        return answer(address, "/api/bakes", {"id": bake, "formula_id": formula})
    except (OSError, ValueError):
        return None


def reached(address: str, path: str, body: object = None) -> bool:
    try:
        answer(address, path, body)
    except (OSError, ValueError):
        return False
    return True


if __name__ == "__main__":
    main(sys.argv[1], int(sys.argv[2]) if len(sys.argv) > 2 else 100)
