"""A technician's whole story on a warm walk-in freezer, on a tablet and on a phone."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import ONE_SCREEN, PHONE, set_in, tap
from web.logbook.models import Call, Reading, ValveTurn


def type_in(page, key, value):
    """Type a reading on the drawing and go on, as Enter does."""
    field = page.locator(f"#work [name={key}]")
    with page.expect_response(re.compile(f"/entry/{key}/")):
        field.fill(value)
        field.press("Enter")


def choose(page, key, value):
    with page.expect_response(re.compile(f"/entry/{key}/")):
        page.locator(f"#work select[name={key}]").select_option(value)


def show_standing(page, screen):
    if screen == "phone" and page.locator("body.sheet-open").count() == 0:
        page.locator(".sheet-handle").click()


def hide_standing(page, screen):
    if screen == "phone" and page.locator("body.sheet-open").count():
        page.locator(".sheet-handle").click()


@PHONE
def test_from_a_new_call_to_the_printed_report(app, live_server, screen, accessible):
    page = app
    page.get_by_role("link", name="New call on a known unit").click()
    page.get_by_label("Unit").select_option(label="Freezer case 2 · Village co-op")
    page.get_by_label("Complaint").fill("Ice cream is soft.")
    page.get_by_role("button", name="Open the call").click()

    # Arrive: a tap on each drawn part, and the ice painted.
    expect(page.get_by_role("heading", name="Arrive")).to_be_visible()
    set_in(page, tap(page, "evap_fan"), "evap_fans", "running")
    expect(page.locator(".picture-part[data-part=evap_fan]")).to_have_class(re.compile(r"\blooked"))
    expect(page.locator(".picture-part[data-part=compressor]")).to_have_class(re.compile("unlooked"))
    page.get_by_role("button", name="Close", exact=True).click()
    tap(page, "coil")
    page.locator(".brushes").get_by_text("light", exact=True).click()
    page.get_by_role("button", name="Whole face").click()
    page.get_by_role("button", name="Keep as before-map").click()
    expect(page.locator(".notice")).to_contain_text("kept")

    # Read: figures on the drawing move quantities and standing without a reload.
    page.get_by_role("link", name="Read").click()
    page.evaluate("window.stayed = true")
    for key, value in {"box_temp_f": "0", "ambient_f": "75", "suction_psig": "5", "discharge_psig": "213", "suction_line_evap_f": "-4",
                       "liquid_line_f": "87"}.items():  # fmt: skip
        type_in(page, key, value)
    choose(page, "sight_glass", "clear")
    choose(page, "bulb", "tight_insulated")
    expect(page.locator("#card-superheat_evap_f")).to_contain_text(re.compile(r"3\d\.\d"))
    expect(page.locator("#card-superheat_evap_f")).to_contain_text("high")
    expect(page.locator("#card-td_f")).to_contain_text("high")
    show_standing(page, screen)
    expect(page.locator("#standing")).to_contain_text("Valve feeding too little")
    hide_standing(page, screen)
    assert page.evaluate("window.stayed")

    # Judge: reasons for and against.
    page.get_by_role("link", name="Judge").click()
    card = page.locator("#suspect-txv_underfeeding")
    expect(card).to_contain_text("Superheat, coil")
    expect(card).to_contain_text("To put right")
    accessible(page)

    # Correct: the wrong direction is refused, the right one starts the clock.
    page.get_by_role("link", name="Correct").click()
    page.get_by_text("In, clockwise", exact=True).click()
    page.get_by_label("Turns of the stem").fill("0.5")
    page.get_by_role("button", name="Record the turn").click()
    expect(page.get_by_role("main")).to_contain_text("works against the goal")
    assert not ValveTurn.objects.filter(call__complaint="Ice cream is soft.").exists()
    page.get_by_text("Out, counter-clockwise", exact=True).click()
    page.get_by_role("button", name="Record it with this reason").click()
    expect(page.locator(".notice")).to_contain_text("counts again when it has settled")
    show_standing(page, screen)
    expect(page.locator("#standing .clock")).to_contain_text("15 min")
    hide_standing(page, screen)
    page.get_by_label("Which").select_option("fail_safe")
    page.get_by_label("As found").fill("45")
    page.get_by_label("As left").fill("30")
    page.get_by_label("Why").fill("coil clears in 24 min")
    page.get_by_role("button", name="Record the setting").click()
    expect(page.get_by_role("main")).to_contain_text("45 min")

    # Hand over: words, report, file.
    page.get_by_role("link", name="Hand over").click()
    page.get_by_text("Complaint, and your own words besides").click()
    page.get_by_label("Found, in your own words besides").fill("Valve starving.")
    page.get_by_role("button", name="Keep the words").click()
    page.get_by_role("link", name="Report", exact=True).click()
    report = page.locator(".report")
    for text in ("Valve starving.", "Ice cream is soft.", "30 min", "½ turn", "lower superheat", "Superheat, coil", "Cautions"):
        expect(report).to_contain_text(text)
    accessible(page)
    number = Call.objects.get(complaint="Ice cream is soft.").number
    answer = page.request.get(f"{live_server.url}/calls/{number}/report.pdf")
    assert answer.headers["content-type"] == "application/pdf"
    assert answer.body().startswith(b"%PDF")


@PHONE
def test_a_wrong_entry_is_said_beside_its_field_and_the_others_stay(open_stop):
    page = open_stop("Freezer 1", "read")
    type_in(page, "suction_psig", "9999")
    tag = page.locator("#tag-suction_psig")
    expect(tag.get_by_role("alert")).to_contain_text("9999.0 psig is outside −14.7 to 700 psig. Still stands: 10.7 psig")
    expect(tag.locator("input")).to_have_value("9999")
    expect(page.locator("#work [name=discharge_psig]")).not_to_have_value("")
    expect(page.locator("#card-superheat_evap_f")).to_contain_text("30.3")
    type_in(page, "suction_psig", "5 inHg")
    expect(tag.locator("input")).to_have_value("-2.46")
    expect(tag).to_contain_text("5 inHg")
    with page.expect_response(re.compile("/undo/")):
        page.get_by_role("button", name="Undo suction").click()
    expect(tag.locator("input")).to_have_value("10.7")


@ONE_SCREEN
def test_enter_walks_the_readings_in_order_and_the_sign_key_flips(open_stop):
    page = open_stop("Freezer 1", "read")
    page.locator("[name=box_temp_f]").focus()
    page.keyboard.press("Enter")
    expect(page.locator("[name=return_air_f]")).to_be_focused()
    page.keyboard.type("4")
    page.locator("#tag-return_air_f .flip-sign").dispatch_event("pointerdown")
    with page.expect_response(re.compile("/entry/return_air_f/")):
        page.keyboard.press("Enter")
    assert Reading.objects.filter(key="return_air_f").last().value == -4.0


def test_all_of_it_is_in_sight_at_1280_by_800(open_stop, screen):
    page = open_stop("Freezer 1", "read")
    if screen == "phone":
        expect(page.locator(".sheet-handle")).to_be_in_viewport(ratio=1)
        expect(page.locator(".sheet-handle")).to_contain_text("%")
    else:
        for part in (".circuit", "#quantities", "#standing", "#round"):
            expect(page.locator(part)).to_be_in_viewport(ratio=1)
    wider = page.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth")
    assert wider == 0


@PHONE
def test_a_quick_look_reads_at_once_and_is_kept_afterwards(app):
    page = app
    page.get_by_label("Kind").select_option("walk_in_cooler")
    page.get_by_label("Refrigerant").fill("448")
    page.get_by_role("button", name="Read it now").click()
    type_in(page, "suction_psig", "31")
    expect(page.locator("#facts")).to_contain_text("SST 7.9 °F")
    page.get_by_role("link", name="Keep it").click()
    page.get_by_role("button", name="Keep it").click()
    expect(page.get_by_role("main")).to_contain_text("Site: needed for a new unit")
    page.get_by_label("Site").fill("Mill pond kiosk")
    page.get_by_label("What the unit is called").fill("Cooler A")
    page.get_by_role("button", name="Keep it").click()
    expect(page.get_by_role("link", name="Cooler A · Mill pond kiosk")).to_be_visible()
    expect(page.locator("#work [name=suction_psig]")).to_have_value("31")


@ONE_SCREEN
@pytest.mark.parametrize("how", ["no network", "the data are held"])
def test_what_was_typed_and_not_taken_is_kept_and_sent_again(open_stop, complaints, how):
    page = open_stop("Freezer 1", "read")
    refuse = (lambda route: route.abort()) if how == "no network" else (lambda route: route.fulfill(status=503, body="held"))
    page.route("**/entry/**", refuse)
    page.locator("[name=supply_air_f]").fill("-7.5")
    page.locator("[name=supply_air_f]").press("Enter")
    expect(page.locator("#tag-supply_air_f")).to_have_class(re.compile("unsent"))
    sent = Reading.objects.filter(key="supply_air_f", call__unit__name="Freezer 1", call__closed_at=None)
    assert not sent.exists()
    assert all("htmx" in text or "ERR_FAILED" in text or "503" in text for text in complaints)
    complaints.clear()
    page.unroute("**/entry/**")
    with page.expect_response(re.compile("/entry/supply_air_f/")):
        page.reload()
    expect(page.locator("#card-delta_t_f")).not_to_be_empty()
    assert sent.get().value == -7.5


@ONE_SCREEN
def test_words_take_several_lines_and_are_kept_as_they_are_left(open_stop):
    page = open_stop("Freezer 1", "arrive")
    tap(page, "told")
    page.get_by_label("What changed lately").click()
    page.keyboard.type("New clock.")
    page.keyboard.press("Enter")
    page.keyboard.type("The owner set it.")
    with page.expect_response(re.compile("/words/")):
        page.get_by_label("Complaint").focus()
    page.reload()
    tap(page, "told")
    expect(page.get_by_label("What changed lately")).to_have_value("New clock.\nThe owner set it.")


@ONE_SCREEN
def test_a_field_left_as_it_was_is_not_sent(open_stop):
    page = open_stop("Freezer 1", "read")
    field = page.locator("[name=suction_psig]")
    before = Reading.objects.count()
    field.focus()
    page.keyboard.press("End")
    page.keyboard.type("5")
    page.keyboard.press("Backspace")
    field.blur()
    assert page.evaluate("Object.keys(localStorage).filter((key) => key.startsWith('kettle-draft'))") == []
    assert Reading.objects.count() == before


def kept(page):
    return page.evaluate("Object.keys(localStorage).filter((key) => key.startsWith('kettle-draft'))")


def another(page, live_server, client, django_user_model, name):
    """The same browser with somebody else logged in."""
    client.force_login(django_user_model.objects.get(username=name))
    page.context.add_cookies([{"name": "sessionid", "value": client.cookies["sessionid"].value, "url": live_server.url}])


@ONE_SCREEN
def test_a_draft_is_its_writers_alone_and_an_old_one_is_shown_before_it_is_sent(
    open_stop, live_server, client, django_user_model, complaints
):
    page = open_stop("Freezer 1", "read")
    page.evaluate("localStorage.setItem('kettle-draft:204:suction_psig', '99')")
    page.reload()
    assert kept(page) == [], "a draft that does not say whose it is goes to nobody"
    page.context.set_offline(True)
    field = page.locator("[name=suction_psig]")
    field.fill("7.3")
    field.press("Tab")
    expect(page.locator("#tag-suction_psig")).to_have_class(re.compile("unsent"))
    [key] = kept(page)
    hour_old = "([key, value]) => localStorage.setItem(key, JSON.stringify({value, at: Date.now() - 3600000}))"
    page.evaluate(hour_old, [key, "7.3"])
    here = page.url
    page.goto("about:blank")
    page.context.set_offline(False)
    # Somebody else opens the same call on the same tablet.
    another(page, live_server, client, django_user_model, "tobin")
    page.goto(here)
    # What the browser said while there was no net.
    complaints.clear()
    expect(page.locator("[name=suction_psig]")).not_to_have_value("7.3")
    assert kept(page) == [key] and not Reading.objects.filter(value=7.3).exists()
    # The writer comes back an hour later: it is shown with its time, and sent by hand.
    another(page, live_server, client, django_user_model, "wren")
    page.goto(here)
    old = page.locator("#old-drafts")
    expect(old).to_contain_text("7.3")
    assert not Reading.objects.filter(value=7.3).exists()
    old.get_by_role("button", name="Send").click()
    expect(old).to_be_hidden()
    assert Reading.objects.get(value=7.3).by.username == "wren"
    assert kept(page) == []
    # Logging out takes the rest along, unless it is kept on purpose.
    for keep in (True, False):
        page.evaluate(hour_old, [key, "7.4"])
        page.goto(f"{live_server.url}/me/")
        if keep:
            page.get_by_label("keep what I typed").check()
        page.get_by_role("button", name="Log out").click()
        expect(page.get_by_role("heading", name="Log in")).to_be_visible()
        # What the page was still asking for as one logs out is refused.
        complaints[:] = [said for said in complaints if "401" not in said]
        assert kept(page) == ([key] if keep else [])
        another(page, live_server, client, django_user_model, "wren")
