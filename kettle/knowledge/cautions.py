"""The usual cautions, in words, by the danger they concern; causes and stops refer to them by key."""

from typing import Final

CAUTIONS: Final = {
    "licensed": "Opening the circuit, recovering and charging are licensed work; no venting. Local codes come first.",
    "lock_out": "Lock out and prove dead before hands go near fans or terminals. Local codes come first.",
    "live": "Measuring live: rated meter and leads, insulated gloves, one hand, dry floor; whoever is not licensed for it leaves it.",
    "pressure": "Wear glasses and gloves: the circuit is under pressure and liquid burns skin with cold.",
    "hot_line": "Discharge lines and heads burn.",
    "slugging": "Liquid coming back wrecks a compressor: do not leave it running like this.",
    "ladder": "Roof and ladder: footing, wind and someone who knows you are up there.",
    "wet": "Wet floor and electricity: dry the place or kill the power first.",
    "inside": "Inside a closed box: prove the inside release, block the latch, tell someone.",
    "closed_air": "Leaked refrigerant lies low in a closed box and takes the air: ventilate, detector, door held open.",
    "drips": "Keep water off terminals, boards and motors; work from the front so that the sheet lets go. Never picks or hammers.",
    "scald": "Hot water scalds: gloves, sleeves, face clear of the run-off.",
    "fins_hot": "Keep it moving: hot air softens fins, liner and wiring.",
    "fire": "Flame is a school some keep for steel parts: never near plastic or insulation; extinguisher at hand, local rules first.",
    "full_coil": "Never heat a coil that is shut in with liquid: pressure bursts it.",
    "flammable": "The refrigerant burns: ventilate, gas detector, rated tools, no flame or sparks.",
}


def words(*keys: str) -> tuple[str, ...]:
    """Return the cautions of the keys, in their order."""
    return tuple(CAUTIONS[key] for key in keys)
