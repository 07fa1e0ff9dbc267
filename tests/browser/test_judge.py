"""The Judge stop in the real interface: a held action, taking it on, what if, why not, a check taken from here."""

import re

from playwright.sync_api import expect

from tests.browser.conftest import ONE_SCREEN, PHONE
from tests.browser.test_story import type_in
from web.logbook.models import Finding, Override, Reading


@PHONE
def test_what_if_why_not_and_what_was_found(open_stop, accessible):
    page = open_stop("Freezer 1", "judge")
    expect(page.locator("#suspect-txv_underfeeding")).to_contain_text("Valve feeding too little")
    accessible(page)
    page.get_by_label("What if", exact=True).select_option("sight_glass")
    page.get_by_label("read", exact=True).select_option("flashing")
    page.get_by_role("button", name="Try it").click()
    expect(page.locator("#then")).to_contain_text("If Sight glass flashing")
    assert not Reading.objects.filter(key="sight_glass", value="flashing", call__unit__name="Freezer 1").exists()
    page.get_by_label("Why not", exact=True).select_option("overcharge")
    page.get_by_role("button", name="Show it").click()
    expect(page.locator("#why-not")).to_contain_text("expected high")
    # Too many defrosts by its program, and a valve that starves it: both.
    page.locator(".suspect-card").first.get_by_role("button", name="This is what it is").click()
    expect(page.locator(".proved")).to_contain_text("Valve feeding too little")
    assert sorted(Finding.objects.filter(call__closed_at=None).get().causes) == ["defrost_too_much", "txv_underfeeding"]
    page.get_by_role("link", name="In plain words").click()
    expect(page.get_by_role("heading", name="What we found")).to_be_visible()


@ONE_SCREEN
def test_a_held_gauge_is_refused_and_taken_on_with_a_reason(open_stop, accessible):
    page = open_stop("Cooler 1", "read")
    type_in(page, "suction_psig", "48")
    expect(page.locator("#tag-suction_psig").get_by_role("alert")).to_contain_text("waits. An iced coil tells nothing")
    page = open_stop("Cooler 1", "judge")
    held = page.locator("#holds .hold", has_text="Connecting gauges").or_(page.locator("#holds .hold", has_text="connecting gauges")).first
    held.get_by_text("Do it all the same").click()
    held.get_by_label("What").select_option("gauges")
    held.get_by_label(re.compile("Reason")).fill("checking the hoses only")
    accessible(page)
    held.get_by_role("button", name="Take it on").click()
    expect(page.locator("#holds")).to_contain_text("checking the hoses only")
    assert Override.objects.get(call__unit__name="Cooler 1").action == "gauges"
    page = open_stop("Cooler 1", "read")
    type_in(page, "suction_psig", "48")
    expect(page.locator("#tag-suction_psig").get_by_role("alert")).to_have_count(0)
    assert Reading.objects.filter(key="suction_psig", value=48.0).exists()
