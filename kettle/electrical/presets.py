"""The circuit usual for a unit, built from its plate: nothing about it is compulsory, a technician corrects it."""

import cmath
import math
from dataclasses import dataclass, field, fields
from functools import lru_cache
from typing import Final

from kettle.electrical.circuit import CLOSED_OHM, Circuit, Part, Point
from kettle.electrical.wiring import USUAL, Bank, Wiring
from kettle.knowledge.equipment import Unit

# Volts of a plate that does not say, by phases.
USUAL_V: Final = {1: 115.0, 3: 230.0}
# Where there are two hot legs one phase of 200 V and more is both of them, half of it each to ground.
TWO_LEGS_FROM_V: Final = 200.0
USUAL_RLA_A: Final = {1: 6.0, 3: 10.0}
# Impedances of small loads at 230 V, Ω; at other volts they draw the same power.
COIL_OHM: Final = complex(900.0, 3400.0)
SOLENOID_OHM: Final = complex(1500.0, 4500.0)
CLOCK_OHM: Final = complex(9000.0, 2000.0)
FAN_W: Final = 75.0
CONDENSER_FAN_W: Final = 120.0
CRANKCASE_W, DRAIN_W, FRAME_W = 50.0, 70.0, 60.0
# A motor's impedance: its angle running and at a standstill it is taken alike.
MOTOR_PF: Final = 0.8
# Start winding and start gear of a single-phase compressor, against its run winding; Ω of a run capacitor of usual size at 60 Hz.
START_TO_RUN: Final = 4.0
START_CAP_OHM: Final = complex(0.0, -20.0)
RUN_CAP_OHM: Final = complex(0.0, -106.0)
USUAL_MOTOR_OHM: Final = 115.0 / 6.0
PTC_COLD_OHM: Final = 12.0
CONTROL_V, TRANSFORMER_W = 24.0, 8.0
# At a standstill a motor draws five times its running amps; its start winding needs this share of the line there.
LOCKED_SHARE: Final = 0.2
STARTS_FROM, ALONE_FROM = 0.3, 0.1
# A winding of a three-phase motor is short of volts below this share: single phasing is not running.
TURNS_FROM: Final = 0.85
# One that has a start winding starts from this share.
PULLS_FROM: Final = 0.75

COOLING: Final = frozenset(("calling", "off", "pumping_down"))
RUNNING: Final = frozenset(("calling", "pumping_down"))
EXCEPT_DEFROST: Final = frozenset(("calling", "off", "pumping_down", "dripping"))
DEFROST: Final = frozenset(("defrosting",))
# Defrosts that a clock or a controller starts by an output of their own; with hot gas the compressor runs on in them.
STARTED: Final = ("electric", "hot_gas")
LIVE: Final = frozenset(("calling", "off", "pumping_down", "defrosting", "dripping"))


@dataclass
class _Drawing:
    """Points and parts as they are put down."""

    points: dict[str, Point] = field(default_factory=dict)
    parts: list[Part] = field(default_factory=list)
    motors: dict[str, tuple[str, ...]] = field(default_factory=dict)

    def point(self, key: str, label: str, place: str = "panel") -> str:
        self.points.setdefault(key, Point(key, label, place))
        return key

    def part(self, key: str, label: str, kind: str, a: str, b: str, ohm: complex = CLOSED_OHM, **more: object) -> None:
        self.parts.append(Part(key, label, kind, a, b, ohm, **more))  # type: ignore[arg-type]


@dataclass(frozen=True)
class Plate:
    """What of a unit its circuit follows from."""

    build: str
    phases: int
    nameplate_v: float | None
    compressor_rla_a: float | None
    box_control: str
    metering: str
    condensing: str
    head_control: str
    defrost: str
    receiver: bool
    walk_in: bool
    frame_heated: bool


def circuit_of(unit: Unit, wiring: Wiring = USUAL) -> Circuit:
    """Return the circuit of a unit: the usual one for its plate, with what is known of its wiring; the same one each time."""
    return _circuit(Plate(**{name.name: getattr(unit, name.name) for name in fields(Plate)}), wiring)


