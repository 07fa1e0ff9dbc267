"""The practice yard as a learner uses it: a lesson from its story to its debrief by keys and by touch; learner and teacher side by side."""

import json
import re

import pytest
from django.test import Client
from playwright.sync_api import expect

from tests.browser.conftest import ONE_SCREEN, SCREENS, set_in, tap
from web.yard.models import Practice


@pytest.fixture
def learner(logged_in, live_server):
    """Begin a lesson: learner("fan-dead"); the page stands on Arrive."""

    def begin(code, press):
        logged_in.goto(f"{live_server.url}/yard/lessons/")
        press(logged_in.locator(f"[data-lesson-line={code}]"))
        expect(logged_in.get_by_text("To be shown")).to_be_visible()
        press(logged_in.get_by_role("button", name="Begin"))
        expect(logged_in.locator(".yard-mark")).to_contain_text("PRACTICE")
        return logged_in

    return begin


def by_key(locator):
    """Press what has the focus, as somebody without a mouse does."""
    locator.press("Enter")


def by_touch(locator):
    """Tap it."""
    locator.click()


def take(page, key, press):
    with page.expect_response(re.compile(f"/entry/{key}/")):
        press(page.locator(f"#in-{key}").first)


def close_sheet(page):
    page.locator("[data-close-sheet]").click()


def test_a_lesson_from_its_story_to_its_debrief(learner, screen, accessible):
    press = by_key if screen == "tablet" else by_touch
    page = learner("fan-dead", press)
    expect(page.locator(".yard-mark")).to_contain_text("not a real unit")
    sheet = tap(page, "evap_fan")
    press(sheet.get_by_role("button", name=re.compile("^Take Coil fans ")))
    expect(sheet.locator("#look-evap_fans")).to_contain_text("stopped")
    press(sheet.get_by_role("button", name="Fan replaced", exact=True))
    expect(page.locator(".notice.error")).to_contain_text("lock it out first")
    sheet = tap(page, "evap_fan")
    take(page, "evap_fan_supply_v", press)
    expect(page.locator("#look-evap_fan_supply_v")).to_contain_text("V")
    accessible(page)
    close_sheet(page)
    set_in(page, tap(page, "supply"), "power_locked_out", "yes")
    close_sheet(page)
    sheet = tap(page, "evap_fan")
    press(sheet.get_by_role("button", name="Fan replaced", exact=True))
    expect(page.locator(".notice")).to_contain_text("Fan replaced: kept")
    expect(page.locator(".yard-clock")).to_contain_text("min in")
    press(page.locator("summary", has_text="Lesson"))
    expect(page.locator(".yard-sheet:visible")).to_contain_text("● Take: coil fans")
    press(page.locator("summary", has_text="Name it"))
    page.get_by_label("It was", exact=True).select_option("evap_fan_failed")
    press(page.get_by_role("button", name="That is what it was"))
    expect(page.get_by_text("● That is what it was")).to_be_visible()
    expect(page.locator("main")).to_contain_text("Stopped:")
    accessible(page)
    kept = json.loads(page.evaluate("Object.entries(localStorage).find(([name]) => name.startsWith('yard-progress'))[1]"))
    told = kept["done"][str(Practice.objects.get().pk)]
    assert told["causes"] == {"evap_fan_failed": 1} and told["lesson"] == "fan-dead" and told["skills"]["safe"] == 0
    press(page.get_by_role("link", name="Step by step"))
    expect(page.locator("header h1").first).to_contain_text("Step 1 of")
    press(page.get_by_role("link", name="Next"))
    expect(page.locator("header h1").first).to_contain_text("Step 2 of")
    press(page.get_by_role("link", name="How it went"))
    press(page.get_by_role("link", name="Another round"))
    page.wait_for_url(re.compile("/yard/$"))
    page.goto(re.sub("/yard/.*", "/yard/lessons/", page.url))
    expect(page.locator("[data-lesson-line=fan-dead]")).to_contain_text("◐ tried")
    expect(page.locator("[data-own-progress]")).to_contain_text("Coil fan failed")
    expect(page.locator("[data-own-progress]")).to_contain_text("1 of 1")


