"""From a finished diagnosis to an accepted quote and a closed call, without typing but for prices, name and reason."""

from playwright.sync_api import expect

from web.logbook.models import Call, QuoteLine


def test_from_a_diagnosis_to_an_accepted_quote_and_a_closed_call(open_stop, accessible, screen):
    page = open_stop("Reach-in 2", "judge")
    number = page.url.split("/calls/")[1].split("/")[0]
    page.get_by_role("button", name="This is what it is").first.click()
    page.locator("#round").get_by_role("link", name="Hand over").click()
    expect(page.locator("#written")).to_contain_text("The cause: coil fan failed.")
    accessible(page)
    page.get_by_role("link", name="Quote", exact=True).click()
    page.get_by_role("button", name="Quote these").click()
    good = page.get_by_role("region", name="Put right for good")
    expect(good).to_contain_text("Fan replaced")
    price = good.get_by_label("Price of one: Fan motor")
    price.fill("84,50")
    price.press("Enter")
    # 84.50 with 35 % on it; an hour at 118; the way at 55; 6.5 % tax.
    expect(page.get_by_role("region", name="Put right for good")).to_contain_text("305.74")
    accessible(page)
    page.get_by_role("link", name="To the customer").click()
    page.get_by_role("button", name="Accept all: Put right for good").click()
    page.get_by_role("button", name="Decline all: Put right for now").click()
    page.get_by_role("button", name="Decline all: Replace the unit").click()
    page.get_by_label("Name").fill("M. Thorn, kitchen")
    field = page.locator("[data-sign]")
    field.scroll_into_view_if_needed()
    box = field.bounding_box()
    page.mouse.move(box["x"] + 40, box["y"] + 60)
    page.mouse.down()
    for step in range(1, 8):
        page.mouse.move(box["x"] + 40 + 18 * step, box["y"] + 60 + (25 if step % 2 else -20))
    page.mouse.up()
    accessible(page)
    page.get_by_role("button", name="This is my answer").click()
    expect(page.locator("#work, main").first).to_contain_text("305.74 accepted")
    assert set(QuoteLine.objects.filter(quote__call__number=number, option="replace").values_list("answer", flat=True)) == {"declined"}
    page.get_by_role("link", name="Hand over").last.click()
    page.get_by_role("button", name=f"Close Call {number}").click()
    expect(page.locator(".messages")).to_contain_text(f"Call {number} is closed")
    assert not Call.objects.get(number=number).is_open
    if screen == "phone":
        page.goto(page.url.split("/calls/")[0].rstrip("/") + f"/calls/{number}/report/")
        expect(page.locator("body")).to_contain_text("The cause: coil fan failed.")
