"""A practice call worked line by line, as a script or a person types it: each line answered by one object, and its words."""

import difflib
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any, Final

from kettle.knowledge import acts, anatomy, causes, observations
from kettle.knowledge.errors import InputError
from kettle.knowledge.observations import Value
from kettle.knowledge.parameters import PARAMETERS
from kettle.plant import faults
from kettle.plant.observer.rig import OWN_DOING
from kettle.plant.observer.settings import SETTINGS, setting
from kettle.yard.debrief import debrief
from kettle.yard.practice import STOPPED, Practice, Step

ALL, COVERED, NONE = "all", "covered", "none"
HELPS: Final[dict[str, str]] = {
    ALL: "the standing whenever it is asked for, as on a real call",
    COVERED: "the standing once what it is, the next check and what it will show were said",
    NONE: "no standing and no hints",
}
LINES: Final[dict[str, str]] = {
    "KEY": "take an observation (keys: list them)",
    "put KEY WORD": "lock out, block the latch, and undo it",
    "do PART.WHAT [AMOUNT]": "do something to a part, with oz or turns (acts: list them)",
    "wait MINUTES": "let it run on",
    "run": "turn the thermostat down until the circuit can be read",
    "back": "turn the thermostat back to where it stood",
    "set PARAMETER VALUE": "set a figure of the controls (settings: where they stand)",
    "meter volts|ohms|amps POINT [POINT]": "put a meter on the circuit (points: list them)",
    "place jumper|lifted_lead|output_moved PART": "put it on a part of the circuit for now, by its key or its name; take PART: away again",
    "say CAUSE, KEY, VALUE": "what you think it is, what you ask next, and what you expect of it",
    "standing": "what is likely by what you asked, what is held, and the next check",
    "hint": "where to look; again, what it would tell; again, what to do",
    "it is CAUSE[+CAUSE]": "name it: that ends the call (causes: list them)",
}


