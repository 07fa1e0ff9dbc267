"""The picture of the unit under mouse, finger and keys, at every size it is made for; and a new unit by picture."""

import pytest
from playwright.sync_api import expect

from kettle.knowledge.equipment import KINDS, builds_of
from tests.browser.conftest import ONE_SCREEN, PHONE, Held, set_in, tap, until
from web.logbook.models import Call, Unit

SIZES = [(1280, 800), (1024, 768), (390, 844), (844, 390)]
GLOVE_PX = 44
# Of each part: what is hit in its middle, how large it is, and whether it is on the page.
MEASURE = """() => [...document.querySelectorAll('.picture-part')].map((part) => {
  const hit = part.querySelector('.hit').getBoundingClientRect();
  return {part: part.dataset.part, width: hit.width, height: hit.height, left: hit.left, right: hit.right};
})"""

# What is tapped and smaller than a wet glove hits.
SMALL = """() => [...document.querySelectorAll('main .btn, main .chips label, main .hit, .reading')]
  .filter((one) => one.getClientRects().length && one.getBoundingClientRect().height < 63.5)
  .map((one) => one.outerHTML.slice(0, 90))"""


@ONE_SCREEN
@pytest.mark.parametrize("kind", KINDS)
def test_every_kind_can_be_worked_at_every_size(open_stop, kind):
    for build in builds_of(kind):
        Unit.objects.filter(name="Cooler 1").update(kind=kind, build=build.code, metering="", receiver=None, condensing="", defrost="")
        page = open_stop("Cooler 1", "arrive")
        for width, height in SIZES:
            page.set_viewport_size({"width": width, "height": height})
            parts = page.evaluate(MEASURE)
            assert len(parts) > 20
            assert all(one["width"] >= GLOVE_PX and one["height"] >= GLOVE_PX for one in parts), (build, width, parts)
            assert all(one["left"] >= 0 and one["right"] <= width for one in parts), (build, width)
            assert page.evaluate("document.documentElement.scrollWidth <= document.documentElement.clientWidth")
    # By key, by finger, by mouse: each opens the sheet of what was meant.
    page.set_viewport_size({"width": 1280, "height": 800})
    page.locator(".picture-part[data-part=door]").focus()
    page.keyboard.press("Enter")
    expect(page.locator("#sheet-title")).to_have_text("Door")
    page.keyboard.press("Escape")
    expect(page.locator(".picture-part[data-part=door]")).to_be_focused()
    page.locator(".picture-part[data-part=compressor] .hit").dispatch_event("click")
    expect(page.locator("#sheet-title")).to_have_text("Compressor")
    tap(page, "condenser")
    expect(page.locator("#sheet-title")).to_have_text("Condenser")


def test_what_is_said_is_drawn_at_once_beside_the_sheet(open_stop, screen):
    page = open_stop("Freezer 1", "arrive")
    sheet = tap(page, "door")
    set_in(page, sheet, "door", "gasket_gap")
    expect(page.locator("#picture text", has_text="gasket gap")).to_be_attached()
    expect(page.locator(".picture-part[data-part=door]")).to_have_attribute("aria-label", "Door: Door gasket gap")
    expect(page.locator(".picture-part[data-part=door]")).to_have_attribute("aria-current", "true")
    sheet.get_by_role("button", name="Gasket replaced").click()
    expect(page.locator(".notice")).to_contain_text("Gasket replaced: kept")
    expect(page.locator("#sheet-title")).to_have_text("Door")
    if screen == "phone":
        box = page.locator("#part-sheet").bounding_box()
        assert box["y"] + box["height"] == 844, "what was tapped comes up from below, in reach of a thumb"


@PHONE
def test_an_answer_that_comes_late_stays_off_another_sheet(open_stop):
    """The console is watched: an answer without its sheet must not be an error either."""
    page = open_stop("Freezer 1", "arrive")
    sheet = tap(page, "door")
    held = Held(page, "**/entry/**")
    sheet.locator("label:has(> input[name=door][value=gasket_gap])").click()
    page.keyboard.press("Escape")
    tap(page, "compressor")
    held.let_go()
    expect(page.locator("#picture text", has_text="gasket gap")).to_be_attached()
    expect(page.locator("#sheet-title")).to_have_text("Compressor")
    expect(page.locator("#part-sheet [id^=more-looks]")).to_have_count(1)
    expect(page.locator("#part-sheet").get_by_text("gasket", exact=False)).to_have_count(0)


@PHONE
@pytest.mark.parametrize("lasts", [False, True])
def test_a_tap_before_the_answer_to_the_last_one_is_kept_one_that_lasts_until_it_too(open_stop, lasts):
    page = open_stop("Cooler 1", "arrive")
    call = Call.objects.get(unit__name="Cooler 1", closed_at=None)
    sheet = tap(page, "coil")
    held = Held(page, "**/entry/ice_places/")
    first, second = (sheet.locator(f"label:has(> input[name=ice_places][value={word}])") for word in ("drain_pan", "floor"))
    first.click()
    second.hover()
    page.mouse.down()
    if not lasts:
        page.mouse.up()
    with page.expect_response("**/entry/ice_places/"):
        held.let_go()
    page.wait_for_timeout(300)
    if lasts:
        page.mouse.up()
    until(page, lambda: {"drain_pan", "floor"} <= set(call.readings.filter(key="ice_places").latest("pk").value))
    expect(second.locator("input")).to_be_checked()


