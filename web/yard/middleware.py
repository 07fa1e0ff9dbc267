"""Practice calls are the application itself, under an address of their own: /practice/7/calls/201/read/ is Read of practice 7.

Every address made there leads there again, every query sees that practice's own shop, and nothing else of the application is reached.
"""

import re

from django.contrib import messages
from django.contrib.auth.views import redirect_to_login
from django.http import Http404, HttpResponse
from django.shortcuts import redirect
from django.urls import Resolver404, get_script_prefix, resolve, set_script_prefix

from web.accounts.pages import page_before
from web.yard.inside import inside
from web.yard.models import Practice
from web.yard.work import Work

UNDER = re.compile(r"^/practice/(\d{1,9})(/.*)$")
# What there is of the application on a practice call; the rest is outside.
REACHED = re.compile(r"^/(calls/\d+/|units/\d+/$|units/\d+/settings/|units/\d+/trends/|papers/|ladder/|kinds/|reminders/|yard/)")
# What leaves the house, or is of the shop; and on a call of somebody else's.
NOT_REACHED = re.compile(
    r"^/calls/\d+/(follow-ups/|customer/link/|controller/|keep/|choose/|held/|quote/decide/|office\.csv|.*/choose/|refrigerant/line/)"
)


class InTheYard:
    """Answers what lies under a practice call's address as the application does, inside that call."""

    def __init__(self, get_response):
        self.get_response = get_response

    def __call__(self, request):
        request.practice = None
        found = UNDER.match(request.path_info)
        if found is None:
            return self.get_response(request)
        if not request.user.is_authenticated:
            return redirect_to_login(request.get_full_path())
        practice = Practice.objects.for_user(request.user).select_related("shop", "of_shop", "learner").filter(pk=found[1]).first()
        if practice is None:
            raise Http404
        path = found[2]
        if not REACHED.match(path) or NOT_REACHED.match(path):
            return self._outside(request, path)
        prefix = get_script_prefix()
        set_script_prefix(f"/practice/{practice.pk}/")
        request.path_info = path
        try:
            return self._answered(request, practice, path)
        finally:
            set_script_prefix(prefix)

    def _answered(self, request, practice, path):
        try:
            match = resolve(path)
        except Resolver404:
            raise Http404 from None
        work = request.practice = Work(practice, request)
        with inside(request.user, practice):
            answer = work.before(match)
            if answer is not None:
                return answer
        with inside(request.user, practice, work.ahead_min):
            response = self.get_response(request)
        with inside(request.user, practice):
            work.after(response)
        return response

    def _outside(self, request, path):
        """What is not on a practice call: its Board is the yard, the rest of the shop's pages are where they always are."""
        if request.method in ("GET", "HEAD"):
            return redirect("/yard/" if path == "/" or path.startswith("/calls/") else path)
        words = "That is not done on a practice call: it would leave the yard."
        messages.error(request, words)
        if request.headers.get("HX-Request") == "true":
            return HttpResponse(status=204, headers={"HX-Refresh": "true"})
        return redirect(page_before(request))
