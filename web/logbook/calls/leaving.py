"""What should not be left so when a visit ends, as the core tells it of a call."""

from web.logbook.calls.judging import told_of


def doubts(call, told=None):
    """What should not be left so, each with its answer where it has one; `told` is what the core told, where somebody asked already."""
    return (told or told_of(call)).leave
