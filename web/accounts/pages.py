"""Where a request came from."""

from urllib.parse import urlsplit


def page_before(request):
    """Return the path of the page of ours that something was sent from; the Board's where it was none."""
    came = urlsplit(request.headers.get("Referer", ""))
    return came.path if came.netloc == request.get_host() and came.path.startswith("/") else "/"
