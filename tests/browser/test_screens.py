import re

from playwright.sync_api import expect

from tests.browser.conftest import ONE_SCREEN
from web.demo import load as demo
from web.logbook.models import Unit

STOPS = [
    ("Cooler 1", "arrive"),
    ("Cooler 1", "melt"),
    ("Freezer 1", "read"),
    ("Freezer 1", "power"),
    ("Flower cooler", "judge"),
    ("Meat room", "correct"),
    ("Reach-in 2", "hand-over"),
]


def fits(page):
    return page.evaluate("document.documentElement.scrollWidth <= document.documentElement.clientWidth")


# The story is told by light on both screens; here each screen has the other look too.
LOOKS = {"tablet": "night", "phone": "light"}


def test_every_stop_is_clean_and_accessible(open_stop, app, accessible, live_server, screen):
    look = LOOKS[screen]
    app.context.add_cookies([{"name": "look", "value": look, "url": live_server.url}])
    for unit, stop in STOPS:
        page = open_stop(unit, stop)
        expect(page.locator("html")).to_have_attribute("data-look", look)
        accessible(page)
        assert fits(page), stop


def test_the_other_pages_too(app, live_server, accessible):
    for address in ("/", f"/units/{Unit.objects.first().pk}/", "/units/new/", "/calls/new/"):
        app.goto(live_server.url + address)
        accessible(app)
        assert fits(app), address


@ONE_SCREEN
def test_logging_in_and_out(page_watched, live_server, demo_data, accessible):
    page = page_watched
    page.goto(f"{live_server.url}/")
    accessible(page)
    page.get_by_label("Username").fill("wren")
    page.get_by_label("Password").fill("wrong")
    page.get_by_role("main").get_by_role("button", name="Log in").click()
    expect(page.get_by_role("alert")).to_contain_text("correct username and password")
    page.get_by_label("Password").fill(demo.SCENARIO["password"])
    page.get_by_role("main").get_by_role("button", name="Log in").click()
    expect(page.get_by_role("heading", name="Quick look")).to_be_visible()
    page.get_by_role("link", name="Wren").click()
    page.get_by_role("button", name="Log out").click()
    expect(page.get_by_label("Username")).to_be_visible()


def test_take_it_now_leads_to_the_field(open_stop, screen):
    page = open_stop("Freezer 1", "read")
    if screen == "phone":
        page.locator(".sheet-handle").click()
    page.get_by_role("link", name="Take it now").click()
    expect(page.locator("#work [name=drier_drop_f]")).to_be_focused()
    with page.expect_response(re.compile("/entry/drier_drop_f/")):
        page.keyboard.type("12")
        page.keyboard.press("Enter")
    if screen == "phone":
        page.locator(".sheet-handle").click()
    expect(page.locator("#standing .suspect").first).to_contain_text("Liquid line restricted")


@ONE_SCREEN
def test_keys_jump_to_stops_and_list_themselves(open_stop):
    page = open_stop("Freezer 1", "read")
    for key, stop in (("6", "judge"), ("5", "power"), ("4", "programs"), ("3", "read")):
        page.keyboard.press(key)
        expect(page).to_have_url(re.compile(f"/{stop}/$"))
        # The keys are there once the page is: whoever types sooner types to the page before.
        page.wait_for_load_state("load")
    page.keyboard.press("n")
    expect(page.locator("#work [name=return_air_f]")).to_be_focused()
    page.locator("body").click(position={"x": 5, "y": 5})
    page.keyboard.press(",")
    expect(page.locator("#note-words")).to_be_focused()


@ONE_SCREEN
def test_the_night_switch_holds(app, live_server):
    app.get_by_role("button", name="Night").click()
    app.goto(f"{live_server.url}/units/{Unit.objects.first().pk}/")
    expect(app.locator("html")).to_have_attribute("data-look", "night")
    app.get_by_role("button", name="Night").click()
    expect(app.locator("html")).to_have_attribute("data-look", "light")
    app.get_by_role("button", name="Keys").click()
    expect(app.get_by_role("heading", name="Keys")).to_be_visible()
    app.get_by_role("button", name="Close").click()
    expect(app.get_by_role("heading", name="Keys")).to_be_hidden()


def test_what_a_bottle_cooler_should_run_fits_a_phone(open_stop):
    assert fits(open_stop("Bottle cooler 2", "charge"))
