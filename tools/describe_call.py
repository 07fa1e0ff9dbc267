"""The codes of a call file, written into docs/call.md between its marks: python tools/describe_call.py; --check only looks."""

import sys
from pathlib import Path

ROOT = Path(__file__).parent.parent
sys.path.insert(0, str(ROOT))

from kettle.benches.controls.registers import REGISTERS  # noqa: E402
from kettle.benches.defrost.program import ROLES  # noqa: E402
from kettle.benches.ice import map as ice  # noqa: E402
from kettle.benches.ice.melt import METHODS  # noqa: E402
from kettle.benches.prove import leaving, proofs  # noqa: E402
from kettle.benches.refrigerant import change, compressor, leaks  # noqa: E402
from kettle.call import placed  # noqa: E402
from kettle.call.kinds import KINDS, Silent  # noqa: E402
from kettle.electrical.circuit import STATES  # noqa: E402
from kettle.electrical.wiring import START_GEAR  # noqa: E402
from kettle.judging.holds import ACTIONS, BLOCKS  # noqa: E402
from kettle.knowledge import acts, anatomy, causes, looks, observations  # noqa: E402
from kettle.knowledge.parameters import PARAMETERS  # noqa: E402

PAGE = ROOT / "docs" / "call.md"
BEGIN, END = "<!-- codes: made by tools/describe_call.py -->\n", "<!-- end of codes -->\n"


def tables() -> str:
    """Return every list of codes as Markdown."""
    questions = ("hears", "says", "proves", "asks", "customer", "draws")
    lines = ["### What each kind answers\n", f"| kind | {' | '.join(questions)} |", f"|{' --- |' * (len(questions) + 1)}"]
    for kind in KINDS.values():
        cells = [_cell(getattr(kind, question)) for question in questions]
        lines.append(f"| `{kind.code}` | {' | '.join(cells)} |")
    lists = {
        "Parts and what can be done to them (`act`)": [f"`{part}` {' · '.join(did)}" for part, did in acts.PARTS.items()],
        "Parts and how they are seen (`looked`)": [f"`{part}` {' · '.join(states)}" for part, states in looks.PARTS.items()],
        "Observations (`reading`)": [" · ".join(observations.REGISTRY)],
        "Causes (`found`)": [" · ".join(causes.CATALOGUE)],
        "States of the circuit (`measured.state`)": [" · ".join(STATES)],
        "Ways to melt (`melt.method`)": [" · ".join(METHODS)],
        "Places of ice": [" · ".join(dict.fromkeys([*(code for code, _ in observations.get("ice_places").choices), *ice.PLACES]))],
        "Letters of an ice map": [" · ".join(f"`{letter}` {form}" for letter, form in ice.FORMS.items())],
        "Places of a leak (`leak_look.place`)": [" · ".join([*leaks.BY_CODE, leaks.BACKGROUND])],
        "Parameters (`setting.parameter`)": [" · ".join(PARAMETERS)],
        "Figures of a program (`program.figures`)": [" · ".join(ROLES)],
        "Steps (`step.of`, `step.step`)": [" · ".join([*change.PARTS, "triple"]), " · ".join(change.every_step())],
        "Oil after a first start": [" · ".join(compressor.OIL)],
        "Start gear (`wires.gear`)": [" · ".join(START_GEAR)],
        "Placed things (`placed.what`)": [" · ".join(placed.WHAT)],
        "Holds and actions (`override`)": [" · ".join(BLOCKS), " · ".join(ACTIONS)],
        "Proofs (`seen.proof`)": [" · ".join(proofs.KINDS)],
        "What can be left (`leave`, `left_so.what`) and its answers": [
            f"`{code}` {' · '.join(kind.answers)}" for code, kind in leaving.KINDS.items()
        ],
        "Roles of a controller (`talked`)": [" · ".join(REGISTERS)],
        "Parts a note can stand at": [" · ".join(anatomy.PARTS)],
    }  # fmt: skip
    for title, rows in lists.items():
        lines += [f"\n### {title}\n", *(f"{row}  " for row in rows)]
    return "\n".join(lines) + "\n"


def _cell(answer: object) -> str:
    if isinstance(answer, Silent):
        return f"– {answer.reason}"
    if hasattr(answer, "opens"):
        return ", ".join([*answer.opens, *(f"ends {code}" for code in answer.ends)])
    if hasattr(answer, "parts"):
        return ", ".join(answer.parts)
    if hasattr(answer, "on"):
        return str(answer.on)
    return str(answer.__doc__).strip().rstrip(".").split("\n")[0]


def main() -> int:
    """Write the codes, or say that they are not the ones of the code; return the exit status."""
    page = PAGE.read_text()
    before, _, rest = page.partition(BEGIN)
    _, _, after = rest.partition(END)
    made = before + BEGIN + tables() + END + after
    if "--check" in sys.argv[1:]:
        if made != page:
            print("docs/call.md does not list the codes of the code: python tools/describe_call.py", file=sys.stderr)
            return 1
        return 0
    PAGE.write_text(made)
    return 0


if __name__ == "__main__":
    sys.exit(main())
