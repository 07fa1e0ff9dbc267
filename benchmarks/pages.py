"""Speed of the screens, as shares of what is wanted: an entry in 150 ms, a page in 200 ms. Uses demo data of its own.

Run with the test requirements installed: python -m benchmarks.pages
"""

import os
import tempfile

os.environ["DJANGO_SETTINGS_MODULE"] = "web.settings"
os.environ["KETTLE_DATA"] = tempfile.mkdtemp()

import django

django.setup()

from django.conf import settings
from django.contrib.auth import get_user_model
from django.core.management import call_command
from django.test import Client

from benchmarks.timing import median
from web.logbook.models import Call

ENTRY_S, PAGE_S = 0.150, 0.200


def main():
    """Print each screen's median and its share of what is wanted."""
    call_command("demo", "--no-serve")
    settings.ALLOWED_HOSTS = ["testserver"]
    client = Client()
    client.force_login(get_user_model().objects.get(username="wren"))
    at = f"/calls/{Call.objects.get(unit__name='Freezer 1', closed_at=None).number}"
    entry = {"suction_psig": "10.7", "stop": "read"}
    acts = {"entry": (lambda: client.post(f"{at}/entry/suction_psig/", entry, headers={"HX-Request": "true"}), ENTRY_S)}
    said = {"door": "gasket_gap", "stop": "arrive", "view": "part", "picture": "yes", "shown": "door"}
    acts["said on the picture"] = (lambda: client.post(f"{at}/entry/door/", said, headers={"HX-Request": "true"}), ENTRY_S)
    left = {"starts": "02:00 10:00 18:00", "fail_safe_min": "30", "termination_f": "55", "act": "nudge", "place": "1", "by": "1"}
    acts["program moved"] = (lambda: client.post(f"{at}/program/try/", left, headers={"HX-Request": "true"}), ENTRY_S)
    stops = ("arrive", "read", "sets", "probes", "programs", "watch", "controller", "power", "judge", "correct", "valve",
             "charge", "controls", "hand-over", "report")  # fmt: skip
    for page in ("/", "/units/1/", "/units/1/bands/", "/ladder/", "/ladder/card/", *(f"{at}/{stop}/" for stop in stops)):
        acts[page] = (lambda page=page: client.get(page), PAGE_S)
    for name, (act, wanted) in acts.items():
        seconds = median(act)
        print(f"{name:24} {seconds * 1e3:6.1f} ms  {seconds / wanted:.2f} of what is wanted")


if __name__ == "__main__":
    main()
