"""What every page needs to know about the person before it."""

LOOKS = ("light", "night")


def look(request):
    """The look chosen by the switch, empty to follow the system."""
    chosen = request.COOKIES.get("look", "")
    return {"look": chosen if chosen in LOOKS else ""}
