"""The ice map painted with a finger and with the keyboard, melted, and proved all clear."""

import re

from playwright.sync_api import expect

from tests.browser.conftest import ONE_SCREEN, PHONE, tap
from web.logbook.models import IceDrawing, Melt


def brush(page, name):
    page.locator(".brushes").get_by_text(name, exact=True).click()


def paint_by_dragging(page, rows=range(5), columns=(0, 1)):
    face = page.locator(".ice-painter svg[tabindex]")
    face.scroll_into_view_if_needed()
    for row in rows:
        start, stop = (face.locator(f"[data-row='{row}'][data-column='{column}']").bounding_box() for column in columns)
        page.mouse.move(start["x"] + start["width"] / 2, start["y"] + start["height"] / 2)
        page.mouse.down()
        page.mouse.move(stop["x"] + stop["width"] / 2, stop["y"] + stop["height"] / 2, steps=6)
        with page.expect_response(re.compile("/ice/")):
            page.mouse.up()


def cells(page, letter):
    return page.locator(f".ice-painter [data-row][data-letter='{letter}']")


def tick(page, group, word):
    with page.expect_response(re.compile("/entry/")):
        page.get_by_role("group", name=group).locator("label", has_text=word).click()
    page.wait_for_load_state()


@PHONE
def test_painted_by_finger_melted_and_proved_clear(open_stop, accessible):
    page = open_stop("Freezer 1", "arrive")
    tap(page, "coil")
    brush(page, "hard")
    paint_by_dragging(page, columns=(0, 2))
    expect(cells(page, "i")).to_have_count(15)
    expect(page.locator(".ice-reading")).to_contain_text("Ice on the first passes, bare behind")
    expect(page.locator(".ice-reading")).to_contain_text("30 % covered")
    page.locator("[data-place=valve_outlet]").click()
    expect(page.locator("[data-place=valve_outlet]")).to_contain_text("hard ice")
    accessible(page)
    page.get_by_role("button", name="Keep as before-map").click()
    expect(page.locator(".notice")).to_contain_text("before-map is kept")
    assert IceDrawing.objects.filter(stage="before", call__unit__name="Freezer 1", call__closed_at=None).count() == 1

    # Melt: held until the ticks are set, then a method, then the after-map.
    page.goto(page.url.split("?")[0].split("#")[0].replace("/arrive/", "/melt/"))
    expect(page.get_by_text("Water and heat must wait")).to_be_visible()
    expect(page.get_by_role("button", name="Start").first).to_be_disabled()
    tick(page, "Power locked out", "Power locked out")
    tick(page, "Boards, sensors, fans covered", "Boards, sensors, fans covered")
    tick(page, "Inside release", "works")
    tick(page, "Latch blocked", "Latch blocked")
    expect(page.locator("#melt-first")).to_contain_text("Ready")
    page.get_by_role("button", name="Start").first.click()
    expect(page.locator(".notice")).to_contain_text("started")
    expect(page.get_by_text("Still against all clear: no after-map yet")).to_be_visible()
    page.get_by_role("button", name="Rest", exact=True).click()
    expect(page.locator(".melt-runs")).to_contain_text("resting since")
    page.get_by_role("button", name="Go on").click()
    expect(page.locator(".melt-runs")).not_to_contain_text("resting")
    brush(page, "bare")
    page.get_by_role("button", name="Whole face").click()
    page.get_by_role("button", name="Rest is bare").click()
    page.get_by_role("button", name="Keep as after-map").click()
    expect(page.get_by_text("Every coil is drawn bare")).to_be_visible()
    accessible(page)
    page.get_by_role("button", name="All clear").click()
    expect(page.locator(".proved")).to_contain_text("All clear")
    assert Melt.objects.get(call__closed_at=None).clear


@ONE_SCREEN
def test_painted_by_keyboard(open_stop):
    page = open_stop("Freezer 1", "arrive")
    tap(page, "coil")
    face = page.locator(".ice-painter svg[tabindex]")
    face.focus()
    page.keyboard.press("s")
    for _ in range(3):
        page.keyboard.press("Space")
        page.keyboard.press("ArrowRight")
    page.keyboard.press("ArrowDown")
    page.keyboard.press("h")
    with page.expect_response(re.compile("/ice/")):
        page.keyboard.press("Enter")
    expect(cells(page, "s")).to_have_count(3)
    expect(face.locator("[data-row='1'][data-column='3']")).to_have_attribute("data-letter", "h")
    expect(page.locator(".ice-where")).to_contain_text("row 2, cell 4: heavy frost")
    # What was painted and not kept survives a lost page.
    page.reload()
    tap(page, "coil")
    expect(cells(page, "s")).to_have_count(3)
    page.keyboard.press("Tab")


@ONE_SCREEN
def test_paint_follows_the_pointer_at_once(open_stop):
    page = open_stop("Freezer 1", "arrive")
    tap(page, "coil")
    page.route("**/ice/", lambda route: None)
    brush(page, "snow")
    face = page.locator(".ice-painter svg[tabindex]")
    face.scroll_into_view_if_needed()
    cell = face.locator("[data-row='2'][data-column='5']")
    box = cell.bounding_box()
    page.mouse.move(box["x"] + 5, box["y"] + 5)
    page.mouse.down()
    # No answer of the server is needed for the paint to show.
    assert cell.get_attribute("data-letter") == "s"
    assert cell.get_attribute("fill") == "url(#ice-s)"
    page.mouse.up()
    page.unroute("**/ice/")


@ONE_SCREEN
def test_siblings_are_one_tap_each(open_stop):
    page = open_stop("Meat room", "arrive")
    for box in (0, 1):
        page.locator(".sibling").nth(box).get_by_role("button", name="fine").click()
        expect(page.locator(".sibling").nth(box).locator("button.strong")).to_have_text("fine")
    expect(page.locator("#siblings")).to_contain_text("are cleared")
    page.locator(".sibling").nth(0).get_by_role("button", name="bad too").click()
    expect(page.locator("#siblings")).to_contain_text("Some are bad too")
