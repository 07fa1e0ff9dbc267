"""Readings in the real interface: ladder, by feel, coils, sets, a case file dropped in, probes lost and found."""

import json
import re

import pytest
from playwright.sync_api import expect

from devices.probes import serve_in_background
from tests.browser.conftest import ONE_SCREEN, PHONE, Held
from tests.browser.test_story import type_in
from web.links import probes
from web.logbook.models import Call, Device, Reading, ReadingSet, Unit


def bottom_of(page, selector):
    box = page.locator(selector).bounding_box()
    return box["y"] + box["height"]


@ONE_SCREEN
@pytest.mark.parametrize("unit", ["Freezer 1", "Flower cooler", "Meat room"])
def test_drawing_quantities_and_standing_are_all_in_sight(open_stop, unit):
    page = open_stop(unit, "read")
    for selector in (".circuit", "#quantities", "#standing .enamel >> nth=0", "#tag-compressor_amps"):
        assert bottom_of(page, selector) <= 800, selector
    tags = [page.locator(".reading").nth(i).bounding_box() for i in range(page.locator(".reading").count())]
    for i, one in enumerate(tags):
        for other in tags[i + 1 :]:
            apart = one["x"] + one["width"] <= other["x"] + 1 or other["x"] + other["width"] <= one["x"] + 1
            assert apart or one["y"] + one["height"] <= other["y"] + 1 or other["y"] + other["height"] <= one["y"] + 1
    # On a small tablet too.
    page.set_viewport_size({"width": 1024, "height": 768})
    for selector in (".circuit", "#quantities"):
        assert bottom_of(page, selector) <= 768, selector


@PHONE
def test_ladder_by_typing_by_handle_and_by_key(app, live_server, accessible):
    app.goto(f"{live_server.url}/ladder/?refrigerant=R-448A&pressure=31")
    facts = app.locator(".ladder-facts")
    expect(facts).to_contain_text("7.9 °F")
    accessible(app)
    app.get_by_label("Pressure, psig").fill("5 inHg")
    app.get_by_label("Pressure, psig").press("Tab")
    expect(facts).to_contain_text("(5.0 inHg)")
    app.get_by_label("Temperature, °F").fill("20")
    app.get_by_label("Temperature, °F").press("Tab")
    expect(facts).to_contain_text("20.0 °F")
    rail = app.get_by_label("Pressure rail")
    rail.focus()
    app.keyboard.press("ArrowUp")
    expect(facts).to_contain_text("20.5 °F")
    expect(app.get_by_label("Temperature, °F")).to_have_value("20.5")
    app.get_by_text("■ bubble").click()
    expect(app.get_by_label("Temperature, °F")).not_to_have_value("20.5")
    app.get_by_label("Pressure, psig").fill("9000")
    app.get_by_label("Pressure, psig").press("Tab")
    expect(app.locator("#ladder-drawn").get_by_role("alert")).to_contain_text("outside the R-448A table")
    app.get_by_label("Refrigerant").select_option("R-134a")
    expect(app.locator("#ladder-drawn svg")).to_have_attribute("aria-label", re.compile("^R-134a"))


@ONE_SCREEN
def test_an_answer_that_comes_late_leaves_what_was_typed_on_the_ladder(app, live_server):
    app.goto(f"{live_server.url}/ladder/?refrigerant=R-448A&pressure=31")
    # The answer to the pressure is held back until the temperature has been typed.
    held = Held(app, "**/ladder/?*moved=pressure&*")
    app.get_by_label("Pressure, psig").fill("5 inHg")
    app.get_by_label("Pressure, psig").press("Tab")
    app.get_by_label("Temperature, °F").fill("20")
    held.let_go()
    expect(app.locator(".ladder-facts")).to_contain_text("(5.0 inHg)")
    expect(app.get_by_label("Temperature, °F")).to_have_value("20")
    app.get_by_label("Temperature, °F").press("Tab")
    expect(app.locator(".ladder-facts")).to_contain_text("20.0 °F")
    assert len(held.requests) == 1


@ONE_SCREEN
def test_the_handle_of_the_ladder_is_dragged(app, live_server):
    app.goto(f"{live_server.url}/ladder/?refrigerant=R-404A&temperature=20&moved=temperature")
    rail = app.get_by_label("Temperature rail").bounding_box()
    # From the handle at 20 °F towards the top of the rail, which is 150 °F.
    at = rail["y"] + 22 + (rail["height"] - 44) * (150 - 20) / 210
    app.mouse.move(rail["x"] + 24, at)
    app.mouse.down()
    app.mouse.move(rail["x"] + 24, rail["y"] + 22 + (rail["height"] - 44) * 0.5, steps=8)
    app.mouse.up()
    expect(app.get_by_label("Temperature, °F")).to_have_value("45", timeout=10_000)
    expect(app.get_by_label("Pressure, psig")).to_have_value("94.21")


@PHONE
def test_by_feel_a_line_is_told_by_hand(open_stop, accessible):
    page = open_stop("Freezer 1", "read")
    page.get_by_role("button", name="By feel").click()
    expect(page.locator("#tag-coil_outlet_feel")).to_be_visible()
    expect(page.locator("#tag-suction_line_evap_f")).to_have_count(0)
    accessible(page)
    # The clamp's readings still stand; without them the hand is all there is.
    Reading.objects.filter(call__closed_at=None, key="suction_line_evap_f").delete()
    page.locator("[name=coil_outlet_feel]").select_option("frosted")
    expect(page.locator("#card-superheat_evap_f")).to_contain_text("by feel")
    expect(page.locator("#card-superheat_evap_f")).to_contain_text("±")
    page.get_by_role("button", name="By numbers").click()
    expect(page.locator("#tag-suction_line_evap_f")).to_be_visible()


