"""A whole story through the browser: called out, looked, read, judged, put right, waited, read again, proved, written up."""

import re
from datetime import timedelta

from django.utils import timezone
from playwright.sync_api import expect

from kettle.knowledge import refrigerants
from web.logbook.models import Act, Call, Reading

BLEND = refrigerants.get("R-448A")


def note(page, words, meant):
    """Type words as they come and keep what they were taken for with Enter."""
    page.locator("#note-words").fill(words)
    expect(page.locator("#heard .btn.strong")).to_contain_text(meant)
    with page.expect_response(re.compile("/note/")):
        page.locator("#note-words").press("Enter")


def read(page, **figures):
    for key, value in figures.items():
        field = page.locator(f"#work input[name={key}]")
        with page.expect_response(re.compile(f"/entry/{key}/")):
            field.fill(str(value))
            field.press("Enter")


def gauges(sst, sct):
    return {"suction_psig": round(BLEND.dew_psig(sst, 4200), 1), "discharge_psig": round(BLEND.bubble_psig(sct, 4200), 1)}


def test_a_loose_bulb_is_found_clamped_proved_and_written_up(app, screen, accessible):
    page = app
    page.get_by_label("Kind").select_option("walk_in_cooler")
    page.get_by_label("Refrigerant").select_option("R-448A")
    page.get_by_role("button", name="Read it now").click()
    call = Call.objects.order_by("-pk").first()
    call.unit.altitude_ft = 4200
    call.unit.save()
    at = page.url.split("/calls/")[0] + f"/calls/{call.number}"

    # Arrive: why they called, and what eyes and hands find, as words.
    page.goto(f"{at}/arrive/")
    with page.expect_response(re.compile("/entry/complaint/")):
        page.locator("#look-complaint").get_by_text("too warm", exact=True).click()
    note(page, "fans ok", "Coil fans: running")
    note(page, "shell sweating", "Compressor shell: sweating")
    note(page, "bulb hanging", "Bulb: loose")

    # Read: the flooding coil.
    page.goto(f"{at}/read/")
    read(page, box_temp_f=41, ambient_f=83, **gauges(31, 108), suction_line_evap_f=31.5, suction_line_comp_f=34, liquid_line_f=104)
    expect(page.locator("#card-superheat_evap_f")).to_contain_text("low")
    expect(page.locator("#standing")).to_contain_text("Bulb loose or misplaced")

    # Judge: the part is put right where it is named.
    page.goto(f"{at}/judge/")
    page.locator("#suspect-bulb_fault").get_by_role("button", name="Bulb clamped").click()
    expect(page.locator(".notice")).to_contain_text("Bulb clamped: kept")
    expect(page.locator("#left")).to_contain_text("to prove")
    accessible(page)

    # The clock runs out; what was read before is past, and read again.
    earlier = timezone.now() - timedelta(minutes=40)
    Reading.objects.filter(call=call).update(at=earlier)
    Act.objects.filter(call=call).update(at=earlier + timedelta(minutes=5))
    page.goto(f"{at}/read/")
    expect(page.locator("#card-superheat_evap_f")).to_contain_text("read it again")
    read(page, box_temp_f=37, **gauges(25, 104), suction_line_evap_f=33.5, suction_line_comp_f=47, liquid_line_f=98)
    expect(page.locator("#card-superheat_evap_f")).to_contain_text("ok")
    page.goto(f"{at}/judge/")
    expect(page.locator("#left")).to_contain_text("Nothing left of it")
    expect(page.locator("#suspect-bulb_fault")).to_contain_text("After: bulb clamped")
    page.locator("#suspect-bulb_fault").get_by_role("button", name="This is what it is").click()

    # Everything taken, by stage; the report says found, changed, now.
    page.goto(f"{at}/taken/")
    expect(page.get_by_role("heading", name="After: bulb clamped")).to_be_visible()
    accessible(page)
    page.goto(f"{at}/report/")
    for text in ("Found: Bulb loose or misplaced", "Bulb clamped", "Nothing of it is left by what we see now.", "before", "now"):
        expect(page.locator("body")).to_contain_text(text)
    if screen == "phone":
        assert page.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth") == 0
