"""What holds for every request: a log-in without losing what was typed, short sessions, clean text, private pages, clear refusals."""

import errno
import logging
import re
import time
from urllib.parse import unquote, urlsplit

from django.conf import settings
from django.contrib import messages
from django.contrib.auth import logout
from django.contrib.auth.middleware import LoginRequiredMiddleware
from django.db import OperationalError
from django.http import HttpResponse
from django.shortcuts import redirect, render, resolve_url
from django.utils.http import urlencode

from kettle.knowledge.errors import InputError
from web.accounts.pages import page_before

# In a session: whether the device it is on is the person's own.
OWN_DEVICE = "own_device"
UNTYPED = re.compile(r"[\x00-\x08\x0b\x0c\x0e-\x1f\x7f\ud800-\udfff]")


class LoginRequired(LoginRequiredMiddleware):
    """As Django's own; but a fragment asked for after the session ended is refused, so that its draft is kept.

    A redirect would be followed silently and put the log-in page into the field.
    """

    def handle_no_permission(self, request, view_func):
        if request.headers.get("HX-Request") != "true":
            return super().handle_no_permission(request, view_func)
        return _log_in_again(request)


def _log_in_again(request):
    """The answer to a fragment asked for by somebody who is not logged in, or no longer the one whose page it is."""
    here = urlsplit(request.headers.get("HX-Current-URL", "")).path or "/"
    response = HttpResponse("Log in again; what you typed is kept.", status=401, content_type="text/plain")
    response["HX-Redirect"] = f"{resolve_url(settings.LOGIN_URL)}?{urlencode({'next': here})}"
    return response


class OnePerson:
    """A page opened by one person enters nothing for another who logged in on the same device since."""

    def __init__(self, get_response):
        self.get_response = get_response

    def __call__(self, request):
        whose = request.headers.get("X-Person", "")
        if whose and request.user.is_authenticated and whose != str(request.user.pk):
            return _log_in_again(request)
        return self.get_response(request)


class ShortSessions:
    """A session on a device that is not one's own ends when nobody used it for an hour."""

    IDLE_S, NOTED_EVERY_S = 3600, 300

    def __init__(self, get_response):
        self.get_response = get_response

    def __call__(self, request):
        session, now = request.session, int(time.time())
        if request.user.is_authenticated and not session.get(OWN_DEVICE):
            seen = session.get("seen", now)
            if now - seen > self.IDLE_S:
                logout(request)
            elif "seen" not in session or now - seen > self.NOTED_EVERY_S:
                session["seen"] = now
        return self.get_response(request)


class CleanText:
    """Letters that no keyboard types (NUL and its like) are left out of what is sent, before anybody stores them."""

    def __init__(self, get_response):
        self.get_response = get_response

    def __call__(self, request):
        if UNTYPED.search(unquote(request.META.get("QUERY_STRING", ""))):
            request.GET = _cleaned(request.GET)
        if request.method == "POST" and any(UNTYPED.search(text) for _, texts in request.POST.lists() for text in texts):
            request.POST = _cleaned(request.POST)
        return self.get_response(request)


def _cleaned(sent):
    clean = sent.copy()
    for name, texts in sent.lists():
        clean.setlist(name, [UNTYPED.sub("", text) for text in texts])
    return clean


class PrivatePages:
    """What is somebody's own is kept by no cache, neither the browser's nor one on the way."""

    def __init__(self, get_response):
        self.get_response = get_response

    def __call__(self, request):
        response = self.get_response(request)
        if "Cache-Control" not in response:
            response["Cache-Control"] = "private, no-store"
        return response


class ClearRefusals:
    """What an action refuses is said on the page it was sent from, where nobody said it sooner; a database that is locked too long, or a
    disk that is full, is said as that. Nothing is stored then, and drafts are kept."""

    def __init__(self, get_response):
        self.get_response = get_response

    def __call__(self, request):
        return self.get_response(request)

    def process_exception(self, request, error):
        if isinstance(error, InputError) and request.method == "POST":
            return _said_where_it_was_sent(request, str(error))
        words = _storage_words(error)
        if words is None:
            return None
        logging.getLogger("django.request").error("%s %s: %s", request.method, request.path, error)
        if request.headers.get("HX-Request") == "true":
            return HttpResponse(words, status=503, content_type="text/plain")
        return render(request, "503.html", {"words": words}, status=503)


def _said_where_it_was_sent(request, words):
    messages.error(request, words)
    if request.headers.get("HX-Request") == "true":
        return HttpResponse(status=204, headers={"HX-Refresh": "true"})
    return redirect(page_before(request))


def _storage_words(error):
    text = str(error)
    if isinstance(error, OperationalError) and "locked" in text:
        return "The data is held by something else right now. Nothing was stored; send it again in a moment."
    full = isinstance(error, OperationalError) and ("full" in text or "disk I/O" in text)
    if full or (isinstance(error, OSError) and error.errno in (errno.ENOSPC, errno.EDQUOT)):
        return "The disk of the server is full. Nothing was stored; tell whoever runs it, then send it again."
    if isinstance(error, OperationalError) and "readonly" in text:
        return "The server may not write its data. Nothing was stored; tell whoever runs it."
    return None
