"""What the controller of a call last said of itself."""


def last_read(call):
    """The last time the settings of the call's controller were really read, or None."""
    return call.controllertalks.filter(undone_at=None).exclude(settings={}).last()


def in_service(call):
    """Whether the controller was last seen in service mode, or may be in it since a connection was lost while writing."""
    talk = call.controllertalks.filter(undone_at=None).last()
    if talk is None:
        return False
    if talk.settings:
        return bool(talk.settings.get("service_mode"))
    before = last_read(call)
    return bool(talk.wrote.get("service_mode") or (before and before.settings.get("service_mode")))
