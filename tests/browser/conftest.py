"""The real interface in Debian's Chromium, against a live server on demo data."""

import os
import re
import threading
import time
from contextlib import contextmanager
from pathlib import Path

import pytest
from django.contrib.staticfiles.handlers import StaticFilesHandler
from django.core.signals import request_finished, request_started
from playwright.sync_api import expect

from web.logbook.calls import told_again
from web.logbook.models import Call, Unit

# Playwright's loop runs in this thread; the ORM is only used between its steps.
os.environ.setdefault("DJANGO_ALLOW_ASYNC_UNSAFE", "true")
# A busy machine must not fail a test that would pass with patience.
expect.set_options(timeout=20_000)
CHROMIUM = "/usr/bin/chromium"
# Two pages of the browser's own address bar were loaded for every test's window, 0.7 s of processor each; the rest as Playwright has it.
WITHOUT = (
    "--disable-features=WebUIOmniboxPopup,WebUIOmniboxAimPopup,AvoidUnnecessaryBeforeUnloadCheckSync,DestroyProfileOnBrowserClose,"
    "HttpsUpgrades,HttpsFirstBalancedModeAutoEnable,LensOverlay,MediaRouter,PaintHolding,ThirdPartyStoragePartitioning,"
    "AvoidCorsURLLoaderRestartOnRedirect,OptimizationHints,NetworkTimeServiceQuerying,AimEnabled,PreconnectToSearch"
)
AXE = Path(__file__).parent / "vendor" / "axe.min.js"
# For what does not depend on the size of the screen, and for long stories (test_screens.py holds every page at both sizes): one in place of
# both.
ONE_SCREEN = pytest.mark.parametrize("screen", ["tablet"], indirect=True)
PHONE = pytest.mark.parametrize("screen", ["phone"], indirect=True)
SCREENS = {"tablet": {"width": 1280, "height": 800}, "phone": {"width": 390, "height": 844}}


@pytest.fixture(scope="session")
def browser_type_launch_args():
    return {
        "executable_path": CHROMIUM,
        "args": ["--no-sandbox", "--disable-gpu", "--no-first-run", "--disable-background-networking", "--disable-sync", WITHOUT],
    }


@pytest.fixture(params=SCREENS)
def screen(request):
    return request.param


@pytest.fixture
def browser_context_args(browser_context_args, screen):
    return browser_context_args | {"viewport": SCREENS[screen], "color_scheme": "light"}


@pytest.fixture(scope="session")
def contexts(browser):
    """The browser's windows of this run, one for each size and setting: making one takes longer than many a test."""
    kept = {}
    yield kept
    for context in kept.values():
        context.close()


@pytest.fixture
def context(contexts, browser, browser_context_args):
    """A window as if it were new: no pages, no cookies, online; what its pages kept is cleared as the next page is opened."""
    made_as = repr(sorted(browser_context_args.items()))
    if made_as not in contexts:
        contexts[made_as] = browser.new_context(**browser_context_args)
    context = contexts[made_as]
    yield context
    for page in context.pages:
        page.close()
    context.clear_cookies()
    context.clear_permissions()
    context.set_offline(False)


@pytest.fixture
def page(context, live_server):
    """A page of a window that remembers nothing of this server."""
    page = context.new_page()
    session = context.new_cdp_session(page)
    session.send("Storage.clearDataForOrigin", {"origin": live_server.url, "storageTypes": "all"})
    session.detach()
    return page


@pytest.fixture(scope="session", autouse=True)
def styles_are_kept():
    """Styles, scripts and fonts are kept by the browser between pages, as they are in use; the test's own server asks for each again."""
    served = StaticFilesHandler.serve

    def serve(self, request):
        response = served(self, request)
        response["Cache-Control"] = "max-age=3600"
        return response

    StaticFilesHandler.serve = serve
    yield
    StaticFilesHandler.serve = served


@pytest.fixture(autouse=True)
def told_again_as_in_use(papers_here, settings):
    """What is told is kept for a moment, as in use; rows are written by the application alone here."""
    settings.TOLD_KEPT_S = 15.0
    told_again.forget()


@pytest.fixture
def demo_data(loaded):
    """The demo's data; nothing is simulated here unless a test starts it."""
    Unit.objects.update(probes=None, controller=None)


