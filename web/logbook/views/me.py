"""One's own ways: units, and by feel or by numbers."""

from django.contrib import messages
from django.contrib.auth import authenticate, update_session_auth_hash
from django.shortcuts import redirect, render
from django.urls import reverse
from django.views.decorators.debug import sensitive_post_parameters
from django.views.decorators.http import require_http_methods, require_POST

import kettle
from kettle.judging.schools import CHOICES as SCHOOLS
from kettle.knowledge.errors import FieldErrors, InputError
from kettle.knowledge.measures import SHOWN_CHOICES
from web.accounts.access import shop_of
from web.logbook.actions import choose_ways
from web.logbook.actions.people import change_password
from web.logbook.sent import back

UNIT_LABELS = {"temperature": "Temperatures", "pressure": "Pressures", "mass": "Weights", "vacuum": "Deep vacuum"}
UNIT_EXAMPLES = [("Box", 36.5, "°F"), ("Superheat", 9.0, "°F diff"), ("Suction", 31.0, "psig"), ("In vacuum", -3.0, "psig"),
                 ("Charge", 4.5, "lb"), ("Evacuated to", 480.0, "micron")]  # fmt: skip


@require_http_methods(["GET", "HEAD", "POST"])
def me(request):
    """The units one reads and types in."""
    shop_of(request.user)
    member, error = request.user.member, ""
    if request.method == "POST":
        try:
            choose_ways.choose_units(request.user, request.POST)
        except InputError as refused:
            error = str(refused)
        else:
            messages.success(request, "Kept. Readings, report and entry follow.")
            return redirect("me")
    choices = [(name, UNIT_LABELS[name], units, getattr(member, name)) for name, units in SHOWN_CHOICES.items()]
    examples = [(words, member.shown.text(value, unit)) for words, value, unit in UNIT_EXAMPLES]
    held = {"valve": member.shop.valve_school, "work": member.shop.work_school}
    shop_schools = [(name, question, allowed.items(), held[name]) for name, (question, allowed) in SCHOOLS.items()]
    context = {"choices": choices, "error": error, "examples": examples, "schools": shop_schools, "version": kettle.__version__}
    if member.feed_key:
        context["feed_address"] = request.build_absolute_uri(reverse("feed-of", args=[member.feed_key]))
    return render(request, "logbook/me.html", context)


@sensitive_post_parameters()
@require_http_methods(["GET", "HEAD", "POST"])
def password(request):
    """One's own password, changed by who knows the old one."""
    wrong, typed = {}, request.POST
    if request.method == "POST":
        # Guessing is slowed as at the log-in; what is locked out there raises past this.
        if authenticate(request, username=request.user.get_username(), password=typed.get("old", "")) is None:
            wrong["old"] = "Old password: that is not it"
        else:
            try:
                change_password(request.user, typed.get("new", ""), typed.get("again", ""))
            except FieldErrors as error:
                wrong = error.by_field
        if not wrong:
            update_session_auth_hash(request, request.user)
            messages.success(request, "The new password holds. You are logged out everywhere else; your calendar's address has ended.")
            return redirect("me")
    fields = [("old", "Old password", "current-password"), ("new", "New password", "new-password"), ("again", "Again", "new-password")]
    rows = [(name, label, complete, wrong.get(name, "")) for name, label, complete in fields]
    return render(request, "logbook/password.html", {"rows": rows}, status=200)


@require_POST
def schools(request):
    """How the shop works: its schools."""
    try:
        choose_ways.choose_schools(request.user, request.POST)
    except InputError as refused:
        messages.error(request, str(refused))
    else:
        messages.success(request, "Kept for the whole shop. Words and order follow; no figure changes.")
    return redirect("me")


@require_POST
def by_feel(request):
    """Tell lines by feel or by numbers, and go back to where one was."""
    choose_ways.choose_by_feel(request.user, request.POST.get("by_feel") == "yes")
    return back(request)
