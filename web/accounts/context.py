"""What every page needs to know about the person before it."""

from functools import cache

from web.accounts.models import Installation

LOOKS = ("light", "night")


def look(request):
    """The look chosen by the switches, empty to follow the system; and whose drafts a browser keeps."""
    chosen = request.COOKIES.get("look", "")
    user = getattr(request, "user", None)
    drafts = f"{installation_key()}:{user.pk}" if user is not None and user.is_authenticated else ""
    return {
        "look": chosen if chosen in LOOKS else "",
        "contrast": "high" if request.COOKIES.get("contrast") == "high" else "",
        "touch": "wet" if request.COOKIES.get("touch") == "wet" else "",
        "drafts": drafts,
    }


@cache
def installation_key():
    """The name of this installation, which no other has."""
    found = Installation.objects.first() or Installation.objects.create()
    return found.key.hex
