"""The command line: judge a case file, look up saturation, print the schema. No web server, no database."""

import argparse
import errno
import io
import json
import os
import sys
from collections.abc import Iterator
from contextlib import suppress
from itertools import chain
from pathlib import Path
from typing import TYPE_CHECKING, Any, NoReturn

from kettle import case, front
from kettle.call import Told, tell
from kettle.call.says import SECTIONS
from kettle.judging.course import Course
from kettle.judging.evidence import quantity_name
from kettle.knowledge import observations, refrigerants
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import TRADE, format_number

if TYPE_CHECKING:
    from kettle.yard.spoken import Spoken

# Letters a terminal may lack, and what stands for them.
PLAIN = str.maketrans({"−": "-", "≈": "~", "–": "-", "“": '"', "”": '"', "’": "'"})


class _OneLineParser(argparse.ArgumentParser):
    """An argument parser whose errors are one line."""

    def error(self, message: str) -> NoReturn:
        raise InputError(message)


def _parser() -> argparse.ArgumentParser:
    parser = _OneLineParser(prog="python -m kettle", description="The core of Orange Kettle on the command line.")
    commands = parser.add_subparsers(dest="command", required=True, parser_class=_OneLineParser)
    judging = commands.add_parser("judge", help="read a case, work it out, judge it")
    judging.add_argument("case", metavar="CASE.json", help="a case file, or - for standard input")
    judging.add_argument("--json", action="store_true", help="print one JSON object")
    telling = commands.add_parser("call", help="read a whole call, and tell all that is told of it")
    telling.add_argument("case", metavar="CALL.json", help="a case file of either version, or - for standard input")
    telling.add_argument("--after", type=int, metavar="N", help="what is told after its first N events (all if left out)")
    telling.add_argument("--json", action="store_true", help="print one JSON object")
    looking = commands.add_parser("saturation", help="dew, bubble and glide of a refrigerant")
    looking.add_argument("refrigerant")
    at = looking.add_mutually_exclusive_group(required=True)
    at.add_argument("--psig", help="gauge pressure, psig (also “5 inHg”, “2.1 bar”)")
    at.add_argument("--f", help="temperature, °F (also “-20C”)")
    looking.add_argument("--altitude-ft", type=float, default=0.0)
    looking.add_argument("--json", action="store_true", help="print one JSON object")
    plant = commands.add_parser("simulate", help="run a model of a kind of unit, sound or with faults")
    plant.add_argument("preset", metavar="PRESET", help="a kind of unit")
    plant.add_argument("--fault", action="append", default=[], metavar="CODE[:SEVERITY]", help="a cause in it, severity 0 to 1")
    plant.add_argument("--fault-from", type=float, default=0.0, metavar="HOUR", help="when the causes begin")
    plant.add_argument("--hours", type=float, default=24.0)
    plant.add_argument("--ambient-f", type=float, default=85.0)
    plant.add_argument("--seed", type=int, default=1)
    form = plant.add_mutually_exclusive_group()
    form.add_argument("--json", action="store_true", help="the course as one JSON object")
    form.add_argument("--csv", action="store_true", help="the course as a table")
    form.add_argument("--case", action="store_true", help="a case file of what would be read at the end")
    yard = commands.add_parser("yard", help="a practice call on a simulated unit, worked by lines on standard input")
    yard.add_argument("--seed", type=int, required=True, metavar="N", help="the number of the draw: the same one draws the same")
    yard.add_argument("--kind", default="", help="a kind of unit (drawn if left out)")
    yard.add_argument("--refrigerant", default="", help="its refrigerant (the usual one of its kind if left out)")
    yard.add_argument("--difficulty", default="", help="one, several, misleading or worked_on (drawn if left out)")
    yard.add_argument("--ambient-f", type=float, help="the air outside (drawn if left out)")
    yard.add_argument("--help-by", default="all", metavar="HOW", help="all, covered or none")
    yard.add_argument("--json", action="store_true", help="one JSON object a line")
    describing = commands.add_parser("schema", help="the JSON Schema of the case file")
    describing.add_argument("--version", type=int, default=case.VERSION, metavar="N", help="of the case format: 1, or 2 for a whole call")
    return parser


