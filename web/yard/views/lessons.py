"""The lessons in their order, each begun as a practice call; and how it works, drawn by the model."""

from django.contrib import messages
from django.http import Http404
from django.shortcuts import redirect, render
from django.views.decorators.http import require_http_methods, require_safe

from kettle.knowledge.errors import InputError
from kettle.yard import how
from kettle.yard.lessons import GROUPS, LESSONS, unit_words
from web.accounts.access import shown_to
from web.yard.actions.begin import begin
from web.yard.views.home import HELP_WORDS, address_of


@require_safe
def lessons(request):
    """All lessons by group; which are done this device knows."""
    groups = [(words, [one for one in LESSONS.values() if one.group == group]) for group, words in GROUPS.items()]
    return render(request, "yard/lessons.html", {"groups": groups, "count": len(LESSONS)})


def _lesson(code):
    if code not in LESSONS:
        raise Http404
    return LESSONS[code]


@require_http_methods(["GET", "HEAD", "POST"])
def lesson(request, code):
    """A lesson: its aim and what must be shown; begun when it is sent."""
    one = _lesson(code)
    if request.method == "POST":
        try:
            help_by = request.POST.get("help") or one.help
            return redirect(address_of(begin(request.user, one.draw, help_by=help_by, lesson=one.code)))
        except InputError as error:
            messages.error(request, str(error))
    codes = list(LESSONS)
    place = codes.index(code)
    context = {
        "lesson": one, "group": GROUPS[one.group], "unit": unit_words(one), "how": how.HOW[one.how], "helps": HELP_WORDS.items(),
        "place": place + 1, "before": codes[place - 1] if place else "", "after": codes[place + 1] if place + 1 < len(codes) else "",
    }  # fmt: skip
    return render(request, "yard/lesson.html", context)


@require_safe
def how_it_works(request, code):
    """A drawing that moves with the model, and what is to be seen in it."""
    if code not in how.HOW:
        raise Http404
    one, shown = how.HOW[code], shown_to(request.user)
    frames = how.moving(code)
    rows = []
    for frame in frames:
        flags = [int(flag) for flag in (frame.running, frame.fans, frame.defrosting)]
        rows.append([frame.minute, *_figures(frame, one, shown), list(frame.ice), *flags, frame.opening])
    labels = [(key, how.FIGURES[key][0], shown.label(how.FIGURES[key][1])) for key in one.seen]
    context = {
        "how": one, "labels": labels, "told": {"frames": rows, "figures": len(labels)}, "span": one.span_min,
        "others": [other for other in how.HOW.values() if other.code != code], "lines": _lines(frames, one),
    }  # fmt: skip
    return render(request, "yard/how.html", context)


def _figures(frame, one, shown):
    """The figures of a moment as a person reads them; empty where there is none."""
    return [shown.figure(frame.figures[key], how.FIGURES[key][1]) if frame.figures[key] == frame.figures[key] else "–" for key in one.seen]


# The size of the strip that a figure is drawn on.
WIDTH, HEIGHT = 600.0, 56.0


def _lines(frames, one):
    """Each figure over the whole time as a path on its strip, with its lowest and highest."""
    rows = []
    for key in one.seen:
        values = [frame.figures[key] for frame in frames]
        there = [value for value in values if value == value] or [0.0]
        low, high = min(there), max(there)
        span = max(high - low, 1e-6)
        path, pen = [], "M"
        for frame, value in zip(frames, values, strict=True):
            if value != value:
                pen = "M"
                continue
            x, y = WIDTH * frame.minute / one.span_min, HEIGHT - 4.0 - (HEIGHT - 8.0) * (value - low) / span
            path.append(f"{pen}{x:.1f} {y:.1f}")
            pen = "L"
        rows.append((key, " ".join(path)))
    return rows
