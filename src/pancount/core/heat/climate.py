"""How warm a kitchen is, and what it warms and cools with."""

from typing import Annotated, Literal

from pydantic import Field

from pancount.core.base.models import Frozen, Grams

RoomC = Annotated[float, Field(ge=-5, le=50)]
"""How warm a room, flour or tap water is. [°C]"""

HAND_C_MIN, MACHINE_C_MIN = 0.2, 0.6
"""What kneading warms a dough by, each minute: by hand, and by a machine at low to medium. Common practice, no source: bakers tell friction
in degrees of the water, 0.3 to 0.5 and about 1 a minute, and a degree of a lean dough is 1.7 of its water. [°C/min]"""


class Climate(Frozen):
    """A kitchen's usual temperatures, its oven, its mixer's friction and its bowl. What today is otherwise is told with the count."""

    room_c: RoomC = 22
    warm_c: RoomC = 28
    """Its warm spot: the oven with its light on, a shelf over the boiler."""
    fridge_c: Annotated[float, Field(ge=-2, le=15)] = 5
    tap_c: Annotated[float, Field(ge=0.5, le=40)] = 12
    """The cold tap."""
    flour_c: RoomC | None = None
    """None: as warm as the room."""
    machine_c_min: Annotated[float, Field(ge=0, le=5)] = MACHINE_C_MIN
    hand_c_min: Annotated[float, Field(ge=0, le=5)] = HAND_C_MIN
    bowl: Literal["none", "glass", "steel"] = "none"
    """What the bowl is of, where it is not warmed: a cold heavy one takes heat from the dough."""
    bowl_weighs_g: Grams = 0
    oven_fan: bool = False
    oven_error_c: Annotated[float, Field(ge=-60, le=60)] = 0
    """By how much the oven is hotter than it says."""
    heat_unit: Literal["C", "F", "gas"] = "C"
    rise_factor: Annotated[float, Field(ge=0.2, le=5)] = 1
    """So many times as long as the model says rises take here, where nothing was learned of the one formula."""
    tub_ml: Annotated[float, Field(ge=1, le=1_000_000)] | None = None
    """What the tub that dough rises in holds. None: not known."""


class Today(Frozen):
    """What is otherwise today. What is None is as usual. Times of day in minutes from midnight; after 1440 it is the next day."""

    room_c: RoomC | None = None
    warm_c: RoomC | None = None
    fridge_c: Annotated[float, Field(ge=-2, le=15)] | None = None
    flour_c: RoomC | None = None
    begins_min: Annotated[float, Field(ge=0, le=1440)] | None = None
    ready_min: Annotated[float, Field(ge=0, le=20_160)] | None = None
    """When it is to be ready; up to two weeks after the midnight before it begins."""


def today(usual: Climate, now: Today) -> Climate:
    """The kitchen as it is today."""
    own = {name: value for name in ("room_c", "warm_c", "fridge_c", "flour_c") if (value := getattr(now, name)) is not None}
    return usual.model_copy(update=own)
