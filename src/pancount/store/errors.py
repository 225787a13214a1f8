"""What the store refuses.

StoreError
 ├─ NotFound    no such thing in this kitchen
 ├─ Behind      someone else changed it first
 ├─ Full        the kitchen has as many as it may
 └─ Away        the database cannot be reached, or does not answer in time
     └─ NoRoom  the disk it writes to is full
"""


class StoreError(Exception):
    """Something the store cannot do, with a sentence for the baker."""


class NotFound(StoreError):
    """There is no such thing in this kitchen."""


class Behind(StoreError):
    """What was sent rests on an older state than the stored one. Nothing was changed."""


class Full(StoreError):
    """The kitchen has as many of something as it may. Nothing was changed."""


class Away(StoreError):
    """The database cannot be reached now."""

    def __init__(self, sentence: str = "The kitchen's records cannot be reached just now.") -> None:
        super().__init__(sentence)


class NoRoom(Away):
    """The disk that holds the records is full. What was sent is not kept; what was kept before is there."""

    def __init__(self, folder: str = "") -> None:
        where = f" ({folder})" if folder else ""
        super().__init__(f"The disk that holds the kitchen's records{where} is full: make room on it. Nothing kept before is lost.")
