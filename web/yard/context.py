"""What a page needs to know of the practice call it belongs to."""


def practice(request):
    """The work on a practice call, None on a real one."""
    return {"practice": getattr(request, "practice", None)}
