"""Compiling the model's inner functions, which run for every variant at every step.

They are written for single figures, as a person would work them out; a batch is the same arithmetic over again. The
machine code is kept beside the sources, under a name made from all of them: what one function calls in another file may
change, and the compiler would not notice.
"""

import hashlib
import os
from collections.abc import Callable
from pathlib import Path
from typing import Any, Final, TypeVar, cast

from numba import config, njit

_HERE: Final = Path(__file__).parent
_KEPT: Final = _HERE / "__pycache__"
_SOURCES: Final = sorted([*_HERE.glob("*.py"), _HERE.parent / "knowledge" / "amps.py"])
_NAME: Final = hashlib.sha256(b"".join(path.read_bytes() for path in _SOURCES)).hexdigest()[:12]
_CAN_KEEP: Final = os.access(_KEPT if _KEPT.exists() else _HERE, os.W_OK)
if _CAN_KEEP:
    config.CACHE_DIR = str(_KEPT / f"compiled-{_NAME}")  # type: ignore[attr-defined]

Function = TypeVar("Function", bound=Callable[..., Any])


def compiled(function: Function) -> Function:
    """Return the function, compiled when it is first called and kept where the folder can be written.

    It runs without the interpreter's lock: others go on while it works, and a batch can be shared out over processors.
    """
    return cast(Function, njit(cache=_CAN_KEEP, nogil=True)(function))
