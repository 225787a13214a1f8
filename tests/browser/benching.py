"""A bake brought so far as a test or a picture needs it: by another device, over the wire."""

import json
import time
import urllib.request
from uuid import uuid4

from playwright.sync_api import APIRequestContext

from pancount.api.devices import DeviceAt


def happened(request: APIRequestContext, bake: str, *deeds: dict, who: str = "Elsewhere", ago_s: float = 0.0) -> dict:
    """Something another device did; the bake after that."""
    own = request.get(f"/api/bakes/{bake}").json()
    seen = own["bake"]["seen"]
    clock = max([0, *seen.values()])
    events = [{"id": str(uuid4()), "writer": "elsewhere", "clock": clock + n, "saw": seen, "at_s": time.time() - ago_s, "who": who, "what": deed} for n, deed in enumerate(deeds, 1)]
    for first in range(0, len(events), 100):
        answer = request.post(f"/api/bakes/{bake}/events", data={"events": events[first : first + 100]})
        assert answer.ok, answer.text()
        own = answer.json()
    return own


def ready_before(request: APIRequestContext, bake: dict, kind: str) -> dict:
    """All that comes before the first of a kind on the dough is weighed and done, elsewhere."""
    own, deeds = bake["bake"], list[dict]()
    tasks, lines = {one["key"]: one for one in own["tasks"]}, {one["key"]: one for one in own["lines"]}
    for key in own["order"]:
        if key in lines:
            deeds.append({"deed": "weighed", "line": key, "g": lines[key]["target_g"]} if lines[key]["target_g"] else {"deed": "skipped", "task": key})
        elif tasks[key]["kind"] == kind and not tasks[key]["on"]:
            break
        else:
            deeds += [{"deed": "began", "task": key}, {"deed": "done", "task": key}]
    return happened(request, bake["head"]["id"], *deeds)


def touch(device: DeviceAt, does: str, value: float = 0.0) -> None:
    """Do something to a practice device, as on its page."""
    request = urllib.request.Request(f"{device.page}touch", json.dumps({"does": does, "value": value}).encode(), {"content-type": "application/json"})
    urllib.request.urlopen(request).close()
