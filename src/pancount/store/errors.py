"""What the store refuses.

StoreError
 ├─ NotFound    no such thing in this kitchen
 ├─ Behind      someone else changed it first
 └─ Away        the database cannot be reached
"""


class StoreError(Exception):
    """Something the store cannot do, with a sentence for the baker."""


class NotFound(StoreError):
    """There is no such thing in this kitchen."""


class Behind(StoreError):
    """What was sent rests on an older state than the stored one. Nothing was changed."""


class Away(StoreError):
    """The database cannot be reached now."""

    def __init__(self) -> None:
        super().__init__("The kitchen's records cannot be reached just now.")
