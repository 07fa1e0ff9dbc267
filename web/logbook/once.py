"""A form is taken once: each carries a key, and the first action of a request notes it with what it stores, or not at all.

Sent a second time (a double tap, a page loaded again, an answer that was lost) the same words with the same key store nothing, and lead
where the first did.
"""

import hashlib
import time
from contextvars import ContextVar
from dataclasses import dataclass
from datetime import timedelta

from django.db import IntegrityError, transaction
from django.http import HttpResponse
from django.shortcuts import redirect
from django.utils import timezone

from web.accounts.pages import page_before
from web.logbook.models import SentOnce

FIELD, HEADER = "once", "X-Once"
LONGEST_KEY = 64
# A key is known so long; as often it is looked for those that are older.
KNOWN, SWEPT_EVERY = timedelta(days=2), 500
# What comes again so soon is a double tap.
DOUBLE_TAP = timedelta(seconds=4)
# So long a second sending waits for where the first one leads, s.
PATIENCE_S, LOOKS_EVERY_S = 3.0, 0.05
_sending: ContextVar["Sending | None"] = ContextVar("sending", default=None)


class AlreadySent(Exception):
    """The same was sent before, and is stored."""


@dataclass
class Sending:
    """What is being sent: by whom, under what name, and whether an action of this request has noted it."""

    user: object
    name: str
    noted: bool = False


def note():
    """Note what is being sent, inside the first action's transaction; True where this one did. AlreadySent where it was before."""
    sending = _sending.get()
    if sending is None or sending.noted:
        return False
    if SentOnce.objects.filter(name=sending.name).exists():
        raise AlreadySent
    try:
        with transaction.atomic():
            made = SentOnce.objects.create(name=sending.name, by=sending.user)
    except IntegrityError:
        raise AlreadySent from None
    if made.pk % SWEPT_EVERY == 0:
        SentOnce.objects.filter(at__lt=timezone.now() - KNOWN).delete()
    sending.noted = True
    return True


def forget():
    """What was noted is not stored after all: the next action notes it anew."""
    sending = _sending.get()
    if sending is not None:
        sending.noted = False


class TakenOnce:
    """Tells the actions of a request what is being sent, and answers what was sent before."""

    def __init__(self, get_response):
        self.get_response = get_response

    def __call__(self, request):
        if request.method != "POST" or not request.user.is_authenticated:
            return self.get_response(request)
        key = request.headers.get(HEADER, "") or request.POST.get(FIELD, "")
        if not key or len(key) > LONGEST_KEY:
            return self.get_response(request)
        sending = Sending(request.user, _name(request, key))
        if SentOnce.objects.filter(name=sending.name).exists():
            return _sent_before(request, sending.name)
        token = _sending.set(sending)
        try:
            answer = self.get_response(request)
        finally:
            _sending.reset(token)
        if sending.noted:
            SentOnce.objects.filter(name=sending.name).update(led_to=(answer.headers.get("Location") or page_before(request))[:500])
        return answer

    def process_exception(self, request, error):
        """Answer the second of two that were under way at once."""
        return _sent_before(request, _sending.get().name) if isinstance(error, AlreadySent) else None


def _sent_before(request, name):
    if request.headers.get("HX-Request") != "true":
        return redirect(_led_to(name) or page_before(request))
    # A second tap changes nothing on the page; an answer that was lost is made up for by looking again.
    lost = SentOnce.objects.filter(name=name, at__lt=timezone.now() - DOUBLE_TAP).exists()
    return HttpResponse(status=204, headers={"HX-Refresh": "true"} if lost else {})


def _name(request, key):
    """A name for what is sent: the same only for the same person, address, key and words."""
    told = hashlib.sha256(f"{request.user.pk}\0{request.path}\0{key}".encode())
    for field, texts in sorted(request.POST.lists()):
        if field not in (FIELD, "csrfmiddlewaretoken"):
            told.update("\0".join(["", field, *texts]).encode())
    for field, files in sorted(request.FILES.lists()):
        told.update("\0".join(["", field, *(f"{file.name} {file.size}" for file in files)]).encode())
    return told.hexdigest()


def _led_to(name):
    """Where the first sending led; it may still be on its way."""
    end = time.monotonic() + PATIENCE_S
    while True:
        led_to = SentOnce.objects.filter(name=name).values_list("led_to", flat=True).first()
        if led_to or time.monotonic() > end:
            return led_to
        time.sleep(LOOKS_EVERY_S)
