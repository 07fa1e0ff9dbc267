"""The line every action leaves in the log."""

from web.logbook.models import LogEntry


def write(user, action, call=None, shop=None, **data):
    """Record that a person did something; the shop is the call's unless given."""
    return LogEntry.objects.create(shop=shop or call.shop, by=user, action=action, call=call, data=data)
