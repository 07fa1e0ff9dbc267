"""Every observation of the registry with how the unit answers it."""

from collections.abc import Callable
from typing import Final

from kettle.knowledge.observations import Value
from kettle.plant.observer.metered import METERED
from kettle.plant.observer.rig import Rig
from kettle.plant.observer.seen import SEEN

ANSWERS: Final[dict[str, Callable[[Rig], Value | None]]] = {**SEEN, **METERED}
