"""Room on the disk that holds the records."""

import shutil
from pathlib import Path

ROOM_NEEDED = 250_000_000
"""Free space that a new cluster and a first day's work take, with a margin. [bytes]"""
FULL_BELOW = 20_000_000
"""With less than a segment of PostgreSQL's log (16 MB) and a little more it cannot go on. [bytes]"""


def room(folder: Path) -> int:
    """What is free where a folder is. [bytes]"""
    return shutil.disk_usage(folder).free


def is_full(folder: Path) -> bool:
    """Whether PostgreSQL can write there no more; False where the folder is gone."""
    try:
        return room(folder) < FULL_BELOW
    except OSError:
        return False
