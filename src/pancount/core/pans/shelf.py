"""The shelf: the pans that a kitchen owns, what they are made of, and common sizes to start from."""

from functools import cache
from typing import Annotated

from pydantic import Field, TypeAdapter

from pancount.core.base.datafiles import rows
from pancount.core.base.models import Frozen, Word, Words
from pancount.core.pans.pan import AnyPan, Pan


class ShelfPan(Frozen):
    """A pan that the kitchen owns. What it is called is kept apart from its size, which is the pan's own."""

    pan: Pan
    material: Word | None = None
    colour: Words = ""
    sticks: bool = False
    owned: Annotated[int, Field(ge=0, le=1000)] = 1
    note: Words = ""


class Material(Frozen):
    """What a pan is made of, and what that does in the oven."""

    key: str
    label: str
    in_the_oven: str
    source: str


class CommonPan(Frozen):
    """A size to start from."""

    pan: Pan
    source: str
    nominal_ml: float | None = None
    """What makers and cooks say that it holds. None where they say nothing, or not the same. [ml]"""


@cache
def materials() -> dict[str, Material]:
    """What pans are made of, by key."""
    return {row["key"]: Material(**row) for row in rows(__name__, "materials.csv")}


@cache
def common_pans() -> tuple[CommonPan, ...]:
    """Common sizes, by shape."""
    read: TypeAdapter[AnyPan] = TypeAdapter(Pan)
    return tuple(
        CommonPan(
            pan=read.validate_python({k: v for k, v in row.items() if v and k not in ("source", "nominal_ml")}),
            source=row["source"],
            nominal_ml=float(row["nominal_ml"]) if row["nominal_ml"] else None,
        )
        for row in rows(__name__, "pans.csv")
    )
