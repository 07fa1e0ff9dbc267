"""A plan asked for, followed while it is worked out, stopped."""

from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.views.decorators.http import require_POST, require_safe

from kettle.knowledge.errors import InputError
from web.benches.defrost import planning
from web.benches.defrost.actions.plan_defrosts import ask_plan, stop_plan
from web.benches.defrost.views.plans import plan_context
from web.round.views.pages import call_of, show, standing_of


@require_POST
def ask(request, number):
    """Ask for a plan, and begin it."""
    call = call_of(request, number)
    standing = standing_of(request, call)
    try:
        planning.situation_of(call, standing.judgement.facts)
        plan = ask_plan(request.user, call, request.POST)
    except InputError as error:
        return show(request, call, "programs", standing, asked=request.POST, plan_errors=error.beside(""))
    planning.work(plan.pk)
    return redirect("plan", number=number)


@require_safe
def plan(request, number):
    """The plan alone, as it asks for itself while it is worked out; the stop where a page is asked for."""
    call = call_of(request, number)
    if not request.htmx:
        return redirect(f"{_programs(number)}#plan")
    return render(request, "defrost/_plan.html", {"call": call, **plan_context(call, standing_of(request, call).shown)})


@require_POST
def stop(request, number, pk):
    """Stop a plan."""
    call = call_of(request, number)
    stop_plan(request.user, get_object_or_404(call.defrostplans, pk=pk))
    return redirect(f"{_programs(number)}#plan")


def _programs(number):
    return reverse("stop", args=[number, "programs"])
