"""What is done on a practice call beside the screens of a real one: time, the thermostat, the face of its coil, help, and naming it."""

from django.contrib import messages
from django.http import Http404, HttpResponse
from django.shortcuts import redirect, render
from django.views.decorators.http import require_POST, require_safe

from kettle.knowledge import anatomy, causes, observations
from kettle.knowledge.errors import FieldErrors, InputError
from kettle.knowledge.measures import whole
from kettle.knowledge.parameters import PARAMETERS
from kettle.plant.observer.settings import SETTINGS, setting
from kettle.yard import practice as core
from kettle.yard.shown import face as face_of
from kettle.yard.spoken import NONE
from web.accounts.pages import page_before
from web.round.views.pages import standing_of
from web.yard.actions.naming import name_it
from web.yard.actions.stepping import step
from web.yard.work import HINT, REPLY, SAID, SEEN, WATCHED

LONGEST_MIN = 7 * 24 * 60
LOOK_MIN = 1.0
# So many minutes pass for each second that the probes are watched.
WATCHED_MIN = 1.0
MOST_CAUSES = 3


def _work(request):
    """The work this is part of; 404 where none is."""
    if request.practice is None:
        raise Http404
    return request.practice


def _back(request):
    return redirect(page_before(request))


@require_POST
def pass_time(request):
    """Let minutes pass."""
    work = _work(request)
    minutes = whole(request.POST.get("minutes", ""), 1, LONGEST_MIN)
    if minutes is None:
        messages.error(request, f"Minutes: “{request.POST.get('minutes', '')[:10]}” is no whole number from 1 to {LONGEST_MIN} min")
        return _back(request)
    _refusals(request, lambda: step(request.user, work, core.WAITED, "", None, float(minutes)))
    return _back(request)


def _refusals(request, done):
    """Do something, or say why not; whether it was done."""
    try:
        done()
    except InputError as error:
        messages.error(request, str(error))
        return False
    return True


@require_POST
def thermostat(request):
    """Turn the thermostat down until it runs and can be read, or back."""
    work = _work(request)
    which = core.BACK if request.POST.get("which") == "back" else core.DOWN

    def turn():
        row = step(request.user, work, core.WAITED, which)
        running = "It runs." if work.core.rig.running else "It does not run."
        messages.success(request, f"{'Thermostat back where it stood' if which == core.BACK else 'Thermostat down'}: {running}"
                                  f"{f' {row.minutes:.0f} min passed.' if row.minutes >= 1 else ''}")  # fmt: skip

    _refusals(request, turn)
    return _back(request)


@require_POST
def face(request):
    """Look at the face of the coil: what is there is shown, to be painted."""
    work = _work(request)
    there = face_of(work.rig)
    seen = {"rows": list(there.rows), "places": dict(there.places)}
    _refusals(request, lambda: step(request.user, work, SEEN, "face", seen, LOOK_MIN))
    return _back(request)


@require_POST
def read_setting(request):
    """Read a setting off its control."""
    work, code = _work(request), request.POST.get("parameter", "")
    if code not in SETTINGS or code not in PARAMETERS:
        raise Http404
    value, parameter = setting(work.rig, code), PARAMETERS[code]

    def read():
        step(request.user, work, SEEN, code, value, core.MEASURED_MIN)
        words = "it has none" if value is None else f"{work.shown.text(value, parameter.unit)}"
        messages.success(request, f"{parameter.label}: {words}.")

    _refusals(request, read)
    return _back(request)


@require_POST
def hint(request):
    """Help in three steps: where to look, what it would tell, what to do."""
    work = _work(request)
    if work.practice.help == NONE:
        messages.error(request, "This practice call is worked without help.")
        return _back(request)
    check = next(iter(standing_of(request, work.call).told.next_checks(1)), None)
    if check is None:
        messages.success(request, "Hint: nothing more is to be asked. Name it.")
        return _back(request)
    before = work.practice.steps.exclude(what=SAID).last()
    nth = 1 + (int(before.value) if before is not None and before.what == HINT and before.of == check.key else 0)
    told = (f"look at the {anatomy.part_of(check.key).label.lower()}", check.meaning, f"{check.label}: {check.how}")[min(nth, 3) - 1]
    if _refusals(request, lambda: step(request.user, work, HINT, check.key, float(min(nth, 3)), 0.0, told)):
        messages.success(request, f"Hint {min(nth, 3)} of 3: {told[:1].lower() + told[1:] if nth == 1 else told}.")
    return _back(request)