@dataclass
class Spoken:
    """A practice call by lines, with so much help (a word of `HELPS`)."""

    practice: Practice
    help: str = ALL
    said_at: int = -1
    hints: int = 0
    hinted_at: int = -1
    expected: list[tuple[str, Value]] = field(default_factory=list)

    def answer(self, line: str) -> dict[str, Any]:
        """Return the answer to a line: an object with its words under `says`; InputError where the line cannot be understood."""
        first, _, rest = line.strip().partition(" ")
        told = self._lines().get(first)
        if told is not None:
            return told(rest.strip())
        if rest:
            near = difflib.get_close_matches(first, [*self._lines(), *observations.REGISTRY], n=1, cutoff=0.0)
            raise InputError(f"“{line.strip()[:40]}” is no line; the nearest known is “{near[0]}” (help lists them)")
        return self._step(self.practice.ask(first))

    def _lines(self) -> dict[str, Callable[[str], dict[str, Any]]]:
        return {
            "put": self._put, "do": self._do, "wait": self._wait, "run": lambda rest: self._step(self.practice.run()), "say": self._say,
            "back": lambda rest: self._step(self.practice.back()), "set": self._set, "settings": self._settings, "meter": self._meter,
            "points": self._points, "place": self._place, "take": lambda rest: self._step(self.practice.take_away(rest)),
            "standing": self._standing, "hint": self._hint, "it": self._it, "help": lambda rest: _listed(LINES),
            "keys": self._keys, "acts": self._acts, "causes": self._causes,
        }  # fmt: skip

    def _put(self, rest: str) -> dict[str, Any]:
        key, _, word = rest.partition(" ")
        return self._step(self.practice.put(key, word.strip()))

    def _do(self, rest: str) -> dict[str, Any]:
        code, _, amount = rest.partition(" ")
        part, _, did = code.partition(".")
        return self._step(self.practice.do(part, did, _number(amount, "amount") if amount.strip() else None))

    def _wait(self, rest: str) -> dict[str, Any]:
        return self._step(self.practice.wait(_number(rest, "wait")))

    def _set(self, rest: str) -> dict[str, Any]:
        code, _, value = rest.partition(" ")
        return self._step(self.practice.set(code, _number(value, "value")))

    def _settings(self, rest: str) -> dict[str, Any]:
        rows = {}
        for code, parameter in PARAMETERS.items():
            value = setting(self.practice.rig, code) if code in SETTINGS else None
            if value is not None:
                rows[code] = f"{parameter.label} {value:.4g} {parameter.unit}".strip()
        return _listed(rows)

    def _meter(self, rest: str) -> dict[str, Any]:
        what, one, other = (*rest.split(), "", "", "")[:3]
        return self._step(self.practice.measure(what, one, other))

    def _place(self, rest: str) -> dict[str, Any]:
        what, _, where = rest.partition(" ")
        circuit = self.practice.rig.wired.circuit
        return self._step(self.practice.place(what, circuit.part(where).label if circuit.has(where) else where))

    def _points(self, rest: str) -> dict[str, Any]:
        circuit = self.practice.rig.wired.circuit
        return _listed({point.key: point.label for point in circuit.points} | {part.key: f"round {part.label}" for part in circuit.parts})

    def _say(self, rest: str) -> dict[str, Any]:
        cause, key, value = ([part.strip() for part in rest.split(",")] + ["", "", ""])[:3]
        label, entry = causes.get(cause).label, observations.get(key)
        expects = entry.check(_number(value, entry.label) if entry.is_number else value)
        self.said_at = len(self.practice.steps)
        self.expected.append((key, expects))
        return {"what": "said", "of": cause, "says": f"{label}; next {entry.label.lower()}, expecting {entry.show(expects)}"}

    def _standing(self, rest: str) -> dict[str, Any]:
        self._may_see()
        now = self.practice.course
        likely = [{"causes": list(one.codes), "probability": round(one.probability, 3)} for one in now.was[:3]]
        checks = [check.key for check in now.now.next_checks]
        lines = [f"{100 * one.probability:3.0f} %  {one.label}" for one in now.was[:3]]
        lines += [f"Held: {hold.title}, until {hold.until}" for hold in now.now.holds]
        lines += [f"Next: {check.key}: {check.label}, {check.minutes:g} min. {check.meaning}" for check in now.now.next_checks[:1]]
        return {"what": "standing", "ranking": likely, "next_checks": checks, "says": "\n".join(lines)}

    def _may_see(self) -> None:
        if self.help == NONE:
            raise InputError("this call is worked without help")
        if self.help == COVERED and self.said_at != len(self.practice.steps):
            raise InputError("say first: say CAUSE, KEY, VALUE (what it is, what you ask next, what you expect of it)")

    def _hint(self, rest: str) -> dict[str, Any]:
        if self.help == NONE:
            raise InputError("this call is worked without help")
        check = next(iter(self.practice.course.now.next_checks), None)
        if check is None:
            return {"what": "hint", "says": "Nothing more is to be asked: name it"}
        self.hints = self.hints + 1 if self.hinted_at == len(self.practice.steps) else 1
        self.hinted_at = len(self.practice.steps)
        told = (f"Look at the {anatomy.part_of(check.key).label.lower()}", check.meaning, f"{check.key}: {check.how}")
        return {"what": "hint", "says": told[min(self.hints, len(told)) - 1]}

    def _it(self, rest: str) -> dict[str, Any]:
        word, _, codes = rest.partition(" ")
        if word != "is" or not codes.strip():
            raise InputError("it is CAUSE, or CAUSE+CAUSE; causes lists them")
        self.practice.name([code.strip() for code in codes.split("+")])
        told = debrief(self.practice)
        lines = [*told.words, *(_forecast(self.practice, key, value) for key, value in self.expected)]
        return {
            "what": "debrief", "was": list(told.codes), "named": list(told.named), "right": told.right, "minutes": round(told.minutes, 1),
            "known_at_min": told.known_at_min, "asked": told.asked, "stopped": len(told.stopped), "held": told.held,
            "says": "\n".join(line for line in lines if line),
        }  # fmt: skip

    def _keys(self, rest: str) -> dict[str, Any]:
        entries = [entry for entry in observations.REGISTRY.values() if entry.exists_on(self.practice.rig.unit)]
        return _listed({one.key: f"{one.label}{' (put)' if one.key in OWN_DOING else ''}, {one.minutes:g} min" for one in entries})

    def _acts(self, rest: str) -> dict[str, Any]:
        able = [act for act in acts.ACTS.values() if act.exists_on(self.practice.rig.unit)]
        return _listed({act.code: f"{act.label}{f', {act.unit}' if act.unit else ''}" for act in able})

    def _causes(self, rest: str) -> dict[str, Any]:
        return _listed({code: causes.get(code).label for code in faults.FAULTS if faults.possible(code, self.practice.rig.unit)})

    def _step(self, step: Step) -> dict[str, Any]:
        told = {"what": step.what, "of": step.of, "value": step.value, "minutes": round(step.minutes, 1)}
        if step.what == STOPPED:
            return told | {"says": f"Stopped. {step.says}"}
        seen = step.of in observations.REGISTRY
        shown = observations.get(step.of).show(step.value) if seen and step.value is not None else step.says
        label = observations.get(step.of).label if seen else step.of
        return told | {"says": f"{label}: {shown} ({step.minutes:g} min)" if label else f"{step.minutes:.0f} min later"}


def _forecast(practice: Practice, key: str, expected: Value) -> str:
    """What was expected of a check against what it showed first; empty where it was never asked."""
    came = next((step.value for step in practice.steps if step.of == key and step.value is not None), None)
    if came is None:
        return ""
    entry = observations.get(key)
    return f"You expected {entry.label.lower()} {entry.show(expected)}, it was {entry.show(came)}"


def _listed(rows: dict[str, str]) -> dict[str, Any]:
    return {"what": "list", "of": list(rows), "says": "\n".join(f"{name:28} {words}" for name, words in rows.items())}


def _number(text: str, what: str) -> float:
    try:
        return float(text.replace("−", "-"))
    except ValueError:
        raise InputError(f"{what}: “{text[:20]}” is not a figure") from None
