"""Each kind of miss of the judgement on real work, once and for all."""

import pytest

from kettle import case
from tests.core.call.expected import falls_short
from tests.core.call.made import told
from tests.core.call.misses import MISSES


def share(ranking, code):
    """How likely all answers are that name a cause; `""`: that nothing is wrong."""
    return round(sum(one["probability"] for one in ranking if (code in one["causes"] if code else not one["causes"])), 3)


@pytest.mark.parametrize("name", MISSES)
def test_a_kind_of_miss(name):
    unit, events, want = MISSES[name]
    out = case.answer_of(told(unit, *events))
    ranges = {which: want[which] for which in ("was", "left") if which in want}
    short = list(falls_short(out, {key: value for key, value in want.items() if key not in ranges}))
    for which, codes in ranges.items():
        for code, (least, most) in codes.items():
            found = share(out[which], code)
            if not least <= found <= most:
                short.append((which, f"{code or 'nothing'} {found:.2f}, wanted {least} to {most}"))
    first = set(out["was"][0]["causes"])
    if not set(want.get("first_holds", ())) <= first:
        short.append(("was", f"first is {sorted(first)}, wanted {want['first_holds']} in it"))
    assert not short, [(one["causes"], one["probability"]) for one in out["was"][:4]]