def _read(source: str) -> bytes:
    try:
        if source == "-":
            return sys.stdin.buffer.read(case.LARGEST_BYTES + 1)
        with Path(source).open("rb") as file:
            return file.read(case.LARGEST_BYTES + 1)
    except AttributeError:
        raise InputError("there is no standard input") from None
    except (OSError, ValueError) as error:
        raise InputError(f"{source}: {getattr(error, 'strerror', None) or error}") from None


def _judge(source: str, as_json: bool) -> str:
    course = tell(case.read_call(_read(source))).course(1)
    if as_json:
        return json.dumps(case.answer(course), indent=2, ensure_ascii=False)
    return _in_words(course)


def _call(source: str, after: int | None, as_json: bool) -> str:
    record = case.read_call(_read(source))
    if after is not None:
        if not 0 <= after <= len(record.events):
            raise InputError(f"--after: {after} is outside 0 to {len(record.events)} events")
        record = record.upto(after)
    told = tell(record)
    if as_json:
        return json.dumps(case.answer_of(told), indent=2, ensure_ascii=False)
    return _told_in_words(told)


def _told_in_words(told: Told) -> str:
    lines = [f"{told.runs.words}: {told.runs.why}"]
    for coil in told.call.coils:
        if told.record.several:
            lines.append(f"Coil {told.record.coil_name(coil)}:")
        lines.append(_in_words(told.course(coil)))
    lines.append(f"Gas: {told.charge.may}. {told.charge.text}")
    lines.append(f"Stem: {told.valve_now.may}. {told.valve_now.text}")
    if told.leads is not None:
        lines.append(f"Meter: {told.leads.text}")
    lines += [f"{one.state.capitalize()}: {one.proof.words}" for one in told.prove]
    lines.append("May be left" if told.may_leave else "Not to be left so:")
    lines += [f"  {'answered' if one.answered else 'open':9} {one.text}" for one in told.leave]
    for section, title in SECTIONS.items():
        lines += [f"{title}:", *(f"  {text}" for text in told.said(section))] if told.said(section) else []
    lines.append("For the customer:")
    customer = told.customer
    lines += [f"  {text}" for text in (customer.found, customer.done, customer.now, *customer.you, *customer.we) if text]
    return "\n".join(lines)


# Whether an act moved a quantity the way it should.
EFFECT_WORDS = {True: "as it should:", False: "the wrong way, it should go", None: "no answer, it should go"}
FURTHER_OFF = "further from its band:"


def _in_words(course: Course) -> str:
    judgement = course.now
    unit = judgement.facts.unit
    lines = [f"{unit.name or 'Unit'}: {unit.build}, {unit.refrigerant.name}, set {TRADE.text(unit.set_f, '°F', 0)}"]
    judged = {v.quantity: v for v in judgement.verdicts}
    for key, value in judgement.facts.derived.items():
        label, measure, decimals = quantity_name(key)
        verdict = judged.get(key)
        band = ""
        if verdict is not None:
            low, high = format_number(verdict.low, 0), format_number(verdict.high, 0)
            band = f"  {verdict.state}, band {low} to {high}, trust {verdict.trust}"
        lines.append(f"  {label:18} {format_number(value, decimals):>7} {TRADE.label(measure):5}{band}")
    lines += [f"Problem: {problem.text}" for problem in judgement.problems]
    lines += [f"Must wait: {hold.title}. {hold.text}; until {hold.until}" for hold in judgement.holds]
    lines.append("Suspects:" if judgement.has_evidence else "Suspects, before anything was seen:")
    for suspect in judgement.ranking:
        lines.append(f"  {100 * suspect.probability:3.0f} %  {suspect.label}")
        lines += [f"          for      {course.words_of(e)}" for e in suspect.speaks_for]
        lines += [f"          against  {course.words_of(e)}" for e in suspect.speaks_against]
    for one in course.effects:
        label, measure, decimals = quantity_name(one.quantity)
        moved = f"{format_number(one.before, decimals)} to {format_number(one.after, decimals)} {TRADE.label(measure)}"
        word = FURTHER_OFF if one.past and one.came else EFFECT_WORDS[one.came]
        lines.append(f"{course.stage_words(one.stage)}: {label} {moved}, {word} {one.way}")
    if course.done:
        lines.append("Left, after what was done:")
        for left in course.left:
            lines.append(f"  {100 * left.probability:3.0f} %  {left.suspect.label}")
            lines += [f"          to prove {text}" for text in left.to_prove]
    lines += [f"Next: {check.label}, {check.minutes:g} min. {check.how}. {check.meaning}" for check in judgement.next_checks]
    lines += [f"Assumed: {note}" for note in judgement.assumed]
    return "\n".join(lines)


