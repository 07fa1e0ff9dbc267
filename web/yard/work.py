"""The work on a practice call during one request: what is sent is answered by the unit, what was done is done to it, and time passes."""

import threading
from collections import defaultdict
from contextvars import ContextVar
from functools import cached_property

from django.contrib import messages
from django.db import transaction
from django.http import HttpResponse
from django.shortcuts import redirect

from kettle.benches.ice import map as ice
from kettle.benches.noting import hear
from kettle.knowledge import acts, causes, observations
from kettle.knowledge.cautions import words as caution_words
from kettle.knowledge.errors import InputError
from kettle.knowledge.parameters import PARAMETERS
from kettle.plant import faults
from kettle.plant.observer.rig import OWN_DOING
from kettle.plant.observer.settings import SETTINGS, setting
from kettle.yard import practice as core
from kettle.yard.put_there import MOVED, part_of, way_of
from kettle.yard.shown import line, trace
from kettle.yard.spoken import ALL, NONE
from web.accounts.access import shown_to
from web.accounts.pages import page_before
from web.logbook.calls.ice_shown import Shown
from web.logbook.calls.record import record_of
from web.yard.filling import FILLS, CannotBeHad, path_heard
from web.yard.hearing import steps_of
from web.yard.lesson import lesson_shown
from web.yard.models import Practice, Step
from web.yard.rigs import rig_of

# Steps of the yard itself.
HINT, SAID, QUESTION, REPLY, MARK, SEEN = "hint", "said", "question", "reply", "mark", "seen"
# What is put on the circuit by an address; named by the form where it says nothing.
PUTS = {"put-there": "", "move-output": MOVED}
LOCK_OUT_FIRST = f"{' '.join(caution_words('lock_out'))} The power is on: lock it out first."
# Minutes that pass while somebody watches the probes.
WATCHED = "watched"
# What shows what the standing says.
TELLS = ("report", "report-pdf", "explanation", "customer", "call-zip", "quote", "decide-quote", "export-case")
# Minutes that are passed by one tap, and in words.
SPANS = ((5, "5 min"), (15, "15 min"), (60, "1 hour"), (8 * 60, "8 h"), (24 * 60, "1 day"), (7 * 24 * 60, "1 week"))
# What probes read while they are on.
PROBED = ("box_temp_f", "suction_psig", "discharge_psig", "suction_line_evap_f", "liquid_line_f", "compressor_amps")
# Minutes of what they read that are drawn, the size of that drawing, and the least it shows from foot to top (°F, psi, A).
TRACED_MIN, TRACE_SIZE, LEAST_TRACED = 60.0, (120.0, 28.0), 2.0
_working: ContextVar["Work | None"] = ContextVar("practice_at_work", default=None)
_locks = defaultdict(threading.Lock)


