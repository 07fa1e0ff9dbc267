"""Fifty technicians on one server for a minute: each enters a reading or opens a page every eight seconds, while a crowd idles.

Run with the test requirements installed: python -m benchmarks.load [--people 50] [--seconds 60] [--pace 8]
"""

import argparse
import http.cookiejar
import os
import random
import socket
import statistics
import subprocess
import sys
import tempfile
import threading
import time
import urllib.parse
import urllib.request
from pathlib import Path

ROOT = Path(__file__).parent.parent
WANTED_P95_S = 1.0
IDLE = 100
STOPS = ("arrive", "read", "judge", "programs", "correct")
PASSWORD = "a-long-pass-phrase"
KEYS = {"suction_psig": (6, 14), "box_temp_f": (-6, 8), "suction_line_evap_f": (-10, 0), "ambient_f": (60, 90)}
# A shop with so many people, each with a call of a walk-in freezer that is read; run in a process of its own.
MADE = """
import django; django.setup()
from django.contrib.auth import get_user_model
from web.accounts.models import Member, Shop
from web.logbook.actions.open_call import open_call
from web.logbook.actions.record_reading import record_reading
from web.logbook.models import Site, Unit
shop = Shop.objects.create(name="Load")
site = Site.objects.create(shop=shop, name="Hollow")
for n in range({people}):
    user = get_user_model().objects.create_user(f"tech{{n}}", password="{password}")
    Member.objects.create(user=user, shop=shop)
    unit = Unit.objects.create(shop=shop, site=site, name=f"Room {{n}}", kind="walk_in_freezer", refrigerant="R-404A", set_f=-5)
    call = open_call(user, unit)
    for key, value in {{"box_temp_f": "2", "ambient_f": "78", "suction_psig": "9", "suction_line_evap_f": "-2"}}.items():
        record_reading(user, call, key, value)
"""


def free_port():
    """Return a port nobody listens on."""
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        return free.getsockname()[1]


class Technician(threading.Thread):
    """One person at work at a pace; `took` are the seconds of each answer."""

    def __init__(self, base, number, pace, until):
        super().__init__(daemon=True)
        self.base, self.number, self.pace, self.until, self.took, self.failed = base, number, pace, until, [], 0
        self.jar = http.cookiejar.CookieJar()
        self.browser = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.jar))
        self.chance = random.Random(number)

    def ask(self, path, data=None):
        """One request; its answer, or None where it failed."""
        if data is not None:
            token = next(cookie.value for cookie in self.jar if cookie.name == "csrftoken")
            data = urllib.parse.urlencode({**data, "csrfmiddlewaretoken": token}).encode()
        start = time.perf_counter()
        try:
            with self.browser.open(f"{self.base}{path}", data, timeout=60) as answer:
                answer.read()
        except OSError:
            self.failed += 1
        self.took.append(time.perf_counter() - start)

    def log_in(self):
        """Log in, before the clock runs."""
        self.ask("/login/")
        self.ask("/login/", {"username": f"tech{self.number}", "password": PASSWORD})
        self.took.clear()

    def run(self):
        """Work at the pace until the time is up."""
        time.sleep(self.chance.random() * self.pace)
        at = f"/calls/{201 + self.number}"
        while time.monotonic() < self.until:
            began = time.monotonic()
            turn = self.chance.random()
            if turn < 0.5:
                key = self.chance.choice(list(KEYS))
                self.ask(f"{at}/entry/{key}/", {key: f"{self.chance.uniform(*KEYS[key]):.1f}", "stop": "read"})
            elif turn < 0.9:
                self.ask(f"{at}/{self.chance.choice(STOPS)}/")
            else:
                self.ask("/")
            time.sleep(max(0.0, self.pace - (time.monotonic() - began)))


def main():
    """Print median, p95 and slowest answer, and what failed."""
    parser = argparse.ArgumentParser()
    parser.add_argument("--people", type=int, default=50)
    parser.add_argument("--seconds", type=float, default=60)
    parser.add_argument("--pace", type=float, default=8)
    asked = parser.parse_args()
    with tempfile.TemporaryDirectory() as data:
        environment = {**os.environ, "KETTLE_DATA": data, "DJANGO_SETTINGS_MODULE": "web.settings"}
        how = {"cwd": ROOT, "env": environment, "check": True}
        subprocess.run([sys.executable, "manage.py", "migrate", "--verbosity", "0"], **how)
        subprocess.run([sys.executable, "-c", MADE.format(people=asked.people, password=PASSWORD)], **how)
        port = free_port()
        server = subprocess.Popen(
            [sys.executable, "manage.py", "serve", "--port", str(port)], cwd=ROOT, env=environment, stdout=subprocess.DEVNULL
        )
        try:
            _work(asked, f"http://127.0.0.1:{port}", port)
        finally:
            server.terminate()
            server.wait()


def _work(asked, base, port):
    while True:
        try:
            urllib.request.urlopen(f"{base}/health", timeout=5)
            break
        except OSError:
            time.sleep(0.2)
    crowd = [socket.create_connection(("127.0.0.1", port)) for _ in range(IDLE)]
    people = [Technician(base, number, asked.pace, 0.0) for number in range(asked.people)]
    for person in people:
        person.log_in()
    until = time.monotonic() + asked.seconds
    for person in people:
        person.until = until
        person.start()
    for person in people:
        person.join()
    for idle in crowd:
        idle.close()
    took = sorted(seconds for person in people for seconds in person.took)
    p95 = took[int(0.95 * len(took))]
    print(f"{asked.people} technicians, one act every {asked.pace:g} s, {IDLE} idle connections beside them")
    print(f"{len(took)} answers, {sum(person.failed for person in people)} failed, {len(took) / asked.seconds:.1f} a second")
    print(f"median {statistics.median(took) * 1e3:.0f} ms, p95 {p95 * 1e3:.0f} ms, slowest {took[-1]:.2f} s")
    print(f"p95 is {p95 / WANTED_P95_S:.2f} of what is wanted")


if __name__ == "__main__":
    main()
