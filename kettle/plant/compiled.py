"""Compiling the model's inner functions, which run for every variant at every step.

They are written for single figures, as a person would work them out; a batch is the same arithmetic over again. The
machine code is kept beside the sources, under a name made from all of them: what one function calls in another file may
change, and the compiler would not notice.
"""

import functools
import hashlib
import os
import sys
import threading
from collections.abc import Callable
from pathlib import Path
from typing import Any, Final, TypeVar, cast

_HERE: Final = Path(__file__).parent
_KEPT: Final = _HERE / "__pycache__"
_PACKAGE: Final = __name__.rpartition(".")[0]

Function = TypeVar("Function", bound=Callable[..., Any])
_lock: Final = threading.RLock()
_waiting: Final[list["_Waiting"]] = []


class _Waiting:
    """A function that is compiled with all others when the first of them is called: to load the compiler takes half a second."""

    def __init__(self, function: Callable[..., Any]) -> None:
        functools.update_wrapper(self, function)
        self._function = function
        self._made: Callable[..., Any] | None = None
        _waiting.append(self)

    def __call__(self, *given: Any) -> Any:
        if self._made is None:
            _compile_all()
        return cast(Callable[..., Any], self._made)(*given)

    def make(self, compiler: Callable[[Callable[..., Any]], Callable[..., Any]]) -> Callable[..., Any]:
        """Hand the function to the compiler, which works when it is first called."""
        self._made = compiler(self._function)
        return self._made


def compiled(function: Function) -> Function:
    """Return the function, compiled when it is first called and kept where the folder can be written.

    It runs without the interpreter's lock: others go on while it works, and a batch can be shared out over processors.
    """
    return cast(Function, _Waiting(function))


def _compile_all() -> None:
    """Put a compiled function in the place of each that waits, in every module of the plant that names it."""
    with _lock:
        compiler = _compiler()
        made = {one: one.make(compiler) for one in _waiting}
        _waiting.clear()
        for module in [module for name, module in sys.modules.items() if name.startswith(_PACKAGE)]:
            for name, value in list(vars(module).items()):
                if isinstance(value, _Waiting) and value in made:
                    setattr(module, name, made[value])


def kept() -> Path:
    """Return where the machine code of these very sources is kept, if anywhere."""
    sources = sorted([*_HERE.glob("*.py"), _HERE.parent / "knowledge" / "amps.py"])
    name = hashlib.sha256(b"".join(path.read_bytes() for path in sources)).hexdigest()[:12]
    return _KEPT / f"compiled-{name}"


def _compiler() -> Callable[[Callable[..., Any]], Callable[..., Any]]:
    from numba import config, njit

    keeps = os.access(_KEPT if _KEPT.exists() else _HERE, os.W_OK)
    if keeps:
        config.CACHE_DIR = str(kept())  # type: ignore[attr-defined]
    return cast(Callable[[Callable[..., Any]], Callable[..., Any]], njit(cache=keeps, nogil=True))
