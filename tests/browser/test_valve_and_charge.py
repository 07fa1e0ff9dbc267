"""The two corrections through the real interface: a valve turned by what is proposed, and a label charge weighed in."""

from datetime import timedelta

from playwright.sync_api import expect

from kettle.knowledge import refrigerants
from tests.browser.conftest import ONE_SCREEN, PHONE
from web.logbook.actions.record_reading import record_reading
from web.logbook.models import Act, Call


def reads(call, superheat, sst=-24.0):
    """Superheat of the coil now, as gauge and clamp have it."""
    unit = call.unit.resolved()
    psig = refrigerants.get(unit.refrigerant.name).dew_psig(sst, unit.altitude_ft)
    for key, value in (("suction_psig", psig), ("suction_line_evap_f", sst + superheat)):
        record_reading(call.opened_by, call, key, f"{value:.2f}")


def long_ago(call, minutes):
    """As if the turns so far, and what was read, lay so much further back."""
    back = timedelta(minutes=minutes)
    for row in (*call.valveturns.all(), *call.readings.all()):
        row.at -= back
        row.save(update_fields=["at"])


@PHONE
def test_a_valve_is_turned_by_what_is_proposed_and_taken_back(open_stop, accessible):
    page = open_stop("Freezer 1", "correct")
    call = Call.objects.get(unit__name="Freezer 1", closed_at=None)
    expect(page.locator("main")).to_contain_text("Before the stem: bulb; strainer and solenoid.")
    for key, value in (("bulb", "tight_insulated"), ("drier_drop_f", "1"), ("liquid_solenoid", "open")):
        record_reading(call.opened_by, call, key, value)
    record_reading(call.opened_by, call, "box_temp_f", "-3")
    reads(call, 22.0)
    page.get_by_role("link", name="Turns and answers").click()
    expect(page.locator("#turns-drawn")).to_contain_text("wanted 4 to 10 °F")
    expect(page.locator("main")).to_contain_text("1 turn out, it opens: about 18.0 °F")
    page.get_by_role("button", name="Record the turn").click()
    if page.get_by_label("Do it all the same?").count():
        page.get_by_label("Do it all the same?").fill("drier and supply were cleared")
        page.get_by_role("button", name="Record it with this reason").click()
    expect(page.get_by_text("Turn recorded")).to_be_visible()
    assert [(one.direction, one.turns) for one in call.valveturns.all()] == [("out", 1.0)]
    long_ago(call, 20)
    reads(call, 15.0)
    page.goto(page.url.split("/correct")[0].split("/valve")[0] + "/valve/")
    expect(page.locator("main")).to_contain_text("● answered")
    expect(page.locator(".turns .turned")).to_have_count(1)
    accessible(page)
    page.get_by_role("button", name="Back to where it was found").click()
    expect(page.get_by_text("The stem stands where it was found").first).to_be_visible()
    assert [(one.direction, one.turns) for one in call.valveturns.order_by("pk")] == [("out", 1.0), ("in", 1.0)]


@ONE_SCREEN
def test_a_label_charge_is_weighed_in_and_its_suction_foretold(open_stop, accessible):
    page = open_stop("Under-counter 3", "charge")
    expect(page.locator("main")).to_contain_text("weigh in 4.9 oz")
    page.get_by_label("Cylinder now").fill("41.1")
    page.get_by_role("button", name="Weighed in").click()
    expect(page.locator("#before-error")).to_be_visible()
    expect(page.get_by_label("Cylinder now")).to_have_value("41.1")
    page.get_by_label("Cylinder before").fill("46.2")
    page.get_by_label("Hose and tap").fill("0.2")
    page.get_by_role("button", name="Weighed in").click()
    expect(page.locator("main")).to_contain_text("4.9 oz in. Right by the label")
    expect(page.locator("#weigh")).to_contain_text("suction runs")
    assert Act.objects.filter(did="weighed_in", call__unit__name="Under-counter 3").count() == 1
    accessible(page)


@ONE_SCREEN
def test_gas_is_held_with_its_reason_and_the_pressure_at_rest_is_read(open_stop, accessible):
    page = open_stop("Freezer 1", "charge")
    expect(page.locator(".answer").first).to_contain_text("The glass is clear: nothing asks for gas")
    expect(page.locator(".answer + p").first).to_contain_text("it does not look short")
    page.locator("#rest > summary").click()
    page.get_by_label("At rest").fill("240")
    page.get_by_label("Pipe with liquid").fill("75")
    page.get_by_role("button", name="Work it out").first.click()
    expect(page.locator("#rest")).to_contain_text("air, or another gas")
    accessible(page)
