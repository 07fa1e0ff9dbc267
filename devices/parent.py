"""A device started by another process ends with it."""

import os
import sys
import threading


def _wait() -> None:
    sys.stdin.read()
    os._exit(0)


def end_with_parent() -> None:
    """End this process, from now on, as soon as whoever started it is gone: its standard input ends, however that came about."""
    threading.Thread(target=_wait, daemon=True).start()
