"""A simulated unit under the hands: it answers every observation of the registry from its parts and its state, and acts change it.

`Rig` is the unit at a moment; `seen` answers for eyes, hands and ears, `metered` for gauges, clamps, meters and controls. Built on the
plant model alone: it knows what is wrong and never what the judgement makes of it.
"""

from kettle.plant.observer.rig import Rig as Rig
from kettle.plant.observer.rig import stand as stand
