"""Devices' bytes beside what is published, and the simulated ones."""

from math import inf, isnan

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pancount.core.base.units import G_PER_OZ
from pancount.devices import hid_scale, thermometer
from pancount.devices.served import Touch, told, touch_scale, touch_thermometer
from pancount.devices.simulated import SimulatedScale, SimulatedThermometer


class TestScaleReports:
    """HID Point of Sale usage tables 1.02, 4.4 scale usages: status, units and scaling, recalled from memory."""

    @pytest.mark.parametrize(
        ("data", "status", "grams"),
        [
            ([0x02, 0x02, 0x00, 0x00, 0x00], "zero", 0),
            ([0x04, 0x02, 0x00, 0xDB, 0x01], "steady", 475),
            ([0x03, 0x02, 0xFF, 0x5D, 0x00], "moving", 9.3),  # exponent −1
            ([0x04, 0x02, 0xFE, 0xC1, 0x01], "steady", 4.49),  # exponent −2
            ([0x04, 0x03, 0xFD, 0xDB, 0x01], "steady", 475),  # kg, exponent −3
            ([0x04, 0x0B, 0xFF, 0xA8, 0x00], "steady", 16.8 * G_PER_OZ),  # ounces, exponent −1
            ([0x04, 0x0C, 0xFE, 0x69, 0x00], "steady", 1.05 * 453.59237),  # pounds, exponent −2
            ([0x05, 0x02, 0x00, 0x0C, 0x00], "under", -12),  # the weight is unsigned: its status says that it is below zero
            ([0x06, 0x02, 0x00, 0xFF, 0xFF], "over", 65535),
            ([0x04, 0x01, 0x02, 0x05, 0x00], "steady", 0.5),  # milligrams, exponent 2
            ([0x08, 0x02, 0x00, 0x00, 0x00], "rezero", 0),
            ([0x63, 0x02, 0x00, 0x01, 0x00], "fault", 1),  # a status that is not in the table
        ],
    )
    def test_bytes(self, data, status, grams):
        reading = hid_scale.read(3, bytes(data), 0.0)
        assert (reading.status, reading.g) == (status, pytest.approx(grams))

    @pytest.mark.parametrize("unit", [0, 5, 9, 13, 200])
    def test_units_that_are_not_read(self, unit):
        """No weight rather than a wrong one."""
        assert hid_scale.read(3, bytes([4, unit, 0, 1, 0]), 0.0).g is None

    @pytest.mark.parametrize(("report", "data"), [(4, bytes(5)), (3, bytes(4)), (3, b"")])
    def test_other_reports(self, report, data):
        with pytest.raises(hid_scale.NoReport):
            hid_scale.read(report, data, 0.0)

    @given(data=st.binary(min_size=5, max_size=12))
    def test_any_bytes(self, data):
        """Whatever comes is read, or is no weight; never a fault."""
        reading = hid_scale.read(3, data, 1.0)
        assert reading.g is None or abs(reading.g) < 1e12

    @given(weight=st.integers(0, 65535), exponent=st.integers(-3, 2), unit=st.sampled_from(sorted(hid_scale.UNITS)))
    def test_there_and_back(self, weight, exponent, unit):
        reading = hid_scale.read(3, hid_scale.write("steady", unit, exponent, weight), 0.0)
        grams = weight * 10.0**exponent * hid_scale.UNITS[unit][1]
        assert reading.g == (None if max(grams, 10.0**exponent * hid_scale.UNITS[unit][1]) > hid_scale.MOST_G else pytest.approx(grams))


