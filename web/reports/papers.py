"""Papers that take long to make: each by a process of its own, one after another, asked for again until it is there, or stopped.

A page of type takes some seconds of the processor: made here it would hold up what everybody else enters.
"""

import os
import secrets
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
from web.reports.pdf import NO_PANGO

# One that nobody fetches is kept so long, s; so many are kept, and so many of one shop wait, at the most.
KEPT_S, MOST_KEPT, MOST_OF_SHOP = 600.0, 40, 6
LONGEST_S = 120.0
_maker = ThreadPoolExecutor(1, "papers")
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
        self.future.cancel()
        if self.process is not None:
            self.process.kill()


def make(shop, name, back, html, answer, without=False):
    """Begin a paper from the HTML it is set from; InputError where a shop waits for too many already."""
    paper = Paper(shop, name, back, answer, without)
    with _lock:
        _forget()
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


def _forget():
    old = [key for key, one in _papers.items() if one.stopped or (one.future.done() and time.monotonic() - one.asked_at > KEPT_S)]
    done = [key for key, one in _papers.items() if one.future.done()]
    for key in {*old, *done[: max(0, len(_papers) - MOST_KEPT)]}:
        del _papers[key]


def set_apart(paper, html):
    """The bytes of a paper, set by a process that gives way to those that answer."""
    if paper.stopped:
        return b""
    paper.process = subprocess.Popen(
        [sys.executable, "-m", "web.reports.pdf"], stdin=subprocess.PIPE, stdout=subprocess.PIPE, stderr=subprocess.PIPE, cwd=settings.ROOT,
        env={**os.environ, "DJANGO_SETTINGS_MODULE": os.environ.get("DJANGO_SETTINGS_MODULE", "web.settings")},
    )  # fmt: skip
    try:
        content, said = paper.process.communicate(html.encode(), timeout=LONGEST_S)
    except subprocess.TimeoutExpired:
        paper.process.kill()
        paper.process.communicate()
        raise InputError(f"{paper.name} was not made in {LONGEST_S:.0f} s and is given up") from None
    if paper.process.returncode == NO_PANGO:
        raise InputError(said.decode(errors="replace").strip().splitlines()[-1])
    if paper.process.returncode and not paper.stopped:
        raise InputError(f"{paper.name} could not be made: try again")
    return content
