"""A hidden fault of the wiring found on the drawing: by mouse, by keyboard, and by the proposals alone."""

import pytest
from playwright.sync_api import expect

from kettle.electrical.faults import Fault
from kettle.electrical.solve import solve
from kettle.electrical.start_gear import usual
from tests.browser.conftest import ONE_SCREEN, PHONE
from web.logbook.actions.record_reading import record_reading
from web.logbook.models import Call, Measurement

AT_MOST = 8


def hidden(part, contactor):
    """Freezer 1 with a fault in its wiring: its compressor stands; what a meter shows there."""
    call = Call.objects.get(unit__name="Freezer 1", closed_at=None)
    for key, word in (("compressor", "humming" if contactor == "in" else "off"), ("contactor", contactor), ("control_call", "calling")):
        record_reading(call.opened_by, call, key, word)
    return solve(call.unit.circuit(), "calling", (Fault(part, "open"),))


def shows(solved, what, one, other):
    value = solved.through(one) if what == "amps" else solved.between(one, other)
    return f"{float(value[0]):.1f}"


def by_mouse(page, one, other):
    for point in (one, other):
        page.locator(f'[data-point="{point}"]').click()


def by_keyboard(page, one, other):
    for point in (one, other):
        page.locator(f'[data-point="{point}"]').focus()
        page.keyboard.press("Enter")


@PHONE
@pytest.mark.parametrize(("put", "part", "pair"), [(by_mouse, "lp_switch", ("K1", "K3")), (by_keyboard, "stat", ("K1", "K2"))])
def test_line_volts_over_a_switch_find_it(open_stop, accessible, put, part, pair):
    solved = hidden(part, "out")
    page = open_stop("Freezer 1", "power")
    accessible(page)
    put(page, *pair)
    assert page.locator("#one").input_value() == pair[0] and page.locator("#other").input_value() == pair[1]
    page.locator("#value").fill(shows(solved, "volts", *pair))
    page.get_by_role("button", name="Keep it").click()
    expect(page.locator(".measured")).to_contain_text(f"{pair[0]} to {pair[1]}")
    kept = Measurement.objects.get(call__closed_at=None)
    assert (kept.one, kept.other, kept.state) == (*pair, "calling") and kept.value > 200
    expect(page.locator(".suspected li").first).to_contain_text({"lp_switch": "Low-pressure switch: open", "stat": "output"}[part])


@ONE_SCREEN
def test_the_proposals_alone_lead_to_a_burnt_lead(open_stop):
    solved = hidden("lead_2", "in")
    page = open_stop("Freezer 1", "power")
    for _ in range(AT_MOST):
        lead = page.locator(".lead").first
        if "Compressor lead 2" in page.locator(".suspected li").first.inner_text() or not lead.is_visible():
            break
        what, one, other = (lead.get_attribute(f"data-{name}") or "" for name in ("what", "one", "other"))
        lead.click()
        page.locator("#value").fill(shows(solved, what, one, other))
        page.get_by_role("button", name="Keep it").click()
        page.wait_for_load_state()
    expect(page.locator(".suspected li").first).to_contain_text("Compressor lead 2")


@PHONE
def test_what_cannot_be_stands_beside_the_field_and_stays(open_stop):
    page = open_stop("Freezer 1", "power")
    by_mouse(page, "L1", "K1")
    page.locator("#value").fill("2300")
    page.get_by_role("button", name="Keep it").click()
    expect(page.locator("#measure-error")).to_contain_text("outside 0 to 1000 V")
    expect(page.locator("#value")).to_have_value("2300")
    expect(page.locator("#one")).to_have_value("L1")


@ONE_SCREEN
def test_a_part_that_is_not_there_is_tapped_away_and_stays_away(open_stop, accessible):
    page = open_stop("Freezer 1", "power")
    page.locator("a.wired", has_text="LP").click()
    expect(page.locator("#part-title")).to_have_text("Low-pressure switch")
    accessible(page)
    page.get_by_role("button", name="Not on this unit").click()
    expect(page.locator("a.wired", has_text="LP")).to_have_count(0)
    page.locator("#circuit > summary").click()
    expect(page.locator("#circuit")).to_contain_text("No low-pressure switch")
    page.get_by_role("button", name="It has one").click()
    expect(page.locator("a.wired", has_text="LP")).to_have_count(1)


@PHONE
def test_start_gear_is_wired_by_tapping_and_by_keys_and_the_wrong_wire_is_said(open_stop, accessible):
    page = open_stop("Reach-in 2", "power")
    page.locator("#start-gear > summary").click()
    side = page.locator("[data-start-side]").first
    for n, (one, other) in enumerate([*usual("potential")[:-1], ("SC2", "2")]):
        for end in (one, other):
            terminal = side.locator(f'[data-terminal="{end}"]')
            if n % 2:
                terminal.focus()
                page.keyboard.press("Enter")
            else:
                terminal.click()
    expect(side.locator("[data-start-list] li")).to_have_count(8)
    side.get_by_role("button", name="Keep these wires").click()
    expect(page.locator("#start-gear")).to_contain_text("goes round the relay's contact")
    accessible(page)
    side.get_by_role("button", name="Pull off").last.click()
    expect(side.locator("[data-start-list] li")).to_have_count(7)
    page.get_by_role("link", name="Sheet of labels to print").click()
    expect(page.locator(".labels li")).to_have_count(8)
    accessible(page)


@ONE_SCREEN
def test_a_jumper_put_down_holds_the_close_until_it_is_gone(open_stop):
    page = open_stop("Freezer 1", "power")
    page.locator("#placed > summary").click()
    page.locator("#placed").get_by_label("Where").fill("K3 to K4")
    page.get_by_role("button", name="Put it on record").click()
    expect(page.locator("#placed")).to_contain_text("Jumper: K3 to K4")
    page = open_stop("Freezer 1", "hand-over")
    expect(page.locator("main")).to_contain_text("Still there: jumper for now: K3 to K4")
    page.get_by_role("button", name="Gone").click()
    expect(page.get_by_text("Still there: jumper")).to_have_count(0)