@lru_cache(maxsize=64)
def _circuit(unit: Plate, wiring: Wiring) -> Circuit:
    volts = unit.nameplate_v or USUAL_V[unit.phases]
    draw = _Drawing()
    supply = _supply(draw, unit, volts, wiring.hz)
    common = "N" if "N" in supply else "L2"
    rla = unit.compressor_rla_a or USUAL_RLA_A[unit.phases]
    poles = wiring.poles or (3 if unit.phases == 3 else 1 if common == "N" else 2)
    _contactor(draw, unit, poles, common)
    if unit.phases == 3:
        _three_phase(draw, volts, rla)
    else:
        _single_phase(draw, volts, rla, wiring.start_gear, "T2" if poles > 1 else common)
    control = _control(draw, unit, volts, common, wiring)
    fed = "K1" if wiring.fans_by == "line" else control
    _fans(draw, unit, volts, common, fed, wiring.fans, common if unit.phases == 1 and poles == 1 else "T2")
    if unit.defrost in STARTED:
        _defrost(draw, unit, volts, common, wiring)
    if unit.frame_heated:
        draw.part("frame_heater", "Door frame heater", "heater", "K1", common, volts**2 / FRAME_W, closed_in=LIVE, rated_v=volts)
    if unit.metering != "cap_tube":
        draw.part("crankcase_heater", "Crankcase heater", "heater", "L1", common, volts**2 / CRANKCASE_W, closed_in=LIVE, rated_v=volts)
    usual = Circuit(
        unit.build, unit.phases, volts, wiring.hz, supply, tuple(draw.points.values()), tuple(draw.parts), draw.motors,
    )  # fmt: skip
    return usual.joined(wiring.wires).without(*wiring.without)


def _supply(draw: _Drawing, unit: Plate, volts: float, hz: int) -> dict[str, complex]:
    """Three legs; or one phase: a leg and neutral, from `TWO_LEGS_FROM_V` on two hot legs of half the volts, except at 50 Hz."""
    draw.point("G", "ground")
    if unit.phases == 3:
        legs = {f"S{n}": cmath.rect(volts / math.sqrt(3.0), -math.radians(120.0 * (n - 1))) for n in (1, 2, 3)}
    elif volts >= TWO_LEGS_FROM_V and hz != 50:
        legs = {"S1": complex(volts / 2.0), "S2": complex(-volts / 2.0)}
    else:
        legs = {"S1": complex(volts), "N": complex(0.0)}
    for key in legs:
        draw.point(key, "neutral" if key == "N" else f"supply {key[1:]}")
    for leg in [key for key in legs if key != "N"]:
        n = leg[1:]
        draw.point(f"D{n}", f"disconnect, load side {n}")
        draw.point(f"L{n}", f"line side {n}")
        draw.part(f"disconnect_{n}", f"Disconnect, pole {n}", "disconnect", leg, f"D{n}", closed_in=LIVE)
        draw.part(f"fuse_{n}", f"Fuse {n}", "fuse", f"D{n}", f"L{n}")
    return legs


def _contactor(draw: _Drawing, unit: Plate, poles: int, common: str) -> None:
    """Its poles; a leg it does not break runs through."""
    legs = ["1", "2", "3"] if unit.phases == 3 else ["1", "2"][:poles]
    for n in legs:
        line = common if n == "2" else f"L{n}"
        draw.point(f"T{n}", f"load side {n}")
        if int(n) <= poles:
            draw.part(f"pole_{n}", f"Contactor pole {n}", "pole", line, f"T{n}", coil="contactor_coil")
        else:
            draw.part(f"strap_{n}", f"Leg {n}, straight through", "wire", line, f"T{n}")


def _motor_ohm(volts: float, amps: float) -> complex:
    size = volts / amps
    return complex(size * MOTOR_PF, size * math.sqrt(1.0 - MOTOR_PF**2))


