"""What the bench makes of a scale: the bowl is tared, a weight is taken when it stands, trouble is said."""

import pytest

from pancount.core.bench.scale import OnScale, Reading, watch, zeroed


def said(g: float, at_s: float, status: str = "steady", step_g: float = 1.0, unit: str = "g") -> Reading:
    return Reading(at_s=at_s, status=status, g=g, step_g=step_g, unit=unit)


def over(state: OnScale, grams: list[float], begin_s: float, target_g: float | None = 475, tolerance_g: float = 2, status: str = "steady") -> OnScale:
    """The scale after readings, five a second."""
    return watch(state, [said(g, begin_s + n / 5, status) for n, g in enumerate(grams)], target_g, tolerance_g, begin_s + len(grams) / 5)


@pytest.fixture
def bowl() -> OnScale:
    """A bowl of 412 g, just put on an empty scale."""
    return over(over(OnScale(), [0, 0, 0], 0), [412] * 8, 10)


def test_a_bowl_is_tared(bowl):
    """It counts as nothing as soon as it stands, and not before."""
    assert (bowl.tare_g, bowl.net_g, bowl.phase) == (412, 0, "pouring")
    moving = over(over(OnScale(), [0], 0), [380, 400, 410], 10, status="moving")
    assert moving.tare_g is None


def test_taken_when_it_stands(bowl):
    """Within the tolerance for most of a second; not while it is poured, nor beside it."""
    assert over(bowl, [500, 700, 886], 20, status="moving").take is False
    assert over(bowl, [887] * 3, 20).take is False
    stands = over(bowl, [887] * 8, 20)
    assert (stands.take, stands.phase, stands.net_g) == (True, "within", 475)
    assert over(bowl, [880] * 8, 20).take is False
    assert over(bowl, [895] * 8, 20).phase == "over"


def test_the_next_line_begins_from_here(bowl):
    """Tare by itself: after a weight was taken, the same bowl shows nothing again."""
    next_line = over(zeroed(over(bowl, [887] * 8, 20)), [887] * 3, 30, target_g=10, tolerance_g=1)
    assert next_line.net_g == 0


def test_the_bowl_taken_off_and_back(bowl):
    """What it weighed before still counts; another bowl is asked about."""
    poured = over(bowl, [600] * 6, 20)
    off = over(poured, [0] * 6, 30)
    assert "is the bowl on it" in off.says
    assert over(off, [600] * 6, 40).net_g == 188
    other = over(off, [950] * 6, 40)
    assert "another bowl" in other.says
    assert "188 g more than when this line began" in over(off, [600] * 6, 40).says
    assert over(off, [887] * 8, 40).says == ""  # as much as was meant: it was filled beside the scale


class TestZeroed:
    """Its key, and what does the same: nothing that is still moving is counted as nothing, and nothing that is poured is lost."""

    def test_while_it_moves(self, bowl):
        """Pressed while a heavier bowl is put on: it waits until that stands."""
        pressed = zeroed(over(bowl, [600, 900], 20, status="moving"))
        assert (pressed.zeroing, pressed.take, pressed.tare_g) == (True, False, 412)
        moving = over(pressed, [1100, 1180], 21, status="moving")
        assert moving.zeroing
        assert "as soon as it stands" in moving.says
        stands = over(moving, [1200] * 4, 22)
        assert (stands.zeroing, stands.tare_g, stands.net_g) == (False, 1200, 0)
        assert over(stands, [1675] * 8, 24).take

    def test_before_it_said_anything(self):
        """Unplugged when it was pressed: what stands on it when it is back counts as nothing."""
        back = over(zeroed(OnScale()), [750] * 4, 5)
        assert (back.tare_g, back.net_g) == (750, 0)

    def test_after_it_fell_silent(self, bowl):
        """What was typed meanwhile was poured meanwhile: the next line begins from what stands there then."""
        silent = watch(over(bowl, [500] * 3, 20), [], 475, 2, 40)
        assert over(zeroed(silent), [887] * 4, 50).net_g == 0

    @pytest.mark.parametrize("pours", [0.0, 1.0, 88.0, 475.0])
    def test_lines_add_up(self, bowl, pours):
        """What one line showed and what the next shows are together what was poured."""
        first = over(bowl, [412 + pours] * 4, 20)
        second = over(zeroed(first), [412 + pours + 33] * 4, 30, target_g=33, tolerance_g=1)
        assert (first.net_g or 0) + (second.net_g or 0) == pours + 33


