"""How a cause is written down."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Final

from kettle.unit import Unit

# How strongly a cause shows itself in one observation, as a probability.
MOSTLY: Final = 0.82
OFTEN: Final = 0.6
SOME: Final = 0.35
SELDOM: Final = 0.08

# feature -> state -> probability; states left out share the rest as they do on a sound unit.
Effects = Mapping[str, Mapping[str, float]]


@dataclass(frozen=True)
class Cause:
    """One cause.

    `prior` is how common it is among service calls, `prior_freezer` the same on a freezer where it differs.
    `shows` are its effects; `variants` replace some of them on units built a certain way (field -> value).
    `only` limits the cause to units built a certain way (field -> allowed values).
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
    only: Mapping[str, tuple[str, ...]] = field(default_factory=dict)
    variants: tuple[tuple[Mapping[str, str], Effects], ...] = ()

    def possible_on(self, unit: Unit) -> bool:
        """Whether the cause can exist on a unit built like this."""
        return all(getattr(unit, name) in allowed for name, allowed in self.only.items())

    def prior_on(self, unit: Unit) -> float:
        """Return how common the cause is on this kind, as an unnormalised weight."""
        return self.prior_freezer if unit.kind.freezer and self.prior_freezer is not None else self.prior

    def effects_on(self, unit: Unit) -> Effects:
        """Return what the cause shows on a unit built like this."""
        effects = dict(self.shows)
        for built, replaced in self.variants:
            if all(getattr(unit, name) == value for name, value in built.items()):
                effects.update(replaced)
        return effects


HEALTHY: Final = Cause(
    code="",
    label="Nothing wrong found",
    plain="What was seen so far fits a unit that works as it should.",
    prior=0.14,
    shows={},
    confirm=("Watch it cycle off and on by itself", "See one defrost end and the drain run"),
    correct=("Nothing to correct; note the readings as its own good set",),
)
