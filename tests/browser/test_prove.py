"""Prove through the real interface: from a dropped file to *may be left*, the chart by keys, and a reminder."""

from datetime import UTC, datetime, timedelta

from playwright.sync_api import expect

from tests.browser.conftest import ONE_SCREEN
from web.logbook.models import BoxWatch, Call, TrendLog


def logger_file(folder):
    """Two days of a cooler as a logger of decimal commas writes them, with its own words for its columns."""
    begins, rows = datetime(2026, 11, 2, 6, 0, tzinfo=UTC), ["Logger 4471;;", "Zeit;Raum temp °C;Defrost"]
    for n in range(2 * 24 * 30):
        minute = 2 * n
        into = minute % 480
        air = 2.4 + (minute % 32 - 16) / 16 + (3.0 * into / 24 if into < 24 else max(0.0, 3.0 - (into - 24) / 10))
        rows.append(f"{begins + timedelta(minutes=minute):%d.%m.%Y %H:%M};{air:.1f};{'on' if into < 24 else 'off'}".replace(".", ",", 0))
    text = "\n".join(rows[:2] + [row.split(";")[0] + ";" + row.split(";", 1)[1].replace(".", ",") for row in rows[2:]])
    path = folder / "raum-4.csv"
    path.write_text(text)
    return path


@ONE_SCREEN
def test_from_a_dropped_file_to_may_be_left(open_stop, accessible, tmp_path, screen):
    page = open_stop("Bouquet cooler", "prove")
    expect(page.get_by_role("heading", name="Not yet")).to_be_visible()
    accessible(page)
    page.get_by_label("drop it here").set_input_files(logger_file(tmp_path))
    page.get_by_role("button", name="See what it holds").click()
    expect(page.get_by_role("heading", name="What is in its columns?")).to_be_visible()
    accessible(page)
    # What its headers say is matched already; nothing else is asked for.
    expect(page.locator("#role-1")).to_have_value("box_f")
    expect(page.locator("#unit-1")).to_have_value("°C")
    page.get_by_role("button", name="Read it").click()
    expect(page.get_by_role("heading", name="Prove", exact=True)).to_be_visible()
    expect(page.locator("#logs canvas")).to_be_visible()
    log = TrendLog.objects.get(name="raum-4.csv")
    assert log.state == "ready" and log.rows == 1440
    shows = page.locator(".findings li", has_text="raum-4.csv").filter(has_text="defrosts of 24 min")
    expect(shows).to_have_count(1)
    shows.get_by_role("button", name="Take").click()
    expect(page.locator(".messages")).to_contain_text("marked as from a log")
    assert log.call.readings.filter(source="log", key="defrosts_per_day").get().value == 3
    page.get_by_role("button", name="Seen: Air felt at every section").click()
    expect(page.locator("#proofs")).to_contain_text("Take back")
    page.get_by_label("Box now").fill("36,5")
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.get_by_role("heading", name="May be left")).to_be_visible()
    accessible(page)
    if screen == "phone":
        assert page.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth") == 0


@ONE_SCREEN
def test_the_chart_is_moved_by_keys_and_buttons_and_columns_are_put_away(logged_in, live_server):
    page = logged_in
    unit = Call.objects.get(unit__name="Bouquet cooler", closed_at=None).unit
    page.goto(f"{live_server.url}/units/{unit.pk}/trends/")
    expect(page.locator(".trend canvas")).to_be_visible()
    told = page.locator("[data-told]")
    before = told.inner_text()

    def moved(act):
        nonlocal before
        act()
        expect(told).not_to_have_text(before)
        before = told.inner_text()

    plot = page.locator("[data-plot]")
    plot.focus()
    moved(lambda: page.keyboard.press("ArrowLeft"))
    moved(lambda: page.keyboard.press("+"))
    moved(lambda: page.get_by_role("button", name="All", exact=True).click())
    moved(lambda: page.get_by_role("link", name="Show:").first.click())
    moved(lambda: page.get_by_role("button", name="Day", exact=True).click())
    chip = page.get_by_role("button", name="Box air")
    expect(chip).to_have_attribute("aria-pressed", "true")
    chip.click()
    expect(page.get_by_role("button", name="Box air")).to_have_attribute("aria-pressed", "false")


@ONE_SCREEN
def test_a_reminder_finds_whoever_asked_for_it_on_any_page(open_stop, live_server, django_user_model):
    page = open_stop("Bouquet cooler", "prove")
    page.get_by_role("button", name="15 min", exact=True).click()
    expect(page.locator(".messages")).to_contain_text("You will be reminded")
    BoxWatch.objects.filter(remind_at__isnull=False).update(remind_at=datetime.now(UTC) - timedelta(minutes=1))
    page.goto(f"{live_server.url}/me/")
    strip = page.locator(".reminder")
    expect(strip).to_contain_text("Bouquet cooler")
    strip.get_by_role("button", name="To the box").click()
    expect(page.get_by_role("heading", name="The box, watched down")).to_be_visible()
    expect(page.locator(".reminder")).to_have_count(0)
