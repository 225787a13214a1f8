"""What the core refuses, and where in the formula it stands.

CoreError
 ├─ NoFlour
 ├─ FlourNotHundred
 ├─ NoRoomForFlour
 ├─ StageLoop
 ├─ NoSuchStage
 ├─ FedTwice
 ├─ CannotChange
 ├─ TooMuch
 ├─ Unnamed
 ├─ NoRole
 └─ PinsFight
"""




Place = tuple[str | int, ...]


class CoreError(ValueError):
    """A formula that cannot be reckoned, with a sentence for the baker and the place it points at."""

    code: str = "core"
    title: str = "This cannot be reckoned"

    def __init__(self, sentence: str, at: Place = ()) -> None:
        super().__init__(sentence)
        self.at = at


class NoFlour(CoreError):
    """There is no flour above zero, so there is no 100 %."""

    code = "no_flour"


class FlourNotHundred(CoreError):
    """Flours given in percent do not make 100 %."""

    code = "flour_not_hundred"


class NoRoomForFlour(CoreError):
    """Flours in percent make 100 already, beside a flour given by weight."""

    code = "no_room_for_flour"


class StageLoop(CoreError):
    """Stages that go into each other in a circle."""

    code = "stage_loop"


class NoSuchStage(CoreError):
    """A stage that is to go into one that is not there."""

    code = "no_such_stage"


class FedTwice(CoreError):
    """More of a stage is put to use than there is."""

    code = "fed_twice"


class CannotChange(CoreError):
    """A change that would need less than nothing of something, or has nothing to act on."""

    code = "cannot_change"


class TooMuch(CoreError):
    """More than is reckoned with at once."""

    code = "too_much"


class Unnamed(CoreError):
    """Something that is to be kept has no name."""

    code = "unnamed"


class NoRole(CoreError):
    """An ingredient that the pantry does not know has no role yet."""

    code = "no_role"


class PinsFight(CoreError):
    """A count whose pins cannot hold together makes no sheet."""

    code = "pins_fight"
