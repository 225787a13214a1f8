"""What is told where too many ask at once."""

RETRY_S = 1
"""When to ask again. [s]"""


class Busy(Exception):
    """There are too many ahead of this request. It was not begun; it can be asked again."""

    def __init__(self, detail: str = "Too many are asking at once. Nothing was changed; try again in a moment.") -> None:
        super().__init__(detail)