class TestCoarse:
    """Steps wider than what may be off: of 8.71 g a scale in grams knows nothing finer than nine."""

    @pytest.mark.parametrize(("step_g", "takes"), [(0.01, True), (0.1, True), (1.0, False), (2.83495, False)])
    def test_takes_nothing_by_itself(self, step_g, takes):
        on = [said(412 + 8.71, 20 + n / 5, step_g=step_g) for n in range(8)]
        state = watch(over(OnScale(), [0, 0, *[412] * 6], 0), on, 8.71, 0.17, 22)
        assert (state.take, state.coarse, state.step_g) == (takes, not takes, step_g)

    def test_nothing_is_meant(self, bowl):
        """To taste: no scale is too coarse for that."""
        assert over(bowl, [420] * 8, 20, target_g=None).coarse is False


@pytest.mark.parametrize(
    ("status", "words"),
    [("fault", "fault"), ("over", "bears"), ("calibrate", "calibrated"), ("rezero", "zero set")],
)
def test_trouble_is_said(bowl, status, words):
    """And nothing is taken meanwhile."""
    state = watch(bowl, [said(887, 20 + n / 5, status) for n in range(8)], 475, 2, 22)
    assert words in state.says
    assert (state.trouble, state.take) == (True, False)


def test_silent(bowl):
    """Unplugged or frozen: after three seconds it is said, with how long."""
    assert watch(bowl, [], 475, 2, 13).says == ""
    quiet = watch(bowl, [], 475, 2, 17)
    assert "nothing for 6 s" in quiet.says
    assert quiet.trouble
    assert over(quiet, [412] * 3, 20).trouble is False


def test_ounces(bowl):
    """A tenth of an ounce is 2.8 g: too coarse for 9 g of salt, and said; for flour it will do."""
    step = 2.83495
    salt = watch(bowl, [said(412 + 8.5, 20, step_g=step, unit="oz")], 9, 1, 20)
    assert "too coarse" in salt.says
    assert salt.trouble
    assert watch(bowl, [said(500, 20, step_g=step, unit="oz")], 475, 3, 20).says == ""


def test_drifted_zero():
    """6 g with nothing on it is no bowl."""
    state = over(OnScale(), [6] * 8, 0)
    assert (state.phase, state.tare_g) == ("empty", None)
    assert "with nothing on it" in state.says


def test_a_unit_that_is_not_known(bowl):
    state = watch(bowl, [Reading(at_s=20, status="steady", g=None, step_g=0, unit="unit 5")], 475, 2, 20)
    assert "not known here" in state.says


class TestPieces:
    """Weighed off one after the other, without a bowl."""

    def pieces(self, state: OnScale, grams: list[float], begin_s: float) -> OnScale:
        return watch(state, [said(g, begin_s + n / 5) for n, g in enumerate(grams)], 80, 2, begin_s + len(grams) / 5, bowl=False)

    def test_one_after_the_other(self):
        """A piece of 81 g is no bowl: it is taken once, and the next only when the scale was empty again."""
        first = self.pieces(OnScale(), [0, 0, *[81] * 6], 0)
        assert (first.net_g, first.take, first.tare_g) == (81, True, None)
        assert self.pieces(first, [81] * 8, 3).take is False
        second = self.pieces(self.pieces(first, [0, 0], 6), [79] * 8, 8)
        assert second.phase == "within"
        assert self.pieces(self.pieces(first, [0, 0], 6), [79] * 6, 8).take is True

    def test_outside_its_tolerance(self):
        """It is not taken by itself."""
        assert self.pieces(OnScale(), [0, *[90] * 9], 0).take is False

    def test_a_board_set_to_nothing(self):
        """A board that the baker zeroed does not count."""
        board = zeroed(self.pieces(OnScale(), [0, *[640] * 4], 0))
        assert self.pieces(board, [720] * 4, 3).net_g == 80

    def test_a_board_that_still_moves(self):
        """The same, where the key was pressed as it was put on."""
        moving = watch(OnScale(), [said(500, 0, "moving")], 80, 2, 0.1, bowl=False)
        board = self.pieces(zeroed(moving), [640] * 4, 1)
        assert (board.tare_g, board.net_g) == (640, 0)
        assert self.pieces(board, [720] * 6, 3).take

    def test_after_the_bowl(self, bowl):
        """The bowl that was weighed into before is forgotten as soon as the scale is empty."""
        assert self.pieces(bowl, [0, *[80] * 4], 30).net_g == 80
