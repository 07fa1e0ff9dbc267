from pathlib import Path

import pytest

import tests.examples  # noqa: F401  (how often properties are tried)

TESTS = Path(__file__).parent


@pytest.fixture(autouse=True)
def quick_passwords(settings):
    settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]


@pytest.fixture(autouse=True)
def papers_here(monkeypatch, settings):
    """Papers are set at once and in this process; how they are set apart is tried in the tests of reports."""
    from web import long_work
    from web.reports import papers, pdf

    settings.PAPER_WAIT_S = 60.0
    # Tests write rows without a line of the log; that what is told is never stale is tried by itself, and by the browser.
    settings.TOLD_KEPT_S = 0.0
    # Long work is done where it is asked for, inside the test's transaction.
    monkeypatch.setattr(long_work.queue, "immediate", True)
    monkeypatch.setattr(papers, "set_apart", lambda paper, html: pdf.render_pdf(html))


# Files that took longest of all (pytest --durations=0): begun first, so that no process is left with one of them alone at the end.
LONGEST = (
    "web/attack/test_running.py", "browser/test_course.py", "web/test_upgrades.py", "browser/test_screens.py", "browser/test_picture.py",
    "browser/test_readings.py", "browser/test_quote.py", "web/reports/test_report.py", "browser/test_power.py", "browser/test_ice.py",
    "browser/test_prove.py", "browser/test_yard.py", "web/yard/test_answers.py", "web/round/test_stories.py", "browser/test_story.py",
    "web/test_setup.py", "browser/test_programs.py",
)  # fmt: skip


def pytest_collection_modifyitems(items):
    """Put the longest files first, everything else as it is."""
    order = {name: place for place, name in enumerate(LONGEST)}
    items.sort(key=lambda item: order.get(str(item.path.relative_to(TESTS)), len(LONGEST)))


@pytest.fixture
def stand_in(db):
    """The simulated case controller on a port of its own, as the controller of every unit there is."""
    from devices.controller import serve_in_background
    from web.accounts.models import Shop
    from web.logbook.models import Device, Unit

    server = serve_in_background()
    for shop in Shop.objects.all():
        name, address = "Test controller", f"127.0.0.1:{server.port}"
        device, _ = Device.objects.update_or_create(shop=shop, name=name, defaults={"kind": "controller", "address": address})
        Unit.objects.filter(shop=shop).update(controller=device)
    yield server
    server.stop()


@pytest.fixture(scope="session")
def django_db_modify_db_settings(django_db_modify_db_settings_parallel_suffix, tmp_path_factory):
    """A database in a file, as in use: in memory the server and the test would share one connection, and its locks."""
    from django.conf import settings

    settings.DATABASES["default"]["TEST"]["NAME"] = str(tmp_path_factory.mktemp("database") / "test.sqlite3")


def pytest_addoption(parser):
    """`--golden` writes the golden write-ups anew, to be read line by line before they are kept."""
    parser.addoption("--golden", action="store_true", default=False)


@pytest.fixture
def loaded(transactional_db, tmp_path_factory):
    """The demo's data."""
    from tests.shared_demo import bring

    bring(tmp_path_factory)