@contextmanager
def under_way():
    """Count the requests the server works on; yields what waits until there are none."""
    idle, count = threading.Condition(), 0

    def began(**_):
        nonlocal count
        with idle:
            count += 1

    def ended(**_):
        nonlocal count
        with idle:
            count -= 1
            idle.notify_all()

    def none_left(timeout):
        with idle:
            idle.wait_for(lambda: count <= 0, timeout)

    request_started.connect(began)
    request_finished.connect(ended)
    yield none_left
    request_started.disconnect(began)
    request_finished.disconnect(ended)


@pytest.fixture
def complaints():
    """What the console said and what was asked of foreign hosts; empty at the end of a test."""
    return []


@pytest.fixture
def page_watched(page, live_server, complaints):
    """A page whose console and requests are watched; at the end there must be nothing to complain of."""
    page.on("console", lambda message: complaints.append(message.text) if message.type in ("error", "warning") else None)
    page.on("pageerror", lambda error: complaints.append(str(error)))
    own = (live_server.url, "data:")
    page.on("request", lambda request: None if request.url.startswith(own) else complaints.append(f"foreign: {request.url}"))
    with under_way() as none_left:
        yield page
        page.close()
        # What a page left behind it is answered before its data are taken away.
        none_left(timeout=20.0)
    assert complaints == []


@pytest.fixture
def logged_in(page_watched, live_server, demo_data, client, django_user_model):
    """A page of a technician who is logged in to the demo, not yet anywhere."""
    client.force_login(django_user_model.objects.get(username="wren"))
    session = client.cookies["sessionid"].value
    page_watched.context.add_cookies([{"name": "sessionid", "value": session, "url": live_server.url}])
    return page_watched


@pytest.fixture
def app(logged_in, live_server):
    """The Board of the demo, as a technician who is logged in sees it."""
    logged_in.goto(f"{live_server.url}/")
    return logged_in


@pytest.fixture
def open_stop(logged_in, live_server):
    """Open a stop of the open call on a demo unit: open_stop("Freezer 1", "read")."""

    def go(unit, stop):
        number = Call.objects.get(unit__name=unit, closed_at=None).number
        logged_in.goto(f"{live_server.url}/calls/{number}/{stop}/")
        return logged_in

    return go


def tap(page, part):
    """Tap a part on the picture: its sheet opens."""
    drawn = page.locator(f".picture-part[data-part={part}]")
    with page.expect_response(re.compile(f"/parts/{part}/")):
        drawn.locator(".hit").click()
    expect(page.locator("#part-sheet")).to_be_visible()
    return page.locator("#part-sheet")


def set_in(page, sheet, key, value):
    """Say one thing on a sheet: a figure typed, a word or several tapped."""
    words = value if isinstance(value, (list, tuple)) else [value]
    for word in words:
        if isinstance(word, str) and sheet.locator(f"input[name={key}][value={word}]").is_checked():
            continue
        with page.expect_response(re.compile(f"/entry/{key}/")):
            if isinstance(word, str):
                sheet.locator(f"label:has(> input[name={key}][value={word}])").click()
            else:
                sheet.locator(f"input[name={key}]").fill(f"{word:g}" if word < 1e6 else f"{word / 1e6:g} M")
                sheet.locator(f"input[name={key}]").press("Enter")


def until(page, holds):
    """Wait until something holds: what was sent is kept, or asked about."""
    for _ in range(200):
        if holds():
            return
        page.wait_for_timeout(100)
    raise AssertionError("nothing was kept and nothing asked")


@pytest.fixture
def accessible():
    """Assert that axe-core finds nothing on a page, of any level."""

    def check(page):
        # The page's own policy forbids foreign scripts; the checker comes in through the debugger.
        page.evaluate(AXE.read_text())
        found = page.evaluate("axe.run()")
        violations = [(v["id"], v["impact"], [node["html"][:120] for node in v["nodes"]][:3]) for v in found["violations"]]
        assert violations == [], violations

    return check


class Held:
    """Requests of a page that have no answer until they are let go."""

    def __init__(self, page, pattern, patience_s=20.0):
        self.page, self.patience_s, self.requests, self.holds = page, patience_s, [], True
        page.route(pattern, lambda route: self.requests.append(route) if self.holds else route.continue_())

    def let_go(self):
        """Answer the first, once it has been asked: the page may still be about to; what is asked after it is held no more."""
        until = time.monotonic() + self.patience_s
        while not self.requests and time.monotonic() < until:
            self.page.wait_for_timeout(20)
        assert len(self.requests) == 1, "one request waits"
        self.holds = False
        self.requests[0].continue_()
