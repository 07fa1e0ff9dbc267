"""Note it: what is typed as it comes to mind, shown as the facts it may be, and kept as it was shown."""

import json

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import render
from django.views.decorators.http import require_POST, require_safe

from kettle.benches.noting import LONGEST, hear
from kettle.judging.holds import action_of
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import whole
from web.logbook.actions.do_act import do_act
from web.logbook.actions.keep_happened import keep_happened
from web.logbook.actions.record_reading import record_reading
from web.round.views.entries import changed
from web.round.views.pages import call_of, standing_of

MOST_PIECES = 20


@require_safe
def heard(request, number):
    """What typed words may mean, to be looked at before it is kept."""
    call = call_of(request, number)
    return _heard(request, call, standing_of(request, call), request.GET.get("words", ""))


def _heard(request, call, standing, words, error=""):
    pieces = hear(words, standing.unit, standing.shown)
    rows = [
        {
            "piece": piece,
            "choices": [(one.words, one.sure, _vals(words, place, one.words)) for one in piece.choices],
            "in_words": _vals(words, place, piece.as_words),
            "taken": _by_enter(piece),
        }
        for place, piece in enumerate(pieces)
    ]
    return render(request, "round/_heard.html", {"call": call, "heard": rows, "note_error": error})


def _vals(words, place, meant):
    return json.dumps({"words": words[:LONGEST], "piece": place, "meant": meant})


def _by_enter(piece):
    """What Enter keeps of a piece: what is sure, and as words what is like nothing; what has to be chosen or is refused stays."""
    if piece.sure:
        return piece.sure.words
    return "" if piece.choices or piece.refusal else piece.as_words


@require_POST
def note(request, number):
    """Keep what was noted as it was shown; what was not shown yet is shown first."""
    call = call_of(request, number)
    standing, words = standing_of(request, call), request.POST.get("words", "")
    pieces = hear(words, standing.unit, standing.shown)
    meant, tapped = request.POST.getlist("meant"), whole(request.POST.get("piece"), 0, MOST_PIECES)
    kept, last, left, wrong = [], None, [], ""
    for place, piece in enumerate(pieces):
        chosen = _chosen(piece, meant[-1] if meant else "") if place == tapped else (_taken(piece, meant) if tapped is None else None)
        if chosen is None or wrong:
            left.append(piece.said)
            continue
        try:
            last = _keep(request.user, call, standing, piece, chosen)
        except InputError as error:
            wrong = str(error)
            left.append(piece.said)
            continue
        kept.append(chosen.words if chosen != piece.as_words else f"{piece.said} ({piece.as_words.lower()})")
    if not kept:
        return _heard(request, call, standing, words, wrong)
    if last and len(kept) == 1 and not left:
        return changed(request, number, last, kept_note=kept[0])
    messages.success(request, f"Kept: {' · '.join(kept)}")
    if wrong:
        messages.error(request, wrong)
    response = HttpResponse()
    response["HX-Trigger"] = json.dumps({"noted": {"rest": ", ".join(left)}})
    response["HX-Refresh"] = "true"
    return response


def _chosen(piece, meant):
    """What was tapped of a piece; None where it was not offered."""
    return piece.as_words if meant == piece.as_words else next((one for one in piece.choices if one.words == meant), None)


def _taken(piece, meant):
    """What Enter keeps of a piece, as it was shown."""
    taken = _by_enter(piece)
    return (piece.sure or piece.as_words) if taken and taken in meant else None


def _keep(user, call, standing, piece, chosen):
    """Keep one piece; the key of the reading it became, or None."""
    coil = (piece.coil or standing.coil) if standing.unit.evaporators > 1 else None
    if chosen == piece.as_words:
        keep_happened(user, call, "note", {"text": piece.said, "part": piece.part}, coil)
    elif chosen.act is not None:
        do_act(user, call, standing.judgement, chosen.code, evaporator=coil)
    elif chosen.look is not None:
        keep_happened(user, call, "looked", {"part": chosen.look.part, "state": chosen.look.state, "note": _rest_of(piece, chosen)}, coil)
    elif chosen.spot is not None:
        keep_happened(user, call, "spot", {"part": chosen.spot[0], "temp_f": chosen.spot[1]}, coil)
    else:
        held = standing.judgement if action_of(chosen.entry) is not None else None
        value = _with_what_stands(standing, chosen)
        record_reading(user, call, chosen.code, value, evaporator=coil if coil and coil > 1 else None, words=piece.said, judgement=held)
        return chosen.code
    return None


def _rest_of(piece, chosen):
    """The words of a look that was only offered: what they say more than it is kept beside it."""
    return "" if chosen.sure else piece.said


def _with_what_stands(standing, found):
    """A word of a list joins those that stand; the word for nothing stands alone."""
    reading = standing.readings.get(found.entry.key)
    if not found.entry.many or reading is None:
        return found.value
    nothing = {"none", "nowhere", "nothing"}
    words = [word for word in reading.value if word not in nothing] if not set(found.value) & nothing else []
    return [*words, *(word for word in found.value if word not in words)]