def _three_phase(draw: _Drawing, volts: float, rla: float) -> None:
    """Three windings to a star point inside, which is out of reach."""
    phase = volts / math.sqrt(3.0)
    draw.point("Y", "star point, inside", "compressor")
    for n in (1, 2, 3):
        draw.point(f"C{n}", f"compressor {n}", "compressor")
        draw.part(f"lead_{n}", f"Compressor lead {n}", "wire", f"T{n}", f"C{n}")
        draw.part(f"winding_{n}", f"Winding {n}", "winding", f"C{n}", "Y", _motor_ohm(phase, rla), rated_v=phase, works_from=TURNS_FROM,
                  dc_ohm=0.075 * phase / rla, standing=LOCKED_SHARE)  # fmt: skip
    draw.motors["compressor"] = ("winding_1", "winding_2", "winding_3")


def _single_phase(draw: _Drawing, volts: float, rla: float, gear: str, back: str) -> None:
    """Common, run and start, with what starts it: a potential or current relay and start capacitor, a PTC, or the run capacitor alone.

    At a standstill a motor takes `LOCKED_SHARE` of its impedance; it turns once its start winding has its volts there.
    """
    for key, label in (("C", "common"), ("S", "start")):
        draw.point(key, label, "compressor")
    draw.point("O", "overload, line side", "compressor")
    run, end = _motor_ohm(volts, rla), back
    draw.part("lead_1", "Compressor lead", "wire", "T1", "O")
    draw.part("overload", "Overload", "overload", "O", "C")
    if gear == "current":
        # Its coil lies in the run winding's way and pulls while that draws its locked amps.
        end = draw.point("R", "run", "compressor")
        draw.part("relay_coil", "Start relay, coil", "wire", "R", back)
    starts_from = ALONE_FROM if gear == "none" else STARTS_FROM
    draw.part("winding_run", "Run winding", "winding", "C", end, run, rated_v=volts, works_from=PULLS_FROM, dc_ohm=0.065 * volts / rla,
              standing=LOCKED_SHARE)  # fmt: skip
    draw.part("winding_start", "Start winding", "winding", "C", "S", START_TO_RUN * run, rated_v=volts, works_from=starts_from,
              dc_ohm=0.21 * volts / rla, standing=LOCKED_SHARE, starts=True)  # fmt: skip
    draw.motors["compressor"] = ("winding_run", "winding_start")
    scale = (volts / rla) / USUAL_MOTOR_OHM
    if gear != "current":
        draw.part("run_capacitor", "Run capacitor", "capacitor", "S", back, RUN_CAP_OHM * scale)
    if gear == "ptc":
        draw.part("start_ptc", "PTC", "ptc", "S", back, PTC_COLD_OHM * scale, motor="compressor", opens=True)
    elif gear in ("potential", "current"):
        draw.point("P1", "relay 1", "compressor")
        draw.part("start_relay", "Start relay, contact", "contact", "S", "P1", motor="compressor", opens=True)
        draw.part("start_capacitor", "Start capacitor", "capacitor", "P1", back, START_CAP_OHM * scale)


