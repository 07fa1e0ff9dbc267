"""Note it as a gloved hand uses it: several facts at once, what is not sure chosen, what was not kept still in the field."""

import re

from playwright.sync_api import expect

from web.logbook.models import Act, Happened, Reading


def test_a_sentence_is_kept_by_enter_and_what_is_left_of_it_is_chosen(open_stop):
    page = open_stop("Cooler 1", "arrive")
    field = page.locator("#note-words")
    field.fill("product 52, bulb insulated, lamp out in box")
    pieces = page.locator("#heard .heard-piece")
    expect(pieces).to_have_count(3)
    expect(pieces.nth(1)).to_contain_text("Which is it?")
    before = Reading.objects.count()
    with page.expect_navigation():
        field.press("Enter")
    expect(page.locator("#note-words")).to_have_value("bulb insulated")
    assert Reading.objects.count() == before + 1 and Reading.objects.last().value == 52.0
    assert Happened.objects.get().data == {"text": "lamp out in box", "part": "box"}
    with page.expect_navigation():
        page.locator("#heard").get_by_role("button", name="Done: bulb insulated").click()
    assert Act.objects.last().code == "bulb.insulated"
    expect(page.locator("#note-words")).to_have_value("")


def test_a_unit_of_another_quantity_is_refused_and_stays_in_the_field(open_stop):
    page = open_stop("Cooler 1", "arrive")
    field = page.locator("#note-words")
    field.fill("box 45 psig")
    expect(page.locator("#heard")).to_contain_text("a pressure")
    with page.expect_response(re.compile("/note/")):
        field.press("Enter")
    expect(field).to_have_value("box 45 psig")
    expect(page.locator("#heard").get_by_role("button", name="In words, at box")).to_be_visible()
    assert not Happened.objects.exists()
