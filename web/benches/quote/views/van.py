"""One's van, and what of it was used on a call."""

from django.contrib import messages
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST, require_safe

from kettle.benches.quote import van
from kettle.knowledge.errors import FieldErrors, InputError
from web.benches.quote.actions import stock
from web.logbook.calls.courses import acts_of
from web.logbook.models import VanPart
from web.logbook.refusals import refusals_said
from web.round.views.pages import call_of, show

FIELDS = (("what", "What", True), ("carried", "In the van", False), ("wanted", "Should be", False), ("price", "Price of one", False))


def _page(request, typed=None, wrong=None, at=None):
    typed, wrong = typed or {}, wrong or {}
    parts = list(request.user.van_parts.all())
    for one in parts:
        one.wrong = wrong if at and one.pk == at.pk else {}
    context = {
        "parts": parts,
        "to_get": van.to_get([one.as_carried() for one in parts]),
        "fields": [(name, label, "", "" if at else typed.get(name, ""), "" if at else wrong.get(name, ""), words)
                   for name, label, words in FIELDS],
        "wrong": {} if at else wrong,
    }  # fmt: skip
    return render(request, "quote/van.html", context)


@require_safe
def my_van(request):
    """What one's van carries, and what has to be got."""
    return _page(request)


@require_POST
def keep(request, pk=None):
    """Put a part on the list, change one, or take one off."""
    part = get_object_or_404(VanPart.objects.for_user(request.user).filter(person=request.user), pk=pk) if pk else None
    try:
        if part is not None and request.POST.get("do") == "drop":
            stock.drop_part(request.user, part)
        else:
            stock.keep_part(request.user, request.POST, part)
    except FieldErrors as error:
        return _page(request, request.POST, error.by_field, part)
    except InputError as error:
        messages.error(request, str(error))
    return redirect("van")


@require_POST
def filled(request):
    """Everything that was short was got."""
    many = stock.fill_up(request.user)
    messages.success(request, f"Filled up: {many} parts." if many else "Nothing was short.")
    return redirect("van")


def used_context(request, standing):
    """Parts used on a call, those that what was done takes, and those in one's van."""
    call = standing.call
    used = list(call.partuseds.filter(undone_at=None))
    mine = [one.as_carried() for one in request.user.van_parts.filter(shop=request.user.member.shop_id)]
    spares = [part for step in acts_of(call) for part in step.act.spares]
    found = []
    for what in van.proposed(spares, [one.what for one in used]):
        found += [(own.what, own) for own in van.fitting(mine, what)] or [(what, None)]
    return {"parts_used": used, "parts_proposed": found, "van_parts": mine}


@require_POST
def use(request, number):
    """A part was used."""
    call, typed = call_of(request, number), request.POST
    try:
        stock.use_part(request.user, call, typed.get("part", ""), typed.get("many", ""))
    except FieldErrors as error:
        return show(request, call, "hand-over", part_typed=typed, part_wrong=error.by_field)
    except InputError as error:
        messages.error(request, str(error))
    return _back(number)


@require_POST
def take_back(request, number, pk):
    """A part was not used after all."""
    call = call_of(request, number)
    with refusals_said(request):
        stock.take_part_back(request.user, get_object_or_404(call.partuseds, pk=pk))
    return _back(number)


def _back(number):
    answer = redirect("stop", number=number, stop="hand-over")
    answer["Location"] += "#parts"
    return answer
