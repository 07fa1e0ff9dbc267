"""What of a call is proved: each proof that what was done asks for, filled from what was recorded since."""

from dataclasses import dataclass

from kettle.benches.ice import map as ice
from kettle.benches.prove import proofs
from kettle.benches.refrigerant import nitrogen
from kettle.knowledge.bands import default_band
from kettle.knowledge.units import TRADE
from web.logbook.courses import acts_of
from web.logbook.judging import course_of

# What has to be read anew for a quantity to be one of now.
READ_FOR = {"superheat_evap_f": "suction_line_evap_f", "td_f": "suction_psig", "split_f": "discharge_psig", "approach_f": "discharge_psig",
            "amps_pct": "compressor_amps"}  # fmt: skip
TRUSTED = ("good", "weak")
# A test of pressure is of the repair, not of what was charged after it.
ASKED_BY_ITSELF = {"held": "leak", "water": "drain"}


@dataclass
class Recorded:
    """What a call holds that proofs are filled from, loaded once."""

    unit: object
    readings: list
    verdicts: list
    moments: list
    amps: list
    tests: list
    watches: list
    maps: list
    tapped: list

    def since(self, at):
        """What is on record from a moment on, as the core takes it."""
        seen = {one.key: one.value for one in self.readings if one.at >= at}
        verdicts = {
            one.quantity: one.state for one in self.verdicts if one.trust in TRUSTED and READ_FOR.get(one.quantity, one.quantity) in seen
        }
        moments = [one for one in self.moments if one.at >= at]
        starts = sum(one.what == "start" for one in moments)
        band = default_band(self.unit, "box_temp_f")
        wide = sum(one.box_f is not None and band is not None and not band[0] - 1.0 <= one.box_f <= band[1] + 1.0 for one in moments)
        tests = [one for one in self.tests if one.at >= at]
        watches = [one for one in self.watches if one.at >= at and one.ended_by]
        maps = [one for one in self.maps if one.at >= at and one.stage != "before"]
        return proofs.Since(
            self.unit, seen, verdicts, cycles=max(starts - 1, 0), cycles_wide=wide, starts=starts,
            amps_legs=len({one.one for one in self.amps if one.at >= at}), held=self._held(tests[-1]) if tests else None,
            ended_by=watches[-1].ended_by if watches else seen.get("defrost_ended_by", "").replace("unknown", ""),
            coil_bare=self._bare(maps[-1]) if maps else None, tapped=frozenset(one.code for one in self.tapped if one.at >= at),
        )  # fmt: skip

    def _held(self, test):
        told = nitrogen.stood(test.start_psig, test.start_f, test.now_psig, test.now_f, test.minutes, self.unit.altitude_ft)
        return not told.leaks

    def _bare(self, drawing):
        painted = ice.parse(drawing.rows, drawing.places)
        return ice.read(painted, drawing.face_ft2).ice_form == "none" and not any(
            form in ice.ICED_FORMS for form in (drawing.places or {}).values()
        )


def recorded(call, verdicts):
    """What a call holds that proofs are filled from."""
    standing = {"undone_at": None}
    return Recorded(
        call.unit.resolved(),
        [one for one in call.readings.all() if one.undone_at is None],
        list(verdicts),
        list(call.switchmoments.filter(**standing)),
        list(call.measurements.filter(what="amps", **standing)),
        list(call.standingtests.filter(**standing)),
        list(call.defrostwatchs.filter(**standing)),
        list(call.icedrawings.filter(**standing)),
        list(call.proofseens.filter(**standing)),
    )


def proofs_of(call, verdicts, shown=TRADE):
    """The proofs of a call, in the order of the core's table; those of a call on which nothing was done are of the box alone."""
    steps = acts_of(call)
    told = recorded(call, verdicts)
    found = []
    for code, by in proofs.wanted(told.unit, [step.act.code for step in steps]).items():
        own = ASKED_BY_ITSELF.get(code)
        asking = [step for step in steps if step.act.code in by and (own is None or step.part == own)]
        asking = asking or [step for step in steps if step.act.code in by]
        at = max((step.at for step in asking), default=call.opened_at)
        found.append(proofs.told(code, told.since(at), by, shown))
    return found


def unproved(call, verdicts=None):
    """What a call that something was done on has not proved: (code, words); nothing where nothing was done.

    `verdicts` are those of the call where somebody judged it already.
    """
    if not acts_of(call):
        return ()
    found = proofs_of(call, course_of(call).now.verdicts if verdicts is None else verdicts)
    return tuple((one.kind.code, one.words) for one in found if one.state != proofs.PROVED)