class Work:
    """A practice call under somebody's hands. `ahead_min` is how far on its clock stands while what was sent is done."""

    def __init__(self, practice, request):
        self.practice, self.request = practice, request
        self.shown = shown_to(request.user)
        self.ahead_min = 0.0
        self._before = None
        self._stopped = []
        self._lock = None
        self._token = None

    @property
    def core(self):
        """The core's own practice, as it stands."""
        return rig_of(self.practice)

    @property
    def rig(self):
        """Its unit."""
        return self.core.rig

    @property
    def call(self):
        """Its call."""
        return self.practice.call

    @property
    def may_teach(self):
        """Whether whoever looks teaches here."""
        return self.practice.joined.filter(user=self.request.user, role="instructor").exists()

    @property
    def covers(self):
        """Whether what is likely stays covered: until it was said first, or altogether."""
        if self.practice.help == ALL or self.practice.is_over or self.may_teach:
            return False
        if self.practice.help == NONE:
            return True
        last = self.practice.steps.filter(what__in=(SAID, core.ASKED, core.DID, core.SET, core.METERED, core.MELTED)).last()
        return last is None or last.what != SAID

    own = OWN_DOING
    # What pages below the yard show of it, by what it is of: they know no name of its files.
    shows = {
        "bar": "yard/_bar.html", "live": "yard/_live.html", "field": "yard/_take.html", "face": "yard/_face.html",
        "covered": "yard/_covered.html", "style": "yard/yard.css",
    }  # fmt: skip

    @property
    def hands_on(self):
        """Whether a field is taken from the unit: not once the call is over."""
        return not self.practice.is_over

    # What its bar shows.

    spans = SPANS

    @property
    def minutes(self):
        """How long somebody has been there, in whole minutes."""
        return round(self.practice.minutes)

    @property
    def now(self):
        """What time it is there."""
        return self.practice.now

    @property
    def drawn(self):
        """Whether somebody else can take the same by its number."""
        return not self.practice.lesson and self.practice.scenario_id is None

    @property
    def stamp(self):
        """What changes with every step, whoever makes it."""
        last = self.practice.steps.last()
        return f"{last.pk if last else 0}-{int(self.practice.frozen)}-{int(self.practice.is_over)}"

    @cached_property
    def question(self):
        """What who teaches asked last, where it was not answered yet."""
        last = self.practice.steps.filter(what__in=(QUESTION, REPLY)).last()
        return last if last is not None and last.what == QUESTION else None

    @property
    def question_words(self):
        """Who asks, at which part, and what."""
        one = self.question
        return f"{one.by.first_name or one.by.username} asks{f' at {one.of}' if one.of else ''}: {one.says}"

    @cached_property
    def causes(self):
        """What can be named on this unit: code and label, by label."""
        rows = [(code, causes.get(code).label) for code in faults.FAULTS if faults.possible(code, self.rig.unit)]
        return sorted(rows, key=lambda row: row[1])

    @cached_property
    def settings(self):
        """The settings that can be read off this unit: code and label."""
        return [(code, PARAMETERS[code].label) for code in SETTINGS if code in PARAMETERS and setting(self.rig, code) is not None]

    @cached_property
    def to_ask(self):
        """What can be asked of this unit: key and label, by label."""
        rows = [(one.key, one.label) for one in observations.REGISTRY.values() if one.exists_on(self.rig.unit) and one.key not in OWN_DOING]
        return sorted(rows, key=lambda row: row[1])

    @cached_property
    def face(self):
        """The face of the coil as it was last looked at; None where nobody looked, or it changed since."""
        rows = self.practice.steps.filter(what__in=(SEEN, core.MELTED, core.BEGUN), undone=False).exclude(of="probes")
        last = rows.filter(what=SEEN, of="face").last()
        if last is None or last != rows.last():
            return None
        return Shown(last.value["rows"], last.value["places"], [], self.call.unit.face_ft2)

    @cached_property
    def face_places(self):
        """The places beyond the face as they were looked at: label and what is there, in words."""
        places = self.face.places if self.face is not None else {}
        return [(ice.PLACES[code].label, ice.FORM_WORDS[form]) for code, form in places.items() if code in ice.PLACES]

    @property
    def probes_on(self):
        """Whether probes are on it."""
        on = self.practice.steps.filter(what=SEEN, of="probes").last()
        return on is not None and bool(on.value)

    @cached_property
    def live(self):
        """What probes read now, where they are on: label, figure, and the line of the last hour."""
        rows = []
        if not self.probes_on:
            return rows
        for key in PROBED:
            entry = observations.get(key)
            value = self.core.looked(key)[0] if entry.exists_on(self.rig.unit) else None
            if isinstance(value, float):
                drawn = line(trace(self.rig, key, TRACED_MIN), TRACED_MIN, *TRACE_SIZE, LEAST_TRACED)
                rows.append((entry.label, entry.show(value, shown=self.shown), drawn))
        return rows

    @cached_property
    def lesson(self):
        """What its lesson asks for, in words, and whether it was shown by now; empty outside of lessons."""
        return lesson_shown(self.practice.lesson, self.core.steps, self.practice.told)

    @property
    def down(self):
        """Whether the thermostat is turned down."""
        return self.rig.own.get("stat_turned_down") == "yes"

    @property
    def helps(self):
        """Whether there are hints."""
        return self.practice.help != NONE and not self.practice.is_over

    # What comes before the view, and after it.

    def before(self, match):
        """Fill in what the unit answers; an answer of its own where it cannot be had, or would hurt."""
        request = self.request
        if request.method != "POST":
            if match.url_name in TELLS and self.covers:
                messages.error(request, "Say first what you think it is: until then nothing that tells it is shown.")
                return redirect("stop", number=self.call.number, stop="judge")
            return None
        if match.url_name.startswith("yard-"):
            return None
        self._lock = _locks[self.practice.pk]
        self._lock.acquire()
        try:
            self.practice.refresh_from_db()
            self._token = _working.set(self)
            answer = self._refused() or self._filled(match) or self._hurts(match)
        except BaseException:
            self._end()
            raise
        if answer is not None:
            self._end()
            return answer
        self._before = {(event.ref, event.undone) for event in record_of(self.call).events}
        return None

    def _refused(self):
        if self.may_teach:
            return self._said("Who teaches looks on: ask, or hint, on the teaching screen.")
        if self.practice.is_over:
            return self._said("This practice call is over: it was named. Begin another.")
        if self.practice.frozen:
            return self._said("Time is held by who teaches: wait until it goes on.")
        return None

    def _filled(self, match):
        """Fill in what the unit answers; what it says instead where it does not."""
        request = self.request
        if match.url_name == "leak-look":
            request.path_info = path_heard(self, **match.kwargs)
        fill = FILLS.get(match.url_name)
        if match.url_name == "note":
            return self._noted(request.POST.get("words", ""))
        if fill is None:
            return None
        sent = request.POST.copy()
        named = {name: value for name, value in match.kwargs.items() if name not in ("number", "what", "did")}
        try:
            fill(self, sent, **named)
        except CannotBeHad as error:
            self.keep(core.ASKED, error.key, None, error.minutes, str(error))
            return self._said(str(error))
        except InputError as error:
            return self._said(str(error))
        request.POST = sent
        return None

    def _noted(self, words):
        """Words that would be a reading are none here: it is taken where it is read."""
        pieces = hear(words, self.rig.unit, self.shown)
        found = [piece.sure.entry for piece in pieces if piece.sure is not None and piece.sure.entry is not None]
        if not found:
            return None
        return self._said(f"Here a reading is taken, not typed: tap Take at {found[0].label}.")

    def _hurts(self, match):
        """What asks for power that is off is stopped while it is on; and how long what follows takes."""
        if match.url_name in PUTS:
            return self._puts(PUTS[match.url_name] or self.request.POST.get("what", ""))
        code = {"done": self.request.POST.get("act", ""), "turn-valve": "valve.turned_in"}.get(match.url_name, "")
        if code not in acts.ACTS:
            return None
        act = acts.ACTS[code]
        if self.core.hurts(act):
            return self._stop(code, f"{act.label}. {LOCK_OUT_FIRST}")
        self.ahead_min = core.minutes_of(act)
        return None

    def _puts(self, what):
        """A jumper or a lifted lead is put on with the power off, and no jumper over what protects."""
        words = self.request.POST.get("where") or self.request.POST.get("load", "")
        part = part_of(self.rig.wired.circuit, what, words)
        if not part:
            return None
        try:
            way_of(self.rig, what, part)
        except InputError as refused:
            return self._stop(part, str(refused))
        if self.rig.own.get("power_locked_out") != "yes":
            return self._stop(part, f"{self.rig.wired.circuit.part(part).label}. {LOCK_OUT_FIRST}")
        return None

    def _stop(self, of, words):
        """Stop what would hurt or break, say why, and count it."""
        self.keep(core.STOPPED, of, None, 0.0, words)
        return self._said(f"Stopped: {words}")

    def _said(self, words):
        messages.error(self.request, words)
        if self.request.headers.get("HX-Request") == "true":
            return HttpResponse(status=204, headers={"HX-Refresh": "true"})
        return redirect(page_before(self.request))

    def after(self, response):
        """Do to the unit what was done on the screens, and let its minutes pass."""
        if self._before is None:
            return
        try:
            self._hear(response)
        finally:
            self._end()

    def _end(self):
        if self._token is not None:
            _working.reset(self._token)
            self._token = None
        if self._lock is not None:
            self._lock.release()
            self._lock = None

    def _hear(self, response):
        call = self.call
        events = record_of(call).events
        new = [event for event in events if (event.ref, event.undone) not in self._before and not event.undone]
        gone = {event.ref for event in events if event.undone and (event.ref, True) not in self._before}
        with transaction.atomic():
            if gone:
                self.practice.steps.filter(ref__in=gone).update(undone=True)
            for words in self._stopped:
                self.keep(core.STOPPED, "", None, 0.0, words)
            for event in new:
                for what, of, value, minutes in steps_of(self, event):
                    self.keep(what, of, value, minutes, ref=event.ref)
            self._melt(call)
            Practice.objects.filter(pk=self.practice.pk).update(seconds=self.practice.seconds + 1)
            self.practice.seconds += 1
        if new and any(event.kind == "override" for event in new):
            self.keep("override", "", None, 0.0, "; ".join(text for event in new for text in event.get("texts") or ()))

    def _melt(self, call):
        """A melt that began, rests, goes on or ended since."""
        row, melting = call.melts.filter(undone_at=None).last(), self.core.melting
        running = row.method if row is not None and row.ended_at is None and row.paused_at is None else ""
        if running == melting:
            return
        if running:
            self.keep(core.BEGUN, running, None, core.BEFORE_MELT_MIN)
        elif row is not None and row.ended_at is None:
            self.keep(core.RESTED, melting)
        else:
            self.keep(core.MELTED, melting, ref=f"melt:{row.pk}" if row is not None else "")

    def keep(self, what, of="", value=None, minutes=0.0, says="", ref=""):
        """Put down a step, and let its minutes pass."""
        practice = self.practice
        stored = list(value) if isinstance(value, tuple) else value
        row = Step.objects.create(
            practice=practice, by=self.request.user, what=what, of=of, value=stored, minutes=minutes, at_min=practice.minutes,
            says=says, ref=ref,
        )  # fmt: skip
        practice.minutes += minutes
        Practice.objects.filter(pk=practice.pk).update(minutes=practice.minutes)
        return row

    def pass_on(self, minutes):
        """Let the clock stand so much later: what the unit itself took."""
        self.practice.minutes += minutes
        Practice.objects.filter(pk=self.practice.pk).update(minutes=self.practice.minutes)

    def stopped(self, words):
        """Note that a hold, or a rule of safety, stopped something."""
        if words not in self._stopped:
            self._stopped.append(words)


def note_stopped(sender, call, words, **_):
    """Count what was stopped on a practice call."""
    work = _working.get()
    if work is not None:
        work.stopped(words)