def _saturation(arguments: argparse.Namespace) -> str:
    refrigerant = refrigerants.get(arguments.refrigerant)
    altitude = arguments.altitude_ft
    if arguments.psig is not None:
        pressure = TRADE.parse(arguments.psig, "psig")
        at = front.saturation(refrigerant.name, psig=pressure, altitude_ft=altitude)
        dew, bubble = at.dew_f, at.bubble_f
        found = {"psig": pressure, "dew_f": dew, "bubble_f": bubble, "glide_f": dew - bubble}
        words = f"{TRADE.text(pressure, 'psig')}: dew {TRADE.text(dew, '°F')}, bubble {TRADE.text(bubble, '°F')}"
    else:
        temperature = TRADE.parse(arguments.f, "°F")
        at = front.saturation(refrigerant.name, at_f=temperature, altitude_ft=altitude)
        dew, bubble = at.dew_psig, at.bubble_psig
        # Glide at one temperature: how far apart the two lines lie at the dew pressure.
        glide = temperature - refrigerant.bubble.temperature_f_at(refrigerant.dew.psia_at(temperature))
        found = {"f": temperature, "dew_psig": dew, "bubble_psig": bubble, "glide_f": glide}
        words = f"{TRADE.text(temperature, '°F')}: dew {TRADE.text(dew, 'psig')}, bubble {TRADE.text(bubble, 'psig')}"
    if arguments.json:
        exact = {key: round(value, 3) + 0.0 for key, value in found.items()}
        return json.dumps({"refrigerant": refrigerant.name, "altitude_ft": altitude, **exact}, ensure_ascii=False)
    return f"{refrigerant.name} at {words}, glide {TRADE.text(found['glide_f'], '°F diff')}"


def _simulate(asked: argparse.Namespace) -> str:
    # The model is compiled code: loading it takes a second that no other command should wait for.
    from kettle.plant.simulate import parse_fault, simulate

    wrong = [parse_fault(text) for text in asked.fault]
    done = simulate(asked.preset, wrong, asked.hours, asked.ambient_f, asked.seed, asked.fault_from)
    series = {"hours": done.course.hours, **{name: values[:, 0] for name, values in done.course.series.items()}}
    if asked.case:
        name = f"simulated {asked.preset}" + "".join(f", {text}" for text in asked.fault)
        return case.write(case.simulated(done.plant.unit, done.observations, name)).rstrip("\n")
    if asked.json:
        rounded = {name: [round(float(value), 4) for value in values] for name, values in series.items()}
        return json.dumps({"preset": asked.preset, "faults": asked.fault, "series": rounded})
    if asked.csv:
        rows = [",".join(series), *(",".join(f"{float(value):.4g}" for value in row) for row in zip(*series.values(), strict=True))]
        return "\n".join(rows)
    lines = [f"{asked.preset} after {done.course.hours[-1]:.1f} h at {asked.ambient_f:g} °F outside, as it would be read:"]
    entries = ((observations.get(key), value) for key, value in done.observations.items())
    return "\n".join([*lines, *(f"  {entry.label:24} {entry.show(value)}" for entry, value in entries)])


