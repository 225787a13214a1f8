"""A day's touches as a calendar (RFC 5545): an event each, with an alarm, known again by its UID so that it is updated and not doubled."""

from collections.abc import Iterable
from datetime import date, datetime, timedelta
from uuid import UUID

from icalendar import Alarm, Calendar, Event

from pancount.core.base.models import Frozen
from pancount.core.day.day import clock_words
from pancount.core.day.lists import WallLine

ALARM_MIN = 5
LEAST_MIN = 5
"""An event is no shorter than this, so that it can be seen. [min]"""


class DayEvents(Frozen):
    """What a day puts in a calendar: its lines, what it is known by, and how often it was changed."""

    uid: UUID
    date: date
    name: str
    version: int
    changed_at: datetime
    keys: tuple[str, ...]
    """Of its products."""
    bakers: tuple[str, ...]
    lines: tuple[WallLine, ...]


def write_calendar(days: Iterable[DayEvents], name: str) -> bytes:
    """The touches of some days. Times are local and without a zone: by the kitchen's own clock, wherever the calendar is (RFC 5545, 3.3.5)."""
    calendar = Calendar()
    calendar.add("prodid", "-//Pan Count//day//EN")
    calendar.add("version", "2.0")
    calendar.add("method", "PUBLISH")
    calendar.add("x-wr-calname", name)
    calendar.add("refresh-interval", timedelta(minutes=15), parameters={"VALUE": "DURATION"})
    for day in days:
        midnight = datetime(day.date.year, day.date.month, day.date.day)  # noqa: DTZ001  # local on purpose
        for line in day.lines:
            calendar.add_component(_event(day, line, midnight))
    return bytes(calendar.to_ical())


def _event(day: DayEvents, line: WallLine, midnight: datetime) -> Event:
    begins = midnight + timedelta(minutes=round(line.begins_min))
    ends = max(midnight + timedelta(minutes=round(line.ends_min)), begins + timedelta(minutes=LEAST_MIN))
    event = Event()
    event.add("uid", f"{day.uid}-{day.keys[line.product]}-{line.step}{f'-{line.load}' if line.load else ''}@pancount.invalid")
    event.add("dtstamp", day.changed_at)
    event.add("last-modified", day.changed_at)
    event.add("sequence", day.version)
    event.add("dtstart", begins)
    event.add("dtend", ends)
    event.add("summary", f"{line.name}: {line.what}"[:300])
    details = [f"{clock_words(line.begins_min)} to {clock_words(line.ends_min)}", day.bakers[line.baker] if len(day.bakers) > 1 else "", line.detail, line.caution]
    event.add("description", "\n".join(filter(None, details)))
    event.add("categories", [day.name or "Baking day"])
    alarm = Alarm()
    alarm.add("action", "DISPLAY")
    alarm.add("description", f"{line.name}: {line.what}"[:300])
    alarm.add("trigger", timedelta(minutes=-ALARM_MIN))
    event.add_component(alarm)
    return event
