"""The worked examples of docs/adding.md are run as they stand there, each in a process of its own."""

import re
import subprocess
import sys
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[2]
PAGE = (ROOT / "docs" / "adding.md").read_text()
BLOCK = re.compile(r"^```(python|html) (\w+)(?: (\S+))?\n(.*?)^```$", re.M | re.S)
BLOCKS = [found.groups() for found in BLOCK.finditer(PAGE)]
# The bench as it would stand in the checkout, opened as a person of a shop would; the lists it has to be named in are told it here.
OPENED = """
import sys
import kettle.benches, web.benches
kettle.benches.__path__.append(sys.argv[1] + "/kettle/benches"); web.benches.__path__.append(sys.argv[1] + "/web/benches")
from django.conf import settings
settings.INSTALLED_APPS.append("web.benches.doors"); settings.ALLOWED_HOSTS = ["testserver"]
settings.DATABASES["default"]["NAME"] = ":memory:"
import django; django.setup()
from django.core.management import call_command; call_command("migrate", verbosity=0)
from django.urls import clear_url_caches, include, path
from web.benches import urls
urls.urlpatterns.append(path("calls/<int:number>/", include("web.benches.doors.urls"))); clear_url_caches()
from django.contrib.auth import get_user_model
from django.test import Client
from web.accounts.models import Member, Shop
from web.logbook.actions.open_call import open_call
from web.logbook.models import Unit
shop = Shop.objects.create(name="Larch Hollow Cooling")
user = get_user_model().objects.create_user("ansel"); Member.objects.create(user=user, shop=shop)
call = open_call(user, Unit.objects.create(shop=shop, name="Freezer 9", kind="walk_in_freezer", refrigerant="R-404A"), "Iced up.")
client = Client(); client.force_login(user)
assert client.get(f"/calls/{call.number}/doors/").content == b"192"
assert "192 openings fill this coil." in client.get(f"/calls/{call.number}/correct/").content.decode()
"""


def run(script, *arguments):
    environment = {"PYTHONPATH": str(ROOT), "DJANGO_SETTINGS_MODULE": "web.settings", "PATH": ""}
    done = subprocess.run([sys.executable, "-c", script, *arguments], cwd=ROOT, env=environment, capture_output=True, text=True)
    assert done.returncode == 0, done.stderr[-800:]


@pytest.mark.parametrize("example", ["kind", "refrigerant"])
def test_an_example_runs(example):
    blocks = [text for _, of, _, text in BLOCKS if of == example]
    assert blocks and "assert" in blocks[-1]
    run("\n".join(blocks))


def test_a_bench_stands_where_the_page_says(tmp_path):
    files = {path: text for _, of, path, text in BLOCKS if of == "bench"}
    assert len(files) == 6
    for path, text in files.items():
        (tmp_path / path).parent.mkdir(parents=True, exist_ok=True)
        (tmp_path / path).write_text(text)
    run(f"import os; os.environ['KETTLE_DATA'] = {str(tmp_path)!r}\n{OPENED}", str(tmp_path))
