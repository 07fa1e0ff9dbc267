"""Word a sentence of a write-up otherwise, leave it out, or let the record speak again."""

from kettle.benches.report.worded import SECTIONS
from kettle.knowledge.errors import FieldErrors, InputError
from web.logbook.actions import log
from web.logbook.actions.acting import on_call
from web.logbook.models import Wording

LONGEST = 600
MOST = 200


@on_call
def word_sentence(user, call, section, key, drafted, text):
    """Store how a sentence is worded, with what was drafted when it was; no words leave it out. FieldErrors for too many letters."""
    text = " ".join(text.split())
    if section not in SECTIONS or not key.startswith(f"{section}:") or len(key) > 300:
        raise InputError("That is no sentence of this write-up")
    if len(text) > LONGEST:
        raise FieldErrors({"text": f"Words: {len(text)} letters are more than {LONGEST}"})
    if call.wordings.count() >= MOST:
        raise InputError(f"{call} holds {MOST} sentences worded by hand, which is all it can")
    made, _ = Wording.objects.update_or_create(
        call=call, key=key, defaults={"section": section, "drafted": drafted, "text": text, "by": user}
    )
    log.write(user, "word_sentence", call, key=key)
    return made


@on_call
def let_record_speak(user, call, key):
    """Drop what somebody made of a sentence: the record speaks again."""
    call.wordings.filter(key=key).delete()
    log.write(user, "let_record_speak", call, key=key)
