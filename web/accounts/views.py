"""Logging in: slowed and locked against guessing, with the same answer for names that exist and names that do not."""

import threading

from axes.models import AccessFailureLog
from django.conf import settings
from django.contrib.auth import views as auth
from django.contrib.auth.decorators import login_not_required
from django.contrib.auth.forms import AuthenticationForm
from django.shortcuts import render
from django.utils import timezone
from django.utils.decorators import method_decorator

from web.accounts.middleware import OWN_DEVICE

# A password is hashed on purpose slowly: so many at once, and the pages of those who are in keep their turn.
HASHED_AT_ONCE, WAITING_S = 2, 2.0
_hashing = threading.Semaphore(HASHED_AT_ONCE)
_waiting = threading.Semaphore(HASHED_AT_ONCE * 2)
# Failed tries from one address, whatever the names.
MOST_FAILURES_OF_ADDRESS = 40
OWN_DEVICE_S = 14 * 24 * 3600
LOCKED = "Too many tries. Wait ten minutes, or have the owner of the shop give you a new password."
BUSY = "Many are logging in right now. Try again in a moment."


@method_decorator(login_not_required, name="dispatch")
class LogIn(auth.LoginView):
    """The log-in, with a choice for one's own device."""

    def dispatch(self, request, *args, **kwargs):
        if request.method != "POST":
            return super().dispatch(request, *args, **kwargs)
        if _failures_of(request) >= MOST_FAILURES_OF_ADDRESS:
            return refused(request, LOCKED, 429)
        if not _waiting.acquire(blocking=False):
            return refused(request, BUSY, 503)
        try:
            if not _hashing.acquire(timeout=WAITING_S):
                return refused(request, BUSY, 503)
            try:
                return super().dispatch(request, *args, **kwargs)
            finally:
                _hashing.release()
        finally:
            _waiting.release()

    def form_valid(self, form):
        response = super().form_valid(form)
        own = self.request.POST.get(OWN_DEVICE) == "yes"
        self.request.session[OWN_DEVICE] = own
        self.request.session.set_expiry(OWN_DEVICE_S if own else 0)
        return response


def locked_out(request, *_, **__):
    """The answer after too many tries, the same whether the name exists or not."""
    return refused(request, LOCKED, 429)


def refused(request, words, status):
    """The log-in page with one line that says why there is no log-in now."""
    context = {"form": AuthenticationForm(request), "refused": words, "next": request.POST.get("next", "")}
    return render(request, "registration/login.html", context, status=status)


def _failures_of(request):
    since = timezone.now() - settings.AXES_COOLOFF_TIME
    return AccessFailureLog.objects.filter(ip_address=request.META.get("REMOTE_ADDR"), attempt_time__gte=since).count()
