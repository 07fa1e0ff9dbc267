"""Follow-ups as a calendar (iCalendar, RFC 5545)."""

from datetime import timedelta

from icalendar import Alarm, Calendar, Event

PRODUCT = "-//Orange Kettle//follow-ups//EN"
REMINDED_BEFORE = timedelta(hours=15)


def calendar_of(follow_ups, home):
    """Follow-ups as the text of a calendar; `home` is the application's own address."""
    calendar = Calendar()
    calendar.add("prodid", PRODUCT)
    calendar.add("version", "2.0")
    for one in follow_ups:
        event = Event()
        event.add("uid", f"follow-up-{one.pk}@orange-kettle")
        event.add("dtstamp", one.at)
        event.add("dtstart", one.due)
        event.add("dtend", one.due + timedelta(days=1))
        event.add("summary", f"{one.unit}: {one.what}")
        event.add("description", f"{one.why}. Promised on {one.call}." if one.why else f"Promised on {one.call}.")
        event.add("url", f"{home}units/{one.unit_id}/")
        alarm = Alarm()
        alarm.add("action", "DISPLAY")
        alarm.add("description", one.what)
        alarm.add("trigger", -REMINDED_BEFORE)
        event.add_component(alarm)
        calendar.add_component(event)
    return calendar.to_ical()