@PHONE
def test_what_is_typed_over_before_the_answer_came_is_kept(open_stop):
    page = open_stop("Cooler 1", "read")
    call = Call.objects.get(unit__name="Cooler 1", closed_at=None)
    held = Held(page, "**/entry/box_temp_f/")
    field = page.locator("#work input[name=box_temp_f]")
    field.fill("54")
    field.press("Enter")
    field.fill("45")
    with page.expect_response("**/entry/box_temp_f/"):
        held.let_go()
    until(page, lambda: call.readings.filter(key="box_temp_f", value=54.0).exists())
    expect(field).to_have_value("45")
    assert page.evaluate("Object.keys(localStorage).some((key) => key.endsWith(':box_temp_f'))"), "and on the device until it is sent"
    field.press("Enter")
    until(page, lambda: call.readings.filter(key="box_temp_f").latest("pk").value == 45.0)
    expect(field).to_have_value("45")


def test_arrive_fits_the_screen_it_is_made_for(open_stop, screen):
    page = open_stop("Cooler 1", "arrive")
    box = page.locator(".picture").bounding_box()
    if screen == "tablet":
        assert box["y"] + box["height"] <= 800
    sheet = tap(page, "coil")
    expect(sheet.locator(".ice-painter .face")).to_be_in_viewport()


@ONE_SCREEN
def test_parts_are_reached_in_the_order_of_a_walk(open_stop):
    page = open_stop("Cooler 1", "arrive")
    page.locator(".picture-part[data-part=told]").focus()
    walked = []
    for _ in range(6):
        walked.append(page.evaluate("document.activeElement.dataset.part"))
        page.keyboard.press("Tab")
    assert walked == ["told", "box", "sensor", "stock", "door", "coil"]


def test_a_new_unit_in_a_dozen_steps_and_a_call_on_it(app, accessible, screen):
    page, steps = app, 0

    def step(act):
        nonlocal steps
        steps += 1
        act()

    page.goto(f"{page.url}units/new/")
    expect(page.get_by_label("Refrigerant")).to_have_value("")
    assert page.locator(".kinds :checked").count() == 0, "nothing is chosen before"
    step(lambda: page.get_by_label("Site", exact=True).fill("Cider house"))
    step(lambda: page.get_by_label("What it is called").fill("Back bar"))
    step(lambda: page.get_by_label("Refrigerant").fill("290"))
    step(lambda: page.get_by_role("button", name="R-290").click())
    step(lambda: page.locator(".kinds label", has_text="under-counter freezer").click())
    expect(page.locator("#plate-picture .pane")).to_have_count(2)
    accessible(page)
    step(lambda: page.locator("[data-plate=charge] .hit").click())
    expect(page.get_by_label("Label charge")).to_be_focused()
    step(lambda: page.get_by_label("Label charge").fill("3.5"))
    step(lambda: page.get_by_role("button", name="Add the unit").click())
    expect(page.get_by_role("heading", name="Plate")).to_be_visible()
    assert steps <= 12
    unit = Unit.objects.get(name="Back bar")
    assert (unit.kind, unit.build, unit.refrigerant, unit.critical_charge_oz) == ("reach_in_freezer", "under_counter", "R-290", 3.5)
    assert unit.site.altitude_ft is None
    page.get_by_role("link", name="New call").click()
    page.get_by_role("button", name="Open the call").click()
    expect(page.locator(".picture")).to_be_visible()
    page.goto(page.url.replace("/arrive/", "/read/"))
    expect(page.locator("#tag-suction_line_evap_f")).to_contain_text("Coil outlet")


@ONE_SCREEN
def test_gloves_sun_and_large_text_lose_nothing(open_stop, app, live_server, accessible):
    app.context.add_cookies(
        [{"name": name, "value": value, "url": live_server.url} for name, value in (("touch", "wet"), ("contrast", "high"))]
    )
    for unit, stop in (("Cooler 1", "arrive"), ("Cooler 1", "melt"), ("Freezer 1", "read"), ("Flower cooler", "judge")):
        page = open_stop(unit, stop)
        accessible(page)
        assert page.evaluate(SMALL) == [], stop
    app.context.clear_cookies(name="touch")
    # Text at 200 %: half the room, and still nothing runs out of the side.
    app.set_viewport_size({"width": 640, "height": 400})
    for unit, stop in (("Cooler 1", "arrive"), ("Freezer 1", "read"), ("Flower cooler", "judge"), ("Reach-in 2", "hand-over")):
        page = open_stop(unit, stop)
        assert page.evaluate("document.documentElement.scrollWidth <= document.documentElement.clientWidth"), stop


@ONE_SCREEN
def test_choices_for_this_device_hold(app, live_server):
    app.goto(f"{live_server.url}/me/")
    app.get_by_role("button", name="Large targets").click()
    app.get_by_role("button", name="High contrast").click()
    app.goto(f"{live_server.url}/calls/{Call.objects.filter(closed_at=None).first().number}/arrive/")
    expect(app.locator("html")).to_have_attribute("data-touch", "wet")
    expect(app.locator("html")).to_have_attribute("data-contrast", "high")
