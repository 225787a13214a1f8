"""Weir House kitchen's book: nineteen bakes of three formulas over two months, beside the one that its bench ended, with invented outcomes and drawn pictures."""

import tomllib
from datetime import UTC, datetime, timedelta
from importlib.resources import files
from random import Random
from typing import Any
from uuid import NAMESPACE_URL, UUID, uuid5

from sqlalchemy.orm import Session

from pancount.core.base.scale import Scale
from pancount.core.bench.events import Added, Began, Done, Ended, LookedAt, Measurement, Piece, Weighed
from pancount.core.bench.running import TaskNow
from pancount.core.bench.state import Ground, bake_now, ground_of
from pancount.core.book.outcome import Outcome
from pancount.core.book.record import record_of
from pancount.core.pans.kit import Kit
from pancount.core.pantry.role import Role
from pancount.demo.bench import Telling, begun_here
from pancount.demo.pictures import crumb, crust
from pancount.formats.photo import photo_of
from pancount.store.bench import append, begin_bake
from pancount.store.book import keep_record, put_outcome
from pancount.store.kitchen import ONLY_KITCHEN
from pancount.store.photos import change_photo, keep_photo

SEED = 20_261
STRAYS_G = 1.6
"""How evenly Weir House divides."""
OVEN_OVER_C = 9.0
"""Its oven is hotter than it says."""
WEIGHED_BAKED = 6


def _bakes() -> list[dict[str, Any]]:
    found: list[dict[str, Any]] = tomllib.loads((files("pancount.demo") / "book.toml").read_text())["bake"]
    return found


def _rise(task: TaskNow, told: dict[str, Any], random: Random) -> float:
    return task.usual_min * float(told["slower"]) * random.uniform(0.95, 1.05)


def _baked(ground: Ground, told: dict[str, Any], begun_at: datetime, number: int) -> Telling:
    """All that happened of one bake, at the bench."""
    random, telling = Random(SEED + number), Telling(ground.begun, begun_at, "Tablet", f"book {number}")
    state = bake_now(ground, (), begun_at.timestamp())
    for line in state.lines:
        if line.target_g is not None:
            telling.then(0.4, Weighed(line=line.key, g=round(line.target_g / line.step_g) * line.step_g, by="scale"))
    liquids = [line for line in state.lines if line.role == str(Role.LIQUID) and line.what == "line" and line.mix == 0]
    largest = max(liquids, key=lambda line: line.target_g or 0.0)
    made, divided = state.making, False
    assert made is not None
    pieces = [round(made.targets[0].piece_g + random.gauss(0, STRAYS_G)) for _ in range(made.targets[0].pieces)]
    for task in state.tasks:
        if task.group == "rise" and not task.on and not divided:
            if told["added_g"]:
                telling.then(0, Added(line=largest.key, g=told["added_g"], by="scale"))
                told = told | {"added_g": 0}
            telling.then(0, Measurement(what="dough_c", value=told["dough_c"]), Measurement(what="room_c", value=21.0 + random.uniform(-1, 1.5)))
        if task.kind == "divide":
            divided = True
            mixed = bake_now(ground, telling.events, begun_at.timestamp()).dough.mixed_g
            telling.then(1, Measurement(what="dough_g", value=round(mixed * (1 - told["bench"])), task=task.key), *(Piece(g=g, by="scale") for g in pieces))
        if task.ahead:  # done by the time that it is needed, while something else went on
            lasts = task.usual_min * random.uniform(1.0, 1.35)
            telling.then(-lasts, Began(task=task.key))
            telling.then(lasts, Done(task=task.key))
            continue
        telling.then(0.2, Began(task=task.key))
        if task.kind == "test":
            telling.then(1, LookedAt(task=task.key, passed=True))
        if task.kind == "bake" and task.load <= 0:
            telling.then(1, Measurement(what="oven_c", value=_dial(ground) + OVEN_OVER_C + random.uniform(-4, 4)))
        minutes = _rise(task, told, random) if task.does == "rises" else task.usual_min * random.uniform(0.9, 1.15)
        telling.then(minutes, Done(task=task.key))
    telling.then(1, Ended(how="done"))
    return telling


def _dial(ground: Ground) -> float:
    return next((one.dial_c for one in ground.begun.method.bakes if one.dial_c is not None), 200.0)


def _pictures(session: Session, bake: UUID, told: dict[str, Any], number: int) -> None:
    scores = told["scores"]
    brown = 0.35 + 0.08 * scores["Crust"] + (0.3 if told["loss"] > 0.2 else 0.0) + (0.15 if told["name"] == "Caraway knots" else 0.0)
    bagels = told["name"] == "Malted seed bagels"
    for n, what in enumerate(told.get("pictures", ())):
        drawn = crust(SEED + number, brown, hole=bagels, seeds=bagels) if what == "crust" else crumb(SEED + number, scores["Crumb"] / 5, brown)
        photo = photo_of(drawn)
        own = uuid5(NAMESPACE_URL, f"weir-house:photo:{number}:{n}")
        keep_photo(session, ONLY_KITCHEN, bake, own, photo.large, photo.small, (photo.width, photo.height), square=False, caption="")
        change_photo(session, ONLY_KITCHEN, own, "Crust" if what == "crust" else "Crumb", square=what == "crumb")


def keep_book(session: Session, kit: Kit, scale: Scale) -> None:
    """Write the book."""
    now, grounds = datetime.now(UTC), dict[str, tuple[Ground, int, int]]()
    for number, told in enumerate(_bakes()):
        if told["name"] not in grounds:
            begun, formula, revision = begun_here(session, told["name"], kit, scale)
            grounds[told["name"]] = (ground_of(begun), formula, revision)
        ground, formula, revision = grounds[told["name"]]
        day = (now - timedelta(days=told["days"])).replace(hour=told["hour"], minute=10 + number % 4 * 10, second=0, microsecond=0)
        telling = _baked(ground, told, day, number)
        bake = uuid5(NAMESPACE_URL, f"weir-house:book:{number}")
        begin_bake(session, ONLY_KITCHEN, bake, ground.begun, formula, revision, day)
        head = append(session, ONLY_KITCHEN, bake, telling.events)
        record = record_of(ground, telling.events, day.timestamp(), Outcome())
        keep_record(session, ONLY_KITCHEN, bake, head.number, record, 0)
        baked_g = round(record.targets[0].piece_g * (1 - told["loss"]) * WEIGHED_BAKED, 1)
        outcome = Outcome.model_validate({name: told[name] for name in ("scores", "words", "wrong", "next_time") if name in told} | {"baked_g": baked_g, "baked_pieces": WEIGHED_BAKED, "height_cm": round(3.6 + 0.35 * told["scores"]["Height"], 1)})
        put_outcome(session, ONLY_KITCHEN, bake, outcome, 1, record_of(ground, telling.events, day.timestamp(), outcome))
        _pictures(session, bake, told, number)