@require_POST
def say(request):
    """Say what it is, what is asked next and what it will show: then the standing is shown."""
    work, typed = _work(request), request.POST
    try:
        kept = said(work, typed)
        step(request.user, work, SAID, kept["key"], kept["value"], 0.0, kept["cause"])
    except FieldErrors as error:
        for words in error.by_field.values():
            messages.error(request, words)
    except InputError as error:
        messages.error(request, str(error))
    return _back(request)


def said(work, typed):
    """What was said before the standing was shown, checked; FieldErrors by field."""
    wrong = {}
    try:
        cause = causes.get(typed.get("cause", "")).code
    except InputError:
        wrong["cause"] = "What is it? Choose one, or the likeliest so far"
    key = typed.get("key", "")
    if key not in observations.REGISTRY or not observations.get(key).exists_on(work.rig.unit):
        wrong["key"] = "What do you ask next? Choose it"
    else:
        entry = observations.get(key)
        try:
            value = entry.parse(typed.get("value", ""), work.shown)
        except InputError as error:
            wrong["value"] = f"What will it show? {error}"
    if wrong:
        raise FieldErrors(wrong)
    return {"cause": cause, "key": key, "value": list(value) if isinstance(value, tuple) else value}


@require_POST
def reply(request):
    """Answer what who teaches asked."""
    work = _work(request)
    words = " ".join(request.POST.get("words", "").split())[:300]
    if words:
        _refusals(request, lambda: step(request.user, work, REPLY, "", None, 0.0, words))
    return _back(request)


@require_POST
def name(request):
    """Name it: that ends the call."""
    work = _work(request)
    codes = [code for code in request.POST.getlist("cause") if code]
    if not _refusals(request, lambda: name_it(request.user, work, codes)):
        return _back(request)
    return redirect("yard-debrief")


@require_POST
def probes(request):
    """Put probes on, or take them off: what they read is then in sight as it stands."""
    work = _work(request)
    on = request.POST.get("on") == "yes"
    _refusals(request, lambda: step(request.user, work, SEEN, "probes", 1.0 if on else 0.0, core.WITHOUT_PARTS_MIN / 2.0 if on else 0.0))
    return _back(request)


@require_POST
def watch(request):
    """A minute more of what the probes read, while somebody looks on: the page asks for the next as long as it is watched."""
    work = _work(request)
    goes_on = work.probes_on and _refusals(request, lambda: step(request.user, work, core.WAITED, WATCHED, None, WATCHED_MIN))
    if goes_on and request.headers.get("HX-Target") == "yard-figures":
        return render(request, "yard/_figures.html", {"work": work, "watching": True, "clock": True})
    answer = render(request, "yard/_live.html", {"practice": work, "watching": goes_on})
    answer["HX-Retarget"] = "#yard-live"
    return answer


@require_POST
def show_progress(request):
    """Show who teaches one's own progress, which is on this device: only the learner can, and only what is sent is kept."""
    work = _work(request)
    words = " ".join(request.POST.get("words", "").split())[:600]
    if words and request.user == work.practice.learner and work.practice.joined.filter(role="instructor").exists():
        work.keep("progress", "", None, 0.0, words)
        messages.success(request, "Shown.")
    return _back(request)


@require_safe
def bar(request):
    """The bar of a practice call as it stands now, for a page that is open while another hand, or who teaches, goes on."""
    work = _work(request)
    if request.GET.get("seen") == work.stamp:
        return HttpResponse(status=204)
    last = work.practice.steps.select_related("by").last()
    other = last.by if last is not None and last.by_id != request.user.pk else None
    return render(request, "yard/_live.html", {"practice": work, "other": other})