@ONE_SCREEN
def test_learner_and_teacher_in_two_windows(learner, browser, live_server, django_user_model, complaints):
    page = learner("pole-open", by_touch)
    practice = Practice.objects.get()
    client = Client()
    client.force_login(django_user_model.objects.get(username="tobin"))
    other = browser.new_context(viewport=SCREENS["tablet"])
    other.add_cookies([{"name": "sessionid", "value": client.cookies["sessionid"].value, "url": live_server.url}])
    teacher = other.new_page()
    teacher.on("console", lambda message: complaints.append(message.text) if message.type in ("error", "warning") else None)
    teacher.goto(f"{live_server.url}/yard/")
    teacher.get_by_label("Its word").fill(practice.key.lower())
    teacher.get_by_role("button", name="Teach: watch and ask").click()
    expect(teacher.locator("#teach-live")).to_contain_text("Contactor pole burnt open")
    page.goto(f"{live_server.url}/practice/{practice.pk}/calls/{practice.call.number}/read/")
    take(page, "compressor", by_touch)
    expect(page.locator("#tag-compressor")).to_contain_text("humming")
    expect(teacher.locator(".yard-path")).to_contain_text("humming")
    teacher.get_by_label("Ask", exact=True).fill("What do you expect here?")
    teacher.get_by_label("at", exact=True).select_option("contactor")
    teacher.get_by_role("button", name="Ask it").click()
    expect(page.locator(".yard-question")).to_contain_text("Tobin asks at contactor: What do you expect here?")
    page.get_by_label("Your answer").fill("pulled in")
    page.get_by_role("button", name="Answer").click()
    expect(teacher.locator(".yard-path")).to_contain_text("pulled in")
    teacher.get_by_role("button", name="Hold time").click()
    expect(page.locator("#yard-live")).to_contain_text("Time is held")
    teacher.get_by_role("button", name="Let time go on").click()
    expect(page.locator("#yard-live")).not_to_contain_text("Time is held")
    teacher.get_by_label("Put another fault in").select_option("condenser_dirty")
    teacher.get_by_role("button", name="Put it in").click()
    expect(teacher.locator("#teach-live")).to_contain_text("Condenser dirty")
    take(page, "condenser_coil", by_touch)
    expect(page.locator("#tag-condenser_coil")).to_contain_text("blocked")
    other.close()


@ONE_SCREEN
def test_probes_are_watched_and_stopped(learner):
    page = learner("bulb-loose", by_touch)
    page.get_by_text("Unit", exact=True).click()
    page.get_by_role("button", name="Put probes on").click()
    clock = page.locator("#yard-clock")
    expect(clock).to_contain_text("5 min in")
    page.get_by_role("button", name="Watch").click()
    expect(clock).to_contain_text("8 min in")
    page.get_by_role("button", name="Stop watching").click()
    expect(page.get_by_role("button", name="Watch")).to_contain_text("a minute each second")
    stands = clock.inner_text()
    # Two more would have come meanwhile.
    page.wait_for_timeout(2500)
    assert clock.inner_text() == stands


@ONE_SCREEN
def test_a_drawing_moves_with_the_model(logged_in, live_server, accessible):
    page = logged_in
    page.goto(f"{live_server.url}/yard/how/defrost/")
    first = page.locator("[data-figure='1']").inner_text()
    page.locator("[data-at]").fill("40")
    expect(page.locator("[data-state]")).to_have_text("in defrost")
    assert page.locator("[data-figure='1']").inner_text() != first
    accessible(page)
    page.get_by_role("button", name="Play").click()
    expect(page.get_by_role("button", name="Stop")).to_be_visible()
    expect(page.locator("[data-minute]")).not_to_have_text("20 min")
    page.get_by_role("button", name="Stop").click()
    expect(page.get_by_role("button", name="Play")).to_be_visible()


@pytest.mark.parametrize("path", ["/yard/", "/yard/lessons/iced-all-over/", "/yard/scenarios/", "/yard/scenarios/new/"])
def test_the_yards_own_pages_fit_and_are_accessible(logged_in, live_server, accessible, path):
    logged_in.goto(f"{live_server.url}{path}")
    wide = logged_in.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth")
    assert wide <= 0, path
    accessible(logged_in)
