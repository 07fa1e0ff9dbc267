"""What of a call was taken on against a hold, and which action taking an observation is."""

# What taking an observation does, by its tool.
TAKEN_WITH = {"gauge": "gauges"}


def taken_on(call):
    """The actions of a call that were taken on against a hold, by action."""
    return {entry.action: entry for entry in call.overrides.all() if entry.undone_at is None}


def action_of(entry):
    """The blocked action that taking an observation would be; None for one that nothing can hold."""
    return "resistance_test" if "lock_out" in entry.holds else TAKEN_WITH.get(entry.tool)
