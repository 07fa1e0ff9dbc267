"""Refrigerant through the real interface: from the leak search over recovery and evacuation to the weighed charge on the ledger."""

from playwright.sync_api import expect

from tests.browser.conftest import ONE_SCREEN, PHONE
from web.logbook.models import GasMove


@PHONE
def test_from_the_leak_search_to_the_weighed_charge(open_stop, accessible, live_server):
    page = open_stop("Under-counter 3", "refrigerant")
    at = page.url

    def says(place, word, reading=""):
        page.get_by_role("link", name=place).click()
        expect(page.locator(".search h3")).to_contain_text(place)
        if reading:
            page.get_by_label("Detector reads").fill(reading)
        with page.expect_navigation():
            page.locator(".gives").get_by_role("button", name=word, exact=True).click()

    page.get_by_label("Background").fill("none")
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.locator("#background-error")).to_contain_text("is not a number")
    page.get_by_label("Background").fill("6")
    page.get_by_role("button", name="Keep", exact=True).click()
    says("Coil: right half", "signal", "9")
    expect(page.locator("#leak")).to_contain_text("where the air itself reads 6.0")
    says("Coil: right half", "signal twice", "88")
    expect(page.locator("#leak")).to_contain_text("now its neighbours")
    says("Coil: left half", "no")
    says("Coil: joints", "no")
    expect(page.locator("#leak")).to_contain_text("in the coil, not the lines")
    accessible(page)
    page.locator("#recovery > summary").click()
    page.locator("#recovery").get_by_label("Cylinder before").fill("480")
    page.locator("#recovery").get_by_label("Cylinder now").fill("482.4")
    page.get_by_role("button", name="It is out").click()
    expect(page.locator("#recovery")).to_contain_text("2.4 oz out so far")
    page.locator("#nitrogen > summary").click()
    typed = {
        "Pressure at the start": "150",
        "Temperature at the start": "72",
        "Pressure now": "149",
        "Temperature now": "70",
        "Stood": "45",
    }
    for label, value in typed.items():
        page.locator("#nitrogen").get_by_label(label).fill(value)
    page.get_by_role("button", name="Keep the test").click()
    expect(page.locator("#nitrogen")).to_contain_text("Nothing lost that can be told")
    page.locator("#evacuation > summary").click()
    for microns, button in (("9000", "Pump runs"), ("460", "Pump runs"), ("520", "Shut off"), ("540", "Shut off")):
        page.get_by_label("Microns now").fill(microns)
        with page.expect_navigation():
            page.get_by_role("button", name=button).click()
    expect(page.locator("#evacuation")).to_contain_text("before it says anything")
    expect(page.locator(".microns circle")).to_have_count(4)
    accessible(page)
    page.goto(at.replace("/refrigerant/", "/charge/"))
    page.get_by_label("Cylinder", exact=True).fill("290-2")
    page.get_by_label("Cylinder before").fill("46.2")
    page.get_by_label("Cylinder now").fill("41.3")
    page.get_by_role("button", name="Weighed in").click()
    expect(page.locator("#weigh")).to_contain_text("4.9 oz in. Right by the label")
    page.goto(f"{live_server.url}/refrigerant/")
    expect(page.locator(".moves .line").first).to_contain_text("cylinder 290-2")
    assert GasMove.objects.filter(unit__name="Under-counter 3", kind="recovered").count() == 1


@ONE_SCREEN
def test_a_line_of_the_ledger_is_countered(logged_in, live_server, accessible):
    page = logged_in
    page.goto(f"{live_server.url}/refrigerant/")
    accessible(page)
    line = page.locator(".moves .line").first
    line.get_by_text("Counter it").click()
    line.get_by_label("Why").fill("the wrong cylinder")
    line.get_by_role("button", name="Counter-entry").click()
    expect(page.locator(".moves .line").first).to_contain_text("counters another line")
    page.goto(f"{live_server.url}/refrigerant/sites/1/")
    accessible(page)
