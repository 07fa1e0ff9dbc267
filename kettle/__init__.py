"""The core of Orange Kettle: rules and computation on plain data, without Django and without I/O.

A case is judged in three lines:

>>> import kettle
>>> fan = kettle.judge(kettle.unit("walk_in_cooler", "R-448A"), {"box_temp_f": 46, "evap_fans": "stopped", "evap_fan_supply_v": 230})
>>> fan.ranking[0].label
'Coil fan failed'

Each function checks what it is given and says in one line what is wrong (`InputError`). A whole call is
read by `read_call` and told by `tell`.
"""

from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from kettle.front import Saturation as Saturation
    from kettle.front import judge as judge
    from kettle.front import read_call as read_call
    from kettle.front import read_case as read_case
    from kettle.front import saturation as saturation
    from kettle.front import simulate as simulate
    from kettle.front import tell as tell
    from kettle.front import unit as unit
    from kettle.knowledge.equipment import Unit as Unit
    from kettle.knowledge.errors import InputError as InputError

__version__ = "0.1.0"
__all__ = ["InputError", "Saturation", "Unit", "judge", "read_call", "read_case", "saturation", "simulate", "tell", "unit"]


def __getattr__(name: str) -> Any:
    """Hand on what is asked for at the front door; a part of the core by itself loads no more than it needs."""
    if name in __all__:
        from kettle import front

        return getattr(front, name)
    raise AttributeError(f"module {__name__!r} has no attribute {name!r}")