def _yard(asked: argparse.Namespace) -> Iterator[str]:
    """A practice call: its story, then an answer to each line of the standard input."""
    # The model is compiled code, as above.
    from kettle.yard import begin, draw
    from kettle.yard.spoken import HELPS, Spoken

    if asked.help_by not in HELPS:
        raise InputError(f"--help-by: “{asked.help_by[:20]}” is none of {', '.join(HELPS)}")
    if sys.stdin is None:
        raise InputError("there is no standard input")
    drawn = draw(asked.seed, asked.kind, asked.refrigerant, asked.difficulty, asked.ambient_f)
    spoken = Spoken(begin(drawn), asked.help_by)
    unit = drawn.unit
    words = f"PRACTICE {drawn.number}. {unit.build.capitalize()}, {unit.refrigerant.name}, {drawn.outside_f:g} °F outside.\n{drawn.story}"
    story = {"what": "story", "practice": drawn.number, "kind": drawn.spec.kind, "refrigerant": unit.refrigerant.name, "says": words}
    return _worked(spoken, story, asked.json)


def _worked(spoken: "Spoken", story: dict[str, Any], as_json: bool) -> Iterator[str]:
    told = story
    for line in chain([""], sys.stdin):
        if line.strip():
            try:
                told = spoken.answer(line)
            except InputError as error:
                told = {"what": "error", "says": str(error)}
        elif line:
            continue
        yield json.dumps(told, ensure_ascii=False) if as_json else str(told["says"])
        if told["what"] == "debrief":
            return


def _parsed(arguments: list[str] | None) -> argparse.Namespace:
    try:
        parsed = _parser().parse_args(arguments)
    except InputError:
        raise
    except (IndexError, TypeError, ValueError):
        raise InputError("an argument has no value; see --help") from None
    for name, value in vars(parsed).items():
        # The parser of the language takes a value of two dashes for none, and hands on a list.
        if isinstance(value, list) and name != "fault":
            raise InputError(f"--{name.replace('_', '-')} has no value")
    return parsed


def _answers(parsed: argparse.Namespace) -> Iterator[str]:
    """What is printed, piece by piece; InputError before the first for what cannot be answered."""
    return _yard(parsed) if parsed.command == "yard" else iter([_answer(parsed)])


def _answer(parsed: argparse.Namespace) -> str:
    if parsed.command == "judge":
        return _judge(parsed.case, parsed.json)
    if parsed.command == "call":
        return _call(parsed.case, parsed.after, parsed.json)
    if parsed.command == "saturation":
        return _saturation(parsed)
    if parsed.command == "simulate":
        return _simulate(parsed)
    return json.dumps(case.schema(parsed.version), indent=2, ensure_ascii=False)


def _printable(answer: str) -> str:
    """The answer in letters that standard output knows: a plain minus for the typographic one, and JSON in escapes."""
    encoding = getattr(sys.stdout, "encoding", None) or "utf-8"
    try:
        answer.encode(encoding)
    except UnicodeEncodeError:
        if answer.startswith(("{", "[")):
            return _escaped(answer)
        return answer.translate(PLAIN)
    return answer


def _escaped(answer: str) -> str:
    return "".join(letter if letter.isascii() else json.dumps(letter)[1:-1] for letter in answer)


def _say(complaint: str) -> None:
    """One line on standard error, as far as there is one that takes it."""
    with suppress(OSError, AttributeError, ValueError):
        print(f"kettle: {' '.join(complaint.split())}", file=sys.stderr, flush=True)


def main(arguments: list[str] | None = None) -> int:
    """Run one command; return 0, 2 after one line on standard error for a bad file or argument, 1 where the answer cannot be written."""
    for stream in (sys.stdin, sys.stdout, sys.stderr):
        if isinstance(stream, io.TextIOWrapper):
            stream.reconfigure(errors="replace")
    try:
        answers = _answers(_parsed(arguments))
    except InputError as error:
        _say(str(error))
        return 2
    except KeyboardInterrupt:
        return 130
    try:
        if sys.stdout is None:
            raise OSError(errno.EBADF, "standard output is closed")
        for answer in answers:
            print(_printable(answer), flush=True)
    except KeyboardInterrupt:
        return 130
    except (OSError, ValueError) as error:
        # What is left in the buffer would fail again at the end of the process.
        with suppress(OSError, AttributeError, ValueError):
            os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        _say(f"the answer could not be written: {getattr(error, 'strerror', None) or error}")
        return 1
    return 0


if __name__ == "__main__":
    sys.exit(main())
