"""A pressure control set by dragging and by keys, and two cycles watched."""

from datetime import timedelta

from django.utils import timezone
from playwright.sync_api import expect

from tests.browser.conftest import ONE_SCREEN
from web.logbook.models import SettingChange, SwitchMoment


def dragged(page, end, by):
    """Drag a handle of the switch by so many pixels; the answer is the page worked out anew."""
    box = page.locator(f".handle[data-end={end}] .body").bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x, y + by, steps=6)
    with page.expect_navigation():
        page.mouse.up()


@ONE_SCREEN
def test_a_switch_is_set_by_dragging_and_by_keys_kept_and_its_cycles_watched(open_stop, accessible):
    page = open_stop("Freezer 1", "programs")
    page.locator("main").get_by_role("link", name="Controls").click()
    page.get_by_label("It is").select_option("thermostat")
    page.get_by_role("button", name="Work it out").first.click()
    before = float(page.locator("#cut_in").input_value())
    dragged(page, "cut_in", -40)
    assert float(page.locator("#cut_in").input_value()) > before + 2.0
    accessible(page)
    page.locator(".handle[data-end=cut_out]").focus()
    page.keyboard.press("ArrowUp")
    page.keyboard.press("ArrowUp")
    with page.expect_navigation():
        page.keyboard.press("Enter")
    left = page.locator("#cut_out").input_value()
    page.get_by_label("Cut-in as found").fill("20")
    page.get_by_label("Cut-out as found").fill("5")
    page.get_by_label("Why", exact=True).fill("froze the stock")
    page.get_by_role("button", name="Left at").click()
    expect(page.get_by_text("Switch kept as found and as left")).to_be_visible()
    assert SettingChange.objects.filter(parameter="lp_cut_out", as_left__startswith=left.split(".")[0]).exists()
    for word, box in (("It starts", "2"), ("It stops", "-9"), ("It starts", "1"), ("It stops", "-8"), ("It starts", "2")):
        page.get_by_label("Box now").fill(box)
        with page.expect_navigation():
            page.get_by_role("button", name=word).click()
    # Tapped in a breath they are no cycles; as they are watched, minutes lie between.
    expect(page.locator("#cycles tbody tr")).to_have_count(0)
    for before, row in enumerate(SwitchMoment.objects.order_by("-pk")):
        SwitchMoment.objects.filter(pk=row.pk).update(at=timezone.now() - timedelta(minutes=9.0 * before))
    page.reload()
    expect(page.locator("#cycles tbody tr")).to_have_count(2)
    expect(page.locator("#cycles")).to_contain_text("is wanted")


@ONE_SCREEN
def test_all_settings_of_a_unit_on_a_card(open_stop, accessible):
    page = open_stop("Freezer 1", "controls")
    page.get_by_role("link", name="All settings").click()
    expect(page.locator("main table")).to_contain_text("Boils at")
    accessible(page)
