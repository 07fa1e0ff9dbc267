"""One server on a folder of data, and nobody throws that away under it."""

import fcntl
import os
from contextlib import contextmanager

from django.conf import settings


class InUse(RuntimeError):
    """A server runs on the data."""


@contextmanager
def data_lock():
    """Hold the folder of data while the block runs; InUse where another process holds it. The lock ends with the process."""
    handle = os.open(settings.DATA / "serving.lock", os.O_CREAT | os.O_RDWR, 0o600)
    try:
        try:
            fcntl.flock(handle, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            raise InUse(f"A server runs on the data in {settings.DATA}: stop it first") from None
        yield
    finally:
        os.close(handle)
