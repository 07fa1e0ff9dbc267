"""The write-up on Hand over: drafted, worded, each sentence with its records."""

from django.contrib import messages
from django.shortcuts import redirect
from django.views.decorators.http import require_POST

from kettle.benches.report.worded import SECTIONS
from kettle.knowledge.errors import FieldErrors, InputError
from web.benches.report.actions.word import let_record_speak, word_sentence
from web.benches.report.drafting import sentences_of
from web.round.views.pages import call_of, show, standing_of


def draft_context(request, standing):
    """The write-up by section, as it stands."""
    sentences = sentences_of(standing.call, standing)
    return {"written": [(section, title, [one for one in sentences if one.section == section]) for section, title in SECTIONS.items()]}


@require_POST
def word(request, number):
    """Word a sentence, leave it out, or let the record speak again."""
    call, typed = call_of(request, number), request.POST
    key = typed.get("key", "")
    try:
        if typed.get("do") == "record":
            let_record_speak(request.user, call, key)
        else:
            standing = standing_of(request, call)
            one = next((one for one in sentences_of(call, standing) if one.key == key), None)
            drafted = "" if one is None else one.now_says or _drafted(call, key) or one.text
            text = "" if typed.get("do") == "out" else typed.get("text", "")
            word_sentence(request.user, call, typed.get("section", ""), key, drafted, text)
    except FieldErrors as error:
        return show(request, call, "hand-over", word_wrong={"key": key, "text": typed.get("text", ""), "says": error.by_field["text"]})
    except InputError as error:
        messages.error(request, str(error))
    answer = redirect("stop", number=number, stop="hand-over")
    answer["Location"] += "#written"
    return answer


def _drafted(call, key):
    """What was drafted when a sentence was worded last."""
    return next((one.drafted for one in call.wordings.filter(key=key)), "")