def _control(draw: _Drawing, unit: Plate, volts: float, common: str, wiring: Wiring) -> str:
    """From L1 through timer or controller, thermostat and safeties to the coils; return the point that is live while it may cool."""
    draw.point("K1", "control, line side")
    draw.part("control_fuse", "Control fuse", "fuse", "L1", "K1")
    cool = "K1"
    controlled = unit.box_control == "controller"
    by_gas = unit.defrost == "hot_gas"
    timed = unit.defrost in STARTED and not controlled
    if timed:
        draw.part("timer_motor", "Timer motor", "clock", "K1", common, CLOCK_OHM * (volts / 230.0) ** 2, rated_v=volts)
        if wiring.ends_by != "time":
            draw.point("X", "timer X, release")
    if timed and not by_gas:
        cool = draw.point("4", "timer 4, cooling")
        draw.part("timer_cool", "Timer contact, cooling", "contact", "K1", "4", closed_in=EXCEPT_DEFROST)
    live, back, coil_v = cool, common, volts
    if wiring.control == "transformer":
        live, back, coil_v = draw.point("V", "control, 24 V"), draw.point("0", "control, 24 V common"), CONTROL_V
        draw.part("transformer", "Control transformer", "transformer", cool, common, volts**2 / TRANSFORMER_W, secondary=("V", "0"),
                  ratio=CONTROL_V / volts)  # fmt: skip
    # With hot gas the call and the compressor stay through a defrost, and the liquid alone is held back by the clock or the output.
    calls = frozenset(("calling", "defrosting")) if by_gas else frozenset(("calling",))
    runs = RUNNING | DEFROST if by_gas else RUNNING
    scale = (coil_v / 230.0) ** 2
    draw.point("K2", "call for cold", "panel")
    draw.part("stat", "Controller output, cooling" if controlled else "Thermostat", "output" if controlled else "switch", live, "K2",
              closed_in=calls)  # fmt: skip
    feed, pumps_down = "K2", False
    if unit.receiver and unit.metering != "cap_tube" and unit.box_control != "suction_pressure":
        liquid = "K2"
        if by_gas:
            liquid = draw.point("4", "timer 4, liquid" if timed else "controller, liquid output")
            draw.part("timer_cool" if timed else "liquid_output", "Timer contact, liquid" if timed else "Controller output, liquid",
                      "contact" if timed else "output", "K2", "4", closed_in=EXCEPT_DEFROST)  # fmt: skip
        draw.part("solenoid", "Liquid solenoid", "coil", liquid, back, SOLENOID_OHM * scale, rated_v=coil_v)
        # The call has the liquid valve alone and the compressor follows its pressure, unless a relay takes the call to it too.
        pumps_down = not wiring.relay
        feed = live if pumps_down else "K2"
    if wiring.relay:
        draw.point("KR", "behind the compressor relay")
        draw.part("comp_relay_coil", "Compressor relay, coil", "coil", feed, back, COIL_OHM * scale, rated_v=coil_v)
        draw.part("comp_relay", "Compressor relay, contact", "contact", "V" if live == "V" else "K1", "KR", coil="comp_relay_coil")
        feed = "KR"
    if unit.metering != "cap_tube" or unit.box_control == "suction_pressure":
        draw.point("K3", "behind the low-pressure switch", "machine")
        draw.part("lp_switch", "Low-pressure switch", "switch", feed, "K3",
                  closed_in=runs if pumps_down or unit.box_control == "suction_pressure" else LIVE)  # fmt: skip
        feed = "K3"
    if unit.metering != "cap_tube":
        draw.point("K4", "behind the high-pressure switch", "machine")
        draw.part("hp_switch", "High-pressure switch", "switch", feed, "K4")
        feed = "K4"
    draw.part("contactor_coil", "Contactor coil", "coil", feed, back, COIL_OHM * scale, rated_v=coil_v)
    return cool


def _fans(draw: _Drawing, unit: Plate, volts: float, common: str, control: str, fans: int, back: str) -> None:
    feed = control
    controlled = unit.box_control == "controller"
    if controlled:
        draw.point("KF", "controller, fan output")
        draw.part("fan_output", "Controller output, fans", "output", "K1", "KF", closed_in=COOLING)
        feed = "KF"
    if unit.walk_in:
        draw.point("F1", "behind the door switch", "box")
        draw.part("door_switch", "Door switch", "switch", feed, "F1")
        feed = "F1"
    if unit.defrost in ("electric", "hot_gas"):
        draw.point("F2", "behind the fan delay", "coil")
        draw.part("fan_delay", "Fan delay", "switch", feed, "F2", closed_in=COOLING)
        feed = "F2"
    for n in range(1, fans + 1):
        draw.point(f"M{n}", f"leads of coil fan {n}", "coil")
        draw.part(f"fan_lead_{n}", f"Lead of coil fan {n}", "wire", feed, f"M{n}")
        draw.part(f"fan_{n}", f"Coil fan {n}", "motor", f"M{n}", common, volts**2 / FAN_W, rated_v=volts, works_from=0.8)
    if unit.condensing == "air":
        draw.point("MC", "leads of the condenser fan", "machine")
        cycles = unit.head_control in ("fan_cycling", "mixing_valve_and_fan")
        draw.part("fan_cycling" if cycles else "condenser_lead", "Fan cycling" if cycles else "Lead of the condenser fan",
                  "switch" if cycles else "wire", "T1", "MC")  # fmt: skip
        draw.part("condenser_fan", "Condenser fan", "motor", "MC", back, volts**2 / CONDENSER_FAN_W, rated_v=volts, works_from=0.8)


