"""What a job expects at a moment, held against what is told: each expectation that falls short, in words."""

import re


def _causes(ranking):
    return [sorted(one["causes"]) for one in ranking]


def falls_short(out, want):
    """Each expectation of a moment that what is told does not meet: (which, words)."""
    part = next(coil for coil in out["coils"] if coil["name"] == want["on"]) if "on" in want else out
    return [*_judged(part, want), *_advised(out, want), *_left(out, want), *_written(out, want)]


def _judged(part, want):
    for which in ("was", "left"):
        ranking = part[which]
        least = want.get(f"least_{which}", want.get("least", 0.0))
        if which in want and not any(sorted(one) in _causes(ranking)[: want.get("top", 1)] for one in want[which]):
            yield which, f"{_causes(ranking)[:3]}, wanted {want[which]}"
        elif which in want and ranking[0]["probability"] < least:
            yield which, f"{ranking[0]['probability']}, wanted {least}"
        for code in set(want.get(f"{which}_not", [])) & set(ranking[0]["causes"] if ranking else []):
            yield which, f"leads with {code}"
    holds = {one["code"] for one in part["holds"]}
    for code in want.get("holds", []):
        if code not in holds:
            yield "holds", f"{code} is missing"
    for code in set(want.get("holds_not", [])) & holds:
        yield "holds", f"{code} stands"
    first = (part["next_checks"] or [{"key": None}])[0]["key"]
    if first in want.get("next_not", []) or ("next_any" in want and first not in want["next_any"]):
        yield "next", str(first)


def _advised(out, want):
    if "runs" in want and out["runs"]["state"] not in want["runs"]:
        yield "runs", out["runs"]["state"]
    for key in ("charge", "valve"):
        if key in want and out[key]["may"] not in want[key]:
            yield key, f"{out[key]['may']}: {out[key]['text']}"
        for pattern in want.get(f"{key}_text", []):
            if not re.search(pattern, out[key]["text"], re.I):
                yield key, f"lacks {pattern}"
    parts = (out["leads"] or {}).get("parts", [])
    if "part" in want and not (parts and parts[0]["part"].startswith(want["part"][0]) and parts[0]["way"] == want["part"][1]):
        yield "part", str([(one["part"], one["way"]) for one in parts[:3]])


def _left(out, want):
    proofs = {one["code"]: one["state"] for one in out["prove"] if "on" not in want or one["on"] in (None, want["on"])}
    for name, states in (("proved", ("proved",)), ("open", ("open",)), ("not_proved", ("open", "against"))):
        for code in want.get(name, []):
            if proofs.get(code) not in states:
                yield "prove", f"{code} is {proofs.get(code)}, wanted {name}"
    if "may_leave" in want and out["may_leave"] is not want["may_leave"]:
        yield "leave", f"may be left: {out['may_leave']}"
    open_ones = {one["code"] for one in out["leave"] if not one["answered"]}
    for code in set(want.get("leave", [])) - open_ones:
        yield "leave", f"does not ask {code}"
    for code in set(want.get("leave_not", [])) & open_ones:
        yield "leave", f"asks {code}"


def _sentences(out, section):
    return [one for name, many in out["said"].items() if section in ("any", name) for one in many]


def _written(out, want):
    for key, must in (("said", True), ("said_not", False)):
        for section, patterns in want.get(key, {}).items():
            for pattern in patterns:
                if any(re.search(pattern, one, re.I) for one in _sentences(out, section)) is not must:
                    yield "said", f"{section} {'lacks' if must else 'says'} {pattern}"
    for section, patterns in want.get("once", {}).items():
        for pattern in patterns:
            if sum(bool(re.search(pattern, one, re.I)) for one in _sentences(out, section)) != 1:
                yield "said", f"{section} says {pattern} not once"
    words = " ".join(" ".join(one) if isinstance(one, list) else one for one in out["customer"].values())
    for pattern in want.get("customer", []):
        if not re.search(pattern, words, re.I):
            yield "customer", f"lacks {pattern}"
    for pattern in want.get("customer_not", []):
        if re.search(pattern, words, re.I):
            yield "customer", f"says {pattern}"
