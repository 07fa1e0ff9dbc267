"""From a finished diagnosis to an accepted quote, a repair and a closed call, without typing a word."""

import re

from django.utils import timezone
from playwright.sync_api import expect

from tests.browser.conftest import ONE_SCREEN
from web.logbook.models import Call, Leaving, PartUsed, Quote, QuoteLine, VanPart


def sign(page):
    field = page.locator("[data-sign]")
    field.scroll_into_view_if_needed()
    box = field.bounding_box()
    page.mouse.move(box["x"] + 40, box["y"] + 60)
    page.mouse.down()
    for step in range(1, 8):
        page.mouse.move(box["x"] + 40 + 18 * step, box["y"] + 60 + (25 if step % 2 else -20))
    page.mouse.up()


@ONE_SCREEN
def test_from_a_diagnosis_to_an_accepted_quote_and_a_closed_call(open_stop, accessible, screen):
    page = open_stop("Reach-in 2", "judge")
    call = Call.objects.get(number=page.url.split("/calls/")[1].split("/")[0])
    # Somebody there has answered a quote before: the name is one tap.
    before = Call.objects.exclude(pk=call.pk).filter(shop=call.shop, quote=None).first()
    Call.objects.filter(pk=before.pk).update(unit=call.unit)
    Quote.objects.create(call=before, by=call.opened_by, answered_name="M. Thorn, kitchen", answered_at=timezone.now())
    page.get_by_role("button", name="This is what it is").first.click()
    page.locator("#round").get_by_role("link", name="Hand over").click()
    expect(page.locator("#written")).to_contain_text("The cause: coil fan failed.")
    accessible(page)
    page.get_by_role("link", name="Quote", exact=True).click()
    page.get_by_role("button", name="Quote these").click()
    # The motor at 61.50 of the van's list with 35 % on it; an hour at 118; the way at 55; 6.5 % tax.
    good = page.get_by_role("region", name="Put right for good")
    expect(good).to_contain_text("Fan replaced")
    expect(good).to_contain_text("272.67")
    accessible(page)
    page.get_by_role("link", name="To the customer").click()
    page.get_by_role("button", name="Accept all: Put right for good").click()
    page.get_by_role("button", name="Decline all: Put right for now").click()
    page.get_by_role("button", name="Decline all: Replace the unit").click()
    page.get_by_role("button", name="M. Thorn, kitchen").click()
    sign(page)
    accessible(page)
    page.get_by_role("button", name="This is my answer").click()
    expect(page.locator("#work, main").first).to_contain_text("272.67 accepted")
    assert set(QuoteLine.objects.filter(quote__call=call, option="replace").values_list("answer", flat=True)) == {"declined"}

    page.locator("#round").get_by_role("link", name="Correct").click()
    page.get_by_role("button", name=re.compile("Fan replaced")).first.click()
    expect(page.get_by_role("main")).to_contain_text("Fan replaced")
    page.locator("#round").get_by_role("link", name="Hand over").click()
    page.get_by_role("button", name=re.compile("^Fan motor")).click()
    expect(page.locator("#parts")).to_contain_text("from the van")
    left = page.locator("#leaving")
    while (tap := left.get_by_role("button", name="I come back for it")).count():
        tap.first.click()
    accessible(page)
    page.get_by_role("button", name=f"Close {call}").click()
    expect(page.locator(".messages")).to_contain_text(f"{call} is closed")
    call.refresh_from_db()
    assert not call.is_open and call.follow_ups.exists() and Leaving.objects.filter(call=call, answer="again").exists()
    assert PartUsed.objects.get(call=call).what == "Fan motor" and VanPart.objects.get(what="Fan motor").carried == 0
    if screen == "phone":
        page.goto(page.url.split("/calls/")[0].rstrip("/") + f"/calls/{call.number}/report/")
        expect(page.locator("body")).to_contain_text("The cause: coil fan failed.")
