"""How a cause is written down."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Final

from kettle.knowledge.equipment import Unit

# How strongly a cause shows itself in one observation, as a probability.
MOSTLY: Final = 0.82
OFTEN: Final = 0.6
SOME: Final = 0.35
SELDOM: Final = 0.08

# feature -> state -> probability; states left out share the rest as they do on a sound unit.
Effects = Mapping[str, Mapping[str, float]]
# state -> probability, of one feature.
States = Mapping[str, float]
# Where an effect holds: field of the unit, "moment" or "outside" -> value.
Context = Mapping[str, str]


@dataclass(frozen=True)
class Cause:
    """One cause.

    `prior` is how common it is among service calls, `prior_freezer` the same on a freezer where it differs, `by_kind`
    factors on kinds whose code starts with a word, `by_weather` in weather (cold, mild or hot), `by_coming` where a box comes down.
    `shows` are its effects; `variants` replace some of them in a context (fields of the unit, "moment", "outside"). `only` limits the
    cause to units built a certain way (field -> allowed values), `never` rules it out in a context. `comes` says how it comes about
    (sudden, slow, or made: by whoever set it up), `after` what a visit before it changed. `splits` names an observation that tells which
    of several remedies it wants: (key, word -> how to put that right). `plain` is what is wrong in the customer's words, `was` what it
    was, once put right. `mimics` names causes it is taken for, each with what tells them apart. Priors and shares are judgement of the
    trade, not counts from records, unless a line says where else they come from.
    """

    code: str
    label: str
    plain: str
    prior: float
    shows: Effects
    confirm: tuple[str, ...]
    correct: tuple[str, ...]
    caution: tuple[str, ...] = ()
    prior_freezer: float | None = None
    by_kind: Mapping[str, float] = field(default_factory=dict)
    only: Mapping[str, tuple[str | int, ...]] = field(default_factory=dict)
    variants: tuple[tuple[Mapping[str, str | int], Effects], ...] = ()
    mimics: tuple[tuple[str, str], ...] = ()
    never: Context = field(default_factory=dict)
    comes: str = ""
    after: tuple[str, ...] = ()
    splits: tuple[str, Mapping[str, tuple[str, ...]]] | None = None
    by_weather: Mapping[str, float] = field(default_factory=dict)
    by_coming: Mapping[str, float] = field(default_factory=dict)
    was: str = ""

    def possible_in(self, context: Context) -> bool:
        """Whether the cause can be there in a context (a coil without fans has no fan to fail)."""
        return not any(context.get(name) == value for name, value in self.never.items())

    def possible_on(self, unit: Unit) -> bool:
        """Whether the cause can exist on a unit built like this."""
        return all(getattr(unit, name) in allowed for name, allowed in self.only.items())

    def prior_on(self, unit: Unit, context: Context | None = None) -> float:
        """Return how common the cause is on this kind, in this weather, as an unnormalised probability."""
        prior = self.prior_freezer if unit.kind.freezer and self.prior_freezer is not None else self.prior
        for word, factor in self.by_kind.items():
            if unit.kind.code.startswith(word):
                prior *= factor
        at = context or {}
        return prior * self.by_weather.get(at.get("outside", ""), 1.0) * self.by_coming.get(at.get("coming", ""), 1.0)

    def effects_on(self, unit: Unit, context: Context) -> Effects:
        """Return what the cause shows on a unit built like this, at this moment and weather."""
        effects = dict(self.shows)
        for asked, replaced in self.variants:
            if all(context.get(name, getattr(unit, name, None)) == value for name, value in asked.items()):
                effects.update(replaced)
        if unit.condensing == "water" and "split_f" in effects:
            # On water the approach tells what the split tells in air.
            effects.setdefault("approach_f", effects["split_f"])
        return effects


HEALTHY: Final = Cause(
    code="",
    label="Nothing wrong found",
    plain="What was seen so far fits a unit that works as it should.",
    prior=0.45,
    shows={},
    confirm=("Watch it cycle off and on by itself", "See one defrost end and the drain run"),
    correct=("Nothing to correct; note the readings as its own good set",),
)
