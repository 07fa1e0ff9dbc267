"""What of a call was taken on against a hold."""


def taken_on(call):
    """The actions of a call that were taken on against a hold, by action."""
    return {entry.action: entry for entry in call.overrides.all() if entry.undone_at is None}