@ONE_SCREEN
def test_the_other_coil_is_read_beside_the_first(open_stop):
    page = open_stop("Flower cooler", "read")
    expect(page.locator("[name=suction_line_evap_f]")).to_have_value("37")
    page.get_by_role("link", name="Coil 2").click()
    expect(page.locator("[name=suction_line_evap_f]")).to_have_value("49")
    type_in(page, "suction_line_evap_f", "35")
    expect(page.locator("#coils [aria-current]")).to_contain_text("6°F")
    assert Reading.objects.filter(key="suction_line_evap_f", evaporator=2).last().value == 35.0


@ONE_SCREEN
def test_sets_stand_side_by_side_with_the_baseline(open_stop, accessible):
    page = open_stop("Meat room", "sets")
    table = page.locator(".sets")
    for text in ("Its own baseline", "As found", "Now", "Valve turned in, ½ turn"):
        expect(table).to_contain_text(text)
    page.get_by_label("Keep it as").fill("After the turn")
    page.get_by_role("button", name="Keep the set").click()
    expect(table.locator("th", has_text="After the turn")).to_contain_text("Valve turned in, ½ turn")
    assert ReadingSet.objects.filter(label="After the turn").count() == 1
    accessible(page)
    expect(page.locator("#standing")).to_contain_text("What it was")


CASE = {
    "format": "orange-kettle/case",
    "version": 1,
    "unit": {"name": "Borrowed box", "kind": "walk_in_cooler", "refrigerant": "R-448A"},
    "observations": [{"key": "suction_psig", "value": 31.0, "source": "gauge"}, {"key": "ice_places", "value": ["ceiling"]}],
}
DROP = """([form, name, text]) => {
  const data = new DataTransfer();
  data.items.add(new File([text], name, {type: "application/json"}));
  for (const kind of ["dragover", "drop"]) form.dispatchEvent(new DragEvent(kind, {dataTransfer: data, bubbles: true, cancelable: true}));
}"""


@ONE_SCREEN
def test_a_dropped_case_file_is_looked_through_before_it_is_stored(app, accessible):
    before = Call.objects.count()
    form = app.locator("form[data-drop]").element_handle()
    app.evaluate(DROP, [form, "borrowed.json", json.dumps(CASE)])
    expect(app.get_by_role("heading", name="what will be stored")).to_be_visible()
    for text in ("borrowed.json", "Suction", "31.0 psig", "ceiling", "Borrowed box", "usual for the kind"):
        expect(app.locator("main")).to_contain_text(text)
    assert Call.objects.count() == before
    accessible(app)
    app.get_by_role("button", name="Open it as a call").click()
    expect(app.locator("[name=suction_psig]")).to_have_value("31")
    assert Call.objects.count() == before + 1


@ONE_SCREEN
def test_a_dropped_file_that_is_no_case_is_said_and_stores_nothing(app):
    before = Call.objects.count()
    app.evaluate(DROP, [app.locator("form[data-drop]").element_handle(), "x.json", "{"])
    expect(app.get_by_role("status")).to_contain_text("Case file: the case file is not JSON")
    assert Call.objects.count() == before


@pytest.fixture
def probe_set(demo_data, monkeypatch):
    """The simulated probes on a port of their own, and a link that learns of losses quickly."""
    server = serve_in_background(0, every_s=0.2)
    Device.objects.filter(kind="probes").update(address=f"127.0.0.1:{server.server_address[1]}", simulated=False)
    Unit.objects.update(probes=Device.objects.get(kind="probes"))
    monkeypatch.setattr("kettle.benches.probes.protocol.LATE_S", 1.0)
    monkeypatch.setattr("kettle.benches.probes.protocol.LOST_S", 2.0)
    monkeypatch.setattr(probes, "RETRY_S", 0.3)
    yield server
    for link in probes._links.values():
        link.stop.set()
    server.stop()


@ONE_SCREEN
def test_a_probe_is_lost_found_and_taken(open_stop, probe_set, accessible):
    page = open_stop("Freezer 1", "read")
    expect(page.locator("#probe-chip")).to_contain_text("7 of 7 live")
    page.locator("#probe-chip").click()
    row = page.locator("tr", has_text="Clamp at the bulb")
    expect(row).to_contain_text("live")
    probe_set.silent.add("T1")
    expect(row).to_contain_text("lost")
    expect(row.get_by_role("button")).to_have_count(0)
    probe_set.silent.clear()
    expect(row).to_contain_text("live")
    accessible(page)
    row.get_by_role("button", name="Take").click()
    expect(page.locator("#tag-suction_line_evap_f")).to_contain_text("⌁")
    assert Reading.objects.filter(source="probe T1").count() == 1
    assert ReadingSet.objects.filter(label__startswith="Probes").count() == 1


@ONE_SCREEN
def test_when_the_whole_set_is_gone_it_is_said_and_it_comes_back(open_stop, probe_set):
    page = open_stop("Freezer 1", "probes")
    table = page.locator("#probe-table")
    expect(table).to_contain_text("live")
    probe_set.stop()
    expect(table.get_by_role("alert")).to_contain_text("The probes are lost")
    again = serve_in_background(probe_set.server_address[1], every_s=0.2)
    expect(table.get_by_role("alert")).to_have_count(0)
    expect(table).to_contain_text("live")
    again.stop()
