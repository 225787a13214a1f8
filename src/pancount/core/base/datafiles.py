"""The data files of a room, in its `data/`: each is read by the module that answers for it, which keeps what it read."""

import csv
import tomllib
from importlib.resources import files
from typing import Any


def _text(module: str, *path: str) -> str:
    return files(module.rpartition(".")[0]).joinpath("data", *path).read_text(encoding="utf-8")


def rows(module: str, name: str) -> list[dict[str, Any]]:
    """The rows of a CSV file in the room of `module` (its `__name__`), by the names in the header."""
    return list(csv.DictReader(_text(module, name).splitlines()))


def entries(module: str, *path: str) -> dict[str, Any]:
    """What a TOML file in the room of `module` (its `__name__`) holds."""
    return tomllib.loads(_text(module, *path))
