"""A day as a calendar file: each step an event with an alarm, in floating time (RFC 5545)."""

from datetime import datetime, timedelta

from icalendar import Alarm, Calendar, Event

from bellcrumb.shapes.plan import DayOut
from bellcrumb.words import Units, closed
from days.models import RunningDay

_LEAD = timedelta(minutes=5)


def calendar(day: RunningDay, plan: DayOut, made: datetime, units: Units) -> bytes:
    """The steps still to be done as events; the same step is the same event when asked again."""
    out = Calendar()
    out.add("prodid", "-//Bell Crumb//Day//EN")
    out.add("version", "2.0")
    for step in plan.steps:
        if step.state == "done":
            continue
        event = Event()
        event.add("uid", f"{day.pk}/{step.key}@bellcrumb")
        event.add("dtstamp", made)
        event.add("dtstart", step.start)
        event.add("dtend", max(step.hands_end, step.start + timedelta(minutes=1)))
        what = closed(step.what, units)
        event.add("summary", f"{step.who}: {what}" if step.who else what)
        if step.where:
            event.add("location", ", ".join(step.where))
        alarm = Alarm()
        alarm.add("action", "DISPLAY")
        alarm.add("description", what)
        alarm.add("trigger", -_LEAD)
        event.add_component(alarm)
        out.add_component(event)
    written: bytes = out.to_ical()
    return written
