"""Ask for a log-in without losing what was typed."""

from urllib.parse import urlsplit

from django.conf import settings
from django.contrib.auth.middleware import LoginRequiredMiddleware
from django.http import HttpResponse
from django.shortcuts import resolve_url
from django.utils.http import urlencode


class LoginRequired(LoginRequiredMiddleware):
    """As Django's own; but a fragment asked for after the session ended is refused, so that its draft is kept.

    A redirect would be followed silently and put the log-in page into the field.
    """

    def handle_no_permission(self, request, view_func):
        if request.headers.get("HX-Request") != "true":
            return super().handle_no_permission(request, view_func)
        here = urlsplit(request.headers.get("HX-Current-URL", "")).path or "/"
        response = HttpResponse("Log in again; what you typed is kept.", status=401, content_type="text/plain")
        response["HX-Redirect"] = f"{resolve_url(settings.LOGIN_URL)}?{urlencode({'next': here})}"
        return response
