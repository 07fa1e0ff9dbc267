"""Long work: one kept queue, worked off by the server itself (SQLite) until a broker does.

A row of the database says what is asked for, how far it is and whether somebody stopped it; the queue only says whose turn it is. So
what a restart cut off is asked for again from the rows (`begin_again`), and an update of the program finds nothing it cannot read.
"""

from collections.abc import Callable, Iterable

from django.conf import settings
from huey import SqliteHuey
from huey.consumer import Consumer

# So much is worked on at once: a log takes up to 200 MB, a plan one processor.
WORKERS = 3
# Whose turn comes first.
SOON, LATER = 10, 0
# Looked for so often at rest, s: a plan asked for begins within it.
LOOKS_S = 0.2

queue = SqliteHuey("kettle", filename=str(settings.DATA / "queue.sqlite3"), results=False)
_unfinished: list[tuple[Callable, Callable[[], Iterable[int]]]] = []


class _Inside(Consumer):
    """The workers of the queue inside the server, which ends on signals of its own."""

    def _set_signal_handlers(self):
        pass


def again_after_a_restart(task, numbers):
    """Have a task begun again at each start for the rows that `numbers` then tells as unfinished."""
    _unfinished.append((task, numbers))


def begin_again():
    """Put what is unfinished on the queue, and nothing else: only this process works on this data."""
    queue.flush()
    for task, numbers in _unfinished:
        for number in numbers():
            task(number)


def begin():
    """Work the queue off in the background; return what ends it."""
    workers = _Inside(queue, workers=WORKERS, periodic=False, initial_delay=0.1, max_delay=LOOKS_S, check_worker_health=False)
    workers.start()
    return workers.stop
