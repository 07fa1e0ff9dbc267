"""The command line: judge a case file, look up saturation, print the schema. No web server, no database."""

import argparse
import json
import sys
from pathlib import Path
from typing import NoReturn

from kettle import case, refrigerants
from kettle.coils import judge_coil
from kettle.errors import InputError
from kettle.judge import Judgement, quantity_name
from kettle.units import TRADE, format_number


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
    looking = commands.add_parser("saturation", help="dew, bubble and glide of a refrigerant")
    looking.add_argument("refrigerant")
    at = looking.add_mutually_exclusive_group(required=True)
    at.add_argument("--psig", help="gauge pressure, psig (also “5 inHg”, “2.1 bar”)")
    at.add_argument("--f", help="temperature, °F (also “-20C”)")
    looking.add_argument("--altitude-ft", type=float, default=0.0)
    looking.add_argument("--json", action="store_true", help="print one JSON object")
    commands.add_parser("schema", help="the JSON Schema of the case file")
    return parser


def _judge(source: str, as_json: bool) -> str:
    try:
        text = sys.stdin.buffer.read() if source == "-" else Path(source).read_bytes()
    except OSError as error:
        raise InputError(f"{source}: {error.strerror}") from None
    read = case.read(text)
    judgement = judge_coil(read.resolved(), read.coils(), ages_by_coil=read.coil_ages_min())
    if as_json:
        return json.dumps(case.answer(judgement), indent=2, ensure_ascii=False)
    return _in_words(judgement)


def _in_words(judgement: Judgement) -> str:
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
        lines += [f"          for      {e.text}" for e in suspect.speaks_for]
        lines += [f"          against  {e.text}" for e in suspect.speaks_against]
    lines += [f"Next: {check.label}, {check.minutes:g} min. {check.how}. {check.meaning}" for check in judgement.next_checks]
    lines += [f"Assumed: {note}" for note in judgement.assumed]
    return "\n".join(lines)


def _saturation(arguments: argparse.Namespace) -> str:
    refrigerant = refrigerants.get(arguments.refrigerant)
    altitude = arguments.altitude_ft
    if not -1500 <= altitude <= 20000:
        raise InputError(f"altitude {altitude:g} ft is outside -1500 to 20000 ft")
    if arguments.psig is not None:
        pressure = TRADE.parse(arguments.psig, "psig")
        dew, bubble = refrigerant.dew_f(pressure, altitude), refrigerant.bubble_f(pressure, altitude)
        found = {"psig": pressure, "dew_f": dew, "bubble_f": bubble, "glide_f": dew - bubble}
        words = f"{TRADE.text(pressure, 'psig')}: dew {TRADE.text(dew, '°F')}, bubble {TRADE.text(bubble, '°F')}"
    else:
        temperature = TRADE.parse(arguments.f, "°F")
        dew, bubble = refrigerant.dew_psig(temperature, altitude), refrigerant.bubble_psig(temperature, altitude)
        # Glide at one temperature: how far apart the two lines lie at the dew pressure.
        glide = temperature - refrigerant.bubble.temperature_f_at(refrigerant.dew.psia_at(temperature))
        found = {"f": temperature, "dew_psig": dew, "bubble_psig": bubble, "glide_f": glide}
        words = f"{TRADE.text(temperature, '°F')}: dew {TRADE.text(dew, 'psig')}, bubble {TRADE.text(bubble, 'psig')}"
    if arguments.json:
        exact = {key: round(value, 3) + 0.0 for key, value in found.items()}
        return json.dumps({"refrigerant": refrigerant.name, "altitude_ft": altitude, **exact}, ensure_ascii=False)
    return f"{refrigerant.name} at {words}, glide {TRADE.text(found['glide_f'], '°F diff')}"


def main(arguments: list[str] | None = None) -> int:
    """Run one command; return 0, or 2 after one line on standard error for a bad file or argument."""
    try:
        parsed = _parser().parse_args(arguments)
        if parsed.command == "judge":
            print(_judge(parsed.case, parsed.json))
        elif parsed.command == "saturation":
            print(_saturation(parsed))
        else:
            print(json.dumps(case.schema(), indent=2, ensure_ascii=False))
    except InputError as error:
        print(f"kettle: {' '.join(str(error).split())}", file=sys.stderr)
        return 2
    return 0


if __name__ == "__main__":
    sys.exit(main())