def _defrost(draw: _Drawing, unit: Plate, volts: float, common: str, wiring: Wiring) -> None:
    """What starts a defrost and ends it, and what it switches on: a bank of heaters, or the hot-gas valve."""
    controlled = unit.box_control == "controller"
    shape = wiring.bank.shape_on(unit.phases)
    straight = unit.defrost == "electric" and wiring.heaters_by == "direct" and shape == "single"
    draw.point("3", "controller, defrost output" if controlled else "timer 3, defrost")
    draw.part("defrost_output" if controlled else "timer_heat", "Controller output, defrost" if controlled else "Timer contact, defrost",
              "output" if controlled else "contact", "L1" if straight else "K1", "3", closed_in=DEFROST)  # fmt: skip
    if not controlled and wiring.ends_by != "time":
        # Closed by a coil warm enough: its volts let the timer go back to cooling.
        draw.part("termination", "Termination switch", "switch", "3", "X", closed_in=frozenset())
        draw.part("timer_release", "Timer release", "coil", "X", common, CLOCK_OHM * (volts / 230.0) ** 2, rated_v=volts)
    if unit.defrost == "hot_gas":
        draw.part("hot_gas_coil", "Hot-gas valve", "coil", "3", common, SOLENOID_OHM * (volts / 230.0) ** 2, rated_v=volts)
    else:
        _heaters(draw, unit, volts, common, wiring.bank, straight)
    if unit.defrost == "electric" or unit.frame_heated:
        draw.part("drain_heater", "Drain heater", "heater", "K1", common, volts**2 / DRAIN_W, closed_in=LIVE, rated_v=volts)


def _heaters(draw: _Drawing, unit: Plate, volts: float, common: str, bank: Bank, straight: bool) -> None:
    """A bank behind a defrost relay, or straight on what calls it, with its safety limit."""
    shape = bank.shape_on(unit.phases)
    feed = "3"
    if shape != "single":
        # A limit cannot break three legs: it breaks the coil of the relay that does.
        draw.point("3L", "behind the heater limit", "coil")
        draw.part("heater_limit", "Heater limit", "switch", "3", "3L")
        feed = "3L"
    if not straight:
        draw.part("defrost_coil", "Defrost relay coil", "coil", feed, common, COIL_OHM * (volts / 230.0) ** 2, rated_v=volts)
    draw.point("H1", "heaters, fed side" if shape == "single" else "heaters, leg 1")
    if straight:
        draw.part("heater_feed", "Lead to the heaters", "wire", "3", "H1")
    else:
        draw.part("defrost_pole", "Defrost relay contact", "contact", "L1", "H1", coil="defrost_coil")
    across = volts / math.sqrt(3.0) if shape == "wye" else volts
    ohm = across**2 / bank.element_w
    if shape == "single":
        draw.point("HL", "behind the heater limit", "coil")
        draw.part("heater_limit", "Heater limit", "switch", "H1", "HL")
    else:
        for n in (2, 3):
            draw.point(f"H{n}", f"heaters, leg {n}")
            draw.part(f"defrost_pole_{n}", f"Defrost relay contact {n}", "contact", f"L{n}", f"H{n}", coil="defrost_coil")
    if shape == "wye":
        draw.point("HY", "star point of the heaters", "coil")
    for n in range(1, bank.elements + 1):
        leg = (n - 1) % 3 + 1
        begin, end = {"single": ("HL", common), "wye": (f"H{leg}", "HY")}.get(shape, (f"H{leg}", f"H{leg % 3 + 1}"))
        draw.point(f"E{n}", f"leads of element {n}", "coil")
        draw.part(f"element_lead_{n}", f"Lead of element {n}", "wire", begin, f"E{n}")
        draw.part(f"element_{n}", f"Element {n}", "heater", f"E{n}", end, ohm, rated_v=across)
