"""Defrost programs in the browser: kept, moved on the dial, planned, watched, read from the controller and written back."""

import re

from playwright.sync_api import expect

from tests.browser.conftest import ONE_SCREEN, PHONE
from web.logbook.models import ControllerTalk, DefrostProgram, DefrostWatch, Reading


@ONE_SCREEN
def test_a_defrost_program_as_found_and_as_left_on_the_day(open_stop, accessible):
    page = open_stop("Flower cooler", "programs")
    page.get_by_label("Starts found").fill("6 a day")
    page.get_by_label("Fail-safe as found").fill("999")
    page.get_by_role("button", name="Keep as found").click()
    expect(page.locator(".roles").get_by_role("alert")).to_contain_text("outside 1 to 240 min")
    expect(page.get_by_label("Starts found")).to_have_value("6 a day")
    page.get_by_label("Fail-safe as found").fill("40")
    page.get_by_role("button", name="Keep as found").click()
    expect(page.locator(".dial")).to_have_attribute("aria-label", re.compile("defrost 04:00, 40 min at most"))
    page.get_by_label("Starts left").fill("01:00 13:00")
    page.get_by_label("Fail-safe as left").fill("30")
    page.get_by_label("Why", exact=True).fill("clear after 22 min")
    page.get_by_role("button", name="Keep as left").click()
    expect(page.locator(".dial")).to_have_attribute("aria-label", re.compile("as found 04:00"))
    accessible(page)


@ONE_SCREEN
def test_a_program_is_read_planned_written_back_and_proved(open_stop, stand_in, accessible):
    DefrostProgram.objects.filter(call__unit__name="Freezer 1").delete()
    page = open_stop("Freezer 1", "programs")
    page.get_by_role("link", name="Read from controller").click()
    expect(page.locator("#controller-live")).to_contain_text("Coil probe")
    page.get_by_role("button", name="Read all settings").click()
    expect(page.get_by_label("Settings as read")).to_contain_text("85 °F")
    expect(page.locator("#controller-live")).to_contain_text("Coil probe")
    accessible(page)
    page.get_by_role("button", name="Keep the program as found").click()
    expect(page.get_by_label("Fail-safe as found")).to_have_value("45")

    page.get_by_label("whole hours only").check()
    page.get_by_role("button", name="Plan a week ahead").click()
    page.reload()
    best = page.locator(".plan-table tr.best").first
    expect(best).to_be_visible()
    expect(page.locator("#plan")).to_contain_text("less heat into the box than as found")
    accessible(page)
    best.get_by_role("link", name="Take").click()
    expect(page.get_by_label("Why", exact=True)).to_have_value(re.compile("^planned: "))
    planned = page.get_by_label("Fail-safe as left").input_value()
    page.get_by_role("button", name="Keep as left").click()

    page.get_by_role("link", name="Controller").click()
    page.get_by_role("button", name="Put it in service mode").click()
    page.get_by_role("button", name="Write as left and read back").click()
    written = page.get_by_label("Written")
    expect(written).to_contain_text("confirmed")
    expect(written).not_to_contain_text("kept its own value")
    expect(page.get_by_role("status")).to_contain_text("confirmed")
    assert stand_in.controller.settings["fail_safe_min"] == float(planned)
    page.get_by_role("button", name="Leave service mode").click()
    expect(page.get_by_text("It is in service mode")).to_have_count(0)
    assert ControllerTalk.objects.last().settings["service_mode"] == 0


@ONE_SCREEN
def test_a_lost_controller_is_said_and_nothing_counts_as_written(open_stop, stand_in):
    page = open_stop("Freezer 1", "controller")
    page.get_by_role("button", name="Read all settings").click()
    page.get_by_role("button", name="Put it in service mode").click()
    stand_in.stop()
    page.get_by_role("button", name="Write as left and read back").click()
    expect(page.get_by_role("status")).to_contain_text("Nothing counts as written")
    expect(page.get_by_label("Written")).to_contain_text("not known")
    expect(page.locator("#controller-live")).to_contain_text("Lost")