class TestThermometer:
    """IEEE 11073-20601 FLOAT and the Bluetooth Health Thermometer measurement, recalled from memory."""

    @pytest.mark.parametrize(
        ("data", "value"),
        [
            ([0x6C, 0x01, 0x00, 0xFF], 36.4),
            ([0x72, 0x01, 0x00, 0xFF], 37.0),
            ([0x9C, 0xFF, 0xFF, 0xFF], -10.0),  # a negative mantissa
            ([0x08, 0x01, 0x00, 0x00], 264.0),
            ([0x05, 0x00, 0x00, 0x02], 500.0),
            ([0xFE, 0xFF, 0x7F, 0x00], inf),
            ([0x02, 0x00, 0x80, 0x00], -inf),
        ],
    )
    def test_floats(self, data, value):
        assert thermometer.float_of(bytes(data)) == pytest.approx(value)

    @pytest.mark.parametrize("data", [[0xFF, 0xFF, 0x7F, 0x00], [0x00, 0x00, 0x80, 0x00], [0x01, 0x00, 0x80, 0x00]])
    def test_no_numbers(self, data):
        assert isnan(thermometer.float_of(bytes(data)))

    def test_fahrenheit_and_what_follows(self):
        """Flags: Fahrenheit, a time and a kind behind the value."""
        data = bytes([0x07]) + thermometer.float_bytes(200.3) + bytes([0xEA, 0x07, 11, 28, 6, 20, 0, 2])
        assert thermometer.read(data) == pytest.approx((200.3 - 32) / 1.8)

    @pytest.mark.parametrize("data", [b"", b"\x00\x01", thermometer.write(None), thermometer.write(900)])
    def test_no_temperature(self, data):
        with pytest.raises(thermometer.NoMeasurement):
            thermometer.read(data)

    @given(celsius=st.floats(-30, 300))
    def test_there_and_back(self, celsius):
        assert thermometer.read(thermometer.write(celsius)) == pytest.approx(celsius, abs=0.051)


class TestSimulated:
    """They say what real ones say."""

    def settled(self, scale: SimulatedScale, seconds: float = 4.0):
        for _ in range(round(seconds * 10)):
            scale.step(0.1)
        return hid_scale.read(3, scale.report(), 0.0)

    def test_steadies(self):
        """It moves, then stands at what is on it, give or take its noise."""
        scale = SimulatedScale()
        scale.load_g = 475
        scale.step(0.1)
        assert hid_scale.read(3, scale.report(), 0.0).status == "moving"
        reading = self.settled(scale)
        assert reading.status == "steady"
        assert reading.g == pytest.approx(475, abs=1)

    def test_overload_drift_and_below_zero(self):
        scale = SimulatedScale()
        touch_scale(scale, Touch(does="put", value=6000))
        assert self.settled(scale).status == "over"
        touch_scale(scale, Touch(does="set", value=400))
        self.settled(scale)
        touch_scale(scale, Touch(does="zero"))
        touch_scale(scale, Touch(does="clear"))
        assert self.settled(scale).g == pytest.approx(-400, abs=1)
        touch_scale(scale, Touch(does="zero"))
        touch_scale(scale, Touch(does="drift", value=30))
        assert self.settled(scale, 20).g == pytest.approx(10, abs=1.5)

    def test_ounces_unplugged_frozen(self):
        scale = SimulatedScale(load_g=283.5)
        touch_scale(scale, Touch(does="unit"))
        reading = self.settled(scale)
        assert (reading.unit, reading.g) == ("oz", pytest.approx(283.5, abs=3))
        for what in ("plugged", "frozen"):
            touch_scale(scale, Touch(does=what))
            assert scale.report() is None
            touch_scale(scale, Touch(does=what))
        assert told(scale)["bytes"]

    def test_thermometer(self):
        probe = SimulatedThermometer()
        touch_thermometer(probe, Touch(does="around", value=26))
        for _ in range(100):
            probe.step(0.1)
        assert thermometer.read(probe.report()) == pytest.approx(26, abs=0.3)
        touch_thermometer(probe, Touch(does="unit"))
        assert thermometer.read(probe.report()) == pytest.approx(26, abs=0.3)
        touch_thermometer(probe, Touch(does="probe"))
        with pytest.raises(thermometer.NoMeasurement):
            thermometer.read(probe.report())
