"""What is told of a case or a call, as the objects that the command line prints."""

from collections.abc import Sequence
from datetime import UTC
from typing import Any

from kettle.call.advice import Valve
from kettle.call.leads import Leads
from kettle.call.says import SECTIONS
from kettle.call.tell import Told
from kettle.case.version2 import UNDATED
from kettle.judging.checks import Check
from kettle.judging.course import Course, Left
from kettle.judging.suspects import Suspect, remedies
from kettle.knowledge.quantities import QUANTITIES


def answer(course: Course) -> dict[str, Any]:
    """Return a judged call as the object that `judge --json` prints."""
    return _judged(course, course.now.next_checks)


def answer_of(call: Told) -> dict[str, Any]:
    """Return what is told of a call as the object that `call --json` prints."""
    ranking = _judged(call.course(1), call.next_checks(1))
    for coil in call.call.coils[1:]:
        if call.was is call.course(coil):
            ranking["was"] = ranking["ranking"] = [_told(suspect, call.was) for suspect in call.was.was]
        if call.left is call.course(coil).left:
            ranking["left"] = [_left(left, call.course(coil)) for left in call.left]
    at = call.record.at
    dated = at is not None and at.year > UNDATED.year
    customer = call.customer
    return {
        "events": len(call.record.events),
        "at": at.astimezone(UTC).isoformat().replace("+00:00", "Z") if at is not None and dated else None,
        "runs": {"state": call.runs.state, "why": call.runs.why},
        **ranking,
        "coils": [_coil(call, coil) for coil in call.call.coils],
        "charge": {"may": call.charge.may, "text": call.charge.text, "why": list(call.charge.why)},
        "valve": _valve(call.valve_now, call),
        "leads": _leads(call.leads),
        "prove": [
            {"code": one.code, "on": _on(call, one.on), "state": one.state, "text": one.proof.words} for one in call.prove
        ],
        "leave": [
            {"code": one.code, "of": one.of or None, "on": _on(call, one.on), "text": one.text, "answered": one.answered}
            for one in call.leave
        ],
        "may_leave": call.may_leave,
        "said": {section: list(call.said(section)) for section in SECTIONS},
        "customer": {
            "found": customer.found, "done": customer.done, "now": customer.now, "you": list(customer.you), "we": list(customer.we),
        },
    }  # fmt: skip


def _on(call: Told, coil: int | None) -> str | None:
    return call.record.coil_name(coil) or None


def _coil(call: Told, coil: int) -> dict[str, Any]:
    judged = _judged(call.course(coil), call.next_checks(coil))
    kept = ("was", "left", "holds", "verdicts", "next_checks", "derived")
    return {"name": call.record.coils[coil - 1], **{name: judged[name] for name in kept}, "valve": _valve(call.valve(coil), call)}


def _valve(valve: Valve, call: Told) -> dict[str, Any]:
    turn = {"did": valve.turn[0], "turns": valve.turn[1]} if valve.turn else None
    return {"may": valve.may, "text": valve.text, "turn": turn, "on": call.record.coil_name(valve.on) or None}


def _leads(leads: Leads | None) -> dict[str, Any] | None:
    if leads is None:
        return None
    lead = leads.lead
    parts = [{"part": one.part, "way": one.way, "probability": round(one.probability, 4), "text": one.label} for one in leads.parts]
    where = {"what": lead.what, "one": lead.one, "other": lead.other or None} if lead else {"what": None, "one": None, "other": None}
    return {**where, "text": leads.text, "parts": parts}


def _left(left: Left, course: Course) -> dict[str, Any]:
    return _told(left.suspect, course) | ({"to_prove": list(left.to_prove)} if left.to_prove else {})


def _judged(course: Course, checks: Sequence[Check]) -> dict[str, Any]:
    judgement = course.now
    ranking = [_told(suspect, course) for suspect in course.was]
    return {
        "derived": {key: round(value, QUANTITIES[key].decimals) for key, value in judgement.facts.derived.items()},
        "verdicts": [
            {
                "quantity": v.quantity,
                "value": round(v.value, 1),
                "low": v.low,
                "high": v.high,
                "state": v.state,
                "trust": v.trust,
                "why": v.why,
            }
            for v in judgement.verdicts
        ],
        "problems": [{"code": p.code, "text": p.text} for p in judgement.problems],
        "holds": [{"code": h.code, "blocks": list(h.blocks), "text": h.text, "until": h.until} for h in judgement.holds],
        "ranking": ranking,
        "was": ranking,
        "left": [_left(left, course) for left in course.left],
        "next_checks": [
            {"key": c.key, "text": f"{c.how}. {c.meaning}", "gain_bits": round(c.gain_bits, 2), "minutes": c.minutes} for c in checks
        ],
        "assumed": list(judgement.assumed),
    }


def _told(suspect: Suspect, course: Course) -> dict[str, Any]:
    return {
        "causes": list(suspect.codes),
        "probability": round(suspect.probability, 4),
        "for": [{"key": e.key, "text": course.words_of(e), "weight": round(e.weight, 2)} for e in suspect.speaks_for],
        "against": [{"key": e.key, "text": course.words_of(e), "weight": round(e.weight, 2)} for e in suspect.speaks_against],
        "confirm": list(suspect.confirm),
        "correct": list(remedies(suspect, course.now.facts.seen)),
        "caution": list(suspect.caution),
    }