@ONE_SCREEN
def test_defrosts_are_moved_stretched_added_and_taken_out_by_hand_and_key(open_stop):
    page = open_stop("Freezer 1", "programs")
    starts, fail_safe = page.get_by_label("Starts left"), page.get_by_label("Fail-safe as left")
    expect(page.locator(".dial-figures")).to_contain_text("frost at worst")
    expect(starts).to_have_value("00:00 05:00 12:00 19:00")
    page.locator(".arc").nth(1).focus()
    page.keyboard.press("ArrowRight")
    expect(starts).to_have_value("00:00 05:05 12:00 19:00")
    expect(page.locator(".arc").nth(1)).to_be_focused()
    page.keyboard.press("+")
    expect(fail_safe).to_have_value("31")
    page.keyboard.press("Delete")
    expect(starts).to_have_value("00:00 12:00 19:00")
    page.get_by_role("button", name="Add a start").click()
    expect(starts).to_have_value("00:00 06:00 12:00 19:00")

    # Noon, at the foot, is drawn round to eighteen, at the left.
    noon, dial = page.locator(".arc .mark-heat").nth(2).bounding_box(), page.locator("svg.dial").bounding_box()
    x, y = noon["x"] + noon["width"] / 2, noon["y"] + noon["height"] / 2
    middle_x, middle_y = dial["x"] + dial["width"] / 2, dial["y"] + dial["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(middle_x - (y - middle_y), middle_y + (x - middle_x), steps=6)
    page.mouse.up()
    expect(starts).to_have_value("00:00 06:00 18:00 19:00")
    grip = page.locator(".arc .grip circle").nth(1).bounding_box()
    page.mouse.move(grip["x"] + grip["width"] / 2, grip["y"] + grip["height"] / 2)
    page.mouse.down()
    page.mouse.move(middle_x + dial["width"] / 4, middle_y - dial["width"] / 4, steps=6)
    page.mouse.up()
    expect(fail_safe).not_to_have_value("31")
    assert DefrostProgram.objects.filter(call__unit__name="Freezer 1").count() == 2


@ONE_SCREEN
def test_a_plan_under_way_can_be_stopped(open_stop, monkeypatch):
    monkeypatch.setattr("web.benches.defrost.planning.work", lambda pk: None)
    page = open_stop("Freezer 1", "programs")
    page.get_by_role("button", name="Plan a week ahead").click()
    expect(page.get_by_role("progressbar")).to_be_visible()
    page.get_by_role("button", name="Stop").click()
    expect(page.get_by_role("progressbar")).to_have_count(0)
    expect(page.get_by_role("button", name="Plan a week ahead")).to_be_visible()


@PHONE
def test_a_defrost_is_watched_to_its_end(open_stop, accessible):
    page = open_stop("Freezer 1", "watch")
    page.get_by_role("button", name="start the clock").click()
    expect(page.locator("#watch-line")).to_contain_text("expected")
    page.get_by_role("button", name="First drip now").click()
    expect(page.locator("#watch-line")).to_contain_text("● 0 min")
    accessible(page)
    page.get_by_role("button", name="It ended now").click()
    expect(page.get_by_role("alert").first).to_contain_text("Say it")
    for key, value in {"heater_volts": "230", "heater_amps": "13", "heater_rated_w": "5200"}.items():
        with page.expect_response(re.compile(f"/entry/{key}/")):
            page.locator(f"#work .form-grid [name={key}]").fill(value)
            page.keyboard.press("Tab")
    expect(page.locator("#heater-share")).to_contain_text("100 %")
    page.locator("label.chip", has_text="temperature").click()
    page.locator("label.chip", has_text="clear").click()
    page.get_by_role("button", name="It ended now").click()
    expect(page.get_by_role("status")).to_contain_text("watched defrost is kept")
    assert DefrostWatch.objects.get().coil_after == "clear"
    assert Reading.objects.filter(key="heater_amps", undone_at=None, call__closed_at=None).count() == 1
