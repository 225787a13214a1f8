"""How things are said in a sentence."""

from collections.abc import Sequence


def listed(names: Sequence[str]) -> str:
    """Names as they are said, each once. Needs one at least.

    >>> listed(["Yogurt", "Quark", "Yogurt"])
    'Yogurt and Quark'
    """
    unlike = list(dict.fromkeys(names))
    return " and ".join(filter(None, [", ".join(unlike[:-1]), unlike[-1]]))
