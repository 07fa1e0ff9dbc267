"""Papers that take long to make: each by a process of its own, one after another, asked for again until it is there, or stopped.

A page of type takes some seconds of the processor: made here it would hold up what everybody else enters.
"""

import atexit
import hashlib
import os
import secrets
import struct
import subprocess
import sys
import threading
import time
from collections.abc import Callable
from concurrent.futures import Future, ThreadPoolExecutor
from dataclasses import dataclass, field

from django.conf import settings
from django.http import HttpResponse

from kettle.knowledge.errors import InputError
from web.reports.pdf import LENGTH, MADE, NO_PANGO

# One that nobody fetches is kept so long, s; so many are kept, and so many of one shop wait, at the most.
KEPT_S, MOST_KEPT, MOST_OF_SHOP = 600.0, 40, 6
LONGEST_S = 120.0
# One process sets so many papers before a new one takes its place.
MOST_BY_ONE = 200
_maker = ThreadPoolExecutor(1, "papers")
_setters: list[subprocess.Popen] = []
_set_by: list[int] = []
_papers: dict[str, "Paper"] = {}
_lock = threading.Lock()


@dataclass
class Paper:
    """One paper: whose it is, where to go back to, and what its bytes become an answer by, also `without` any where they cannot be made."""

    shop: int
    name: str
    back: str
    answer: Callable[[bytes], HttpResponse]
    without: bool = False
    set_from: str = ""
    key: str = field(default_factory=lambda: secrets.token_urlsafe(12))
    asked_at: float = field(default_factory=time.monotonic)
    future: Future = field(default_factory=Future)
    process: subprocess.Popen | None = None
    stopped: bool = False

    @property
    def waits_for(self):
        """How many papers are made before this one."""
        with _lock:
            return sum(1 for one in _papers.values() if one.asked_at < self.asked_at and not one.future.done() and not one.stopped)

    @property
    def seconds(self):
        """How long it has taken."""
        return round(time.monotonic() - self.asked_at)

    def made(self, wait_s=0.0):
        """Return its bytes, after waiting for them so long; None while it is made. InputError where it cannot be."""
        try:
            return self.future.result(wait_s)
        except TimeoutError:
            return None

    def stop(self):
        """Make no more of it."""
        self.stopped = True
        if _wanted(self):
            return
        self.future.cancel()
        if self.process is not None:
            self.process.kill()


def make(shop, name, back, html, answer, without=False):
    """Begin a paper from the HTML it is set from; InputError where a shop waits for too many already.

    One that was set from the very same is not set again.
    """
    paper = Paper(shop, name, back, answer, without, hashlib.sha256(html.encode()).hexdigest())
    with _lock:
        _forget()
        same = next((one for one in _papers.values() if (one.shop, one.set_from) == (shop, paper.set_from) and _stands(one)), None)
        if same is not None:
            paper.future = same.future
            _papers[paper.key] = paper
            return paper
        if sum(1 for one in _papers.values() if one.shop == shop and not one.future.done()) >= MOST_OF_SHOP:
            raise InputError(f"{MOST_OF_SHOP} papers of your shop are being made: wait for one, or stop it")
        _papers[paper.key] = paper
        paper.future = _maker.submit(set_apart, paper, html)
    return paper


def find(key, shop):
    """Return a paper of a shop; None where there is none (any more)."""
    with _lock:
        paper = _papers.get(key)
    return paper if paper is not None and paper.shop == shop and not paper.stopped else None


def _stands(paper):
    """Whether a paper is made, or will be."""
    return not paper.stopped and not paper.future.cancelled() and not (paper.future.done() and paper.future.exception())


def _wanted(paper):
    """Whether anybody still waits for a paper: whoever asked for it, or for the very same."""
    with _lock:
        return not paper.stopped or any(one.set_from == paper.set_from and not one.stopped for one in _papers.values())


def _forget():
    old = [key for key, one in _papers.items() if one.stopped or (one.future.done() and time.monotonic() - one.asked_at > KEPT_S)]
    done = [key for key, one in _papers.items() if one.future.done()]
    for key in {*old, *done[: max(0, len(_papers) - MOST_KEPT)]}:
        del _papers[key]


def set_apart(paper, html):
    """The bytes of a paper, set by a process that gives way to those that answer, and stays for the next."""
    if not _wanted(paper):
        return b""
    paper.process = process = _setter()
    given_up = threading.Timer(LONGEST_S, process.kill)
    given_up.start()
    try:
        process.stdin.write(LENGTH.pack(0, len(html.encode())) + html.encode())
        process.stdin.flush()
        state, length = LENGTH.unpack(process.stdout.read(LENGTH.size))
        content = process.stdout.read(length)
    except (struct.error, OSError):
        # It was stopped, or died: the next paper has a new one.
        process.kill()
        if not _wanted(paper):
            return b""
        raise InputError(f"{paper.name} could not be made in {LONGEST_S:.0f} s: try again") from None
    finally:
        given_up.cancel()
        paper.process = None
    if state == NO_PANGO:
        raise InputError(content.decode(errors="replace"))
    if state != MADE:
        raise InputError(f"{paper.name} could not be made: try again")
    return content


def _setter():
    """The process that sets papers: the one there is, or a new one."""
    if _setters and _setters[-1].poll() is None and _set_by[-1] < MOST_BY_ONE:
        _set_by[-1] += 1
        return _setters[-1]
    for old in _setters:
        old.kill()
        old.wait()
    _setters[:] = [subprocess.Popen(
        [sys.executable, "-m", "web.reports.pdf"], stdin=subprocess.PIPE, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL,
        cwd=settings.ROOT, env={**os.environ, "DJANGO_SETTINGS_MODULE": os.environ.get("DJANGO_SETTINGS_MODULE", "web.settings")},
    )]  # fmt: skip
    _set_by[:] = [1]
    return _setters[-1]


@atexit.register
def _end():
    for process in _setters:
        process.kill()
