"""The owner's screens and the log-in, in the browser."""

from playwright.sync_api import expect

from tests.browser.conftest import PHONE
from web.logbook.models import Device


@PHONE
def test_the_owner_adds_a_person_and_a_device_and_reads_the_log(app, live_server, accessible):
    page = app
    page.goto(f"{live_server.url}/me/")
    page.get_by_role("link", name="Shop").click()
    accessible(page)
    page.get_by_label("Name", exact=True).fill("Runa Vik")
    page.get_by_label("Logs in as").fill("runa")
    page.get_by_role("button", name="Add this person").click()
    expect(page.get_by_role("alert")).to_contain_text("it is not shown again")
    password = page.locator(".password").inner_text()
    page.get_by_label("What it is called").fill("Van 2 probes")
    page.get_by_label("Address, host:port").fill("nowhere")
    page.get_by_role("button", name="Add this device").click()
    expect(page.get_by_text("is not host:port")).to_be_visible()
    expect(page.get_by_label("What it is called")).to_have_value("Van 2 probes")
    page.get_by_label("Address, host:port").fill("192.168.8.31:9471")
    page.get_by_role("button", name="Add this device").click()
    expect(page.get_by_text("192.168.8.31:9471")).to_be_visible()
    assert Device.objects.filter(name="Van 2 probes", simulated=False).exists()
    page.get_by_role("link", name="Who did what").click()
    expect(page.get_by_label("Log")).to_contain_text("add person")
    accessible(page)
    page.goto(f"{live_server.url}/me/")
    page.get_by_role("button", name="Log out").click()
    page.get_by_label("Username").fill("runa")
    page.get_by_label("Password").fill(password)
    page.get_by_label("This is my own device").check()
    accessible(page)
    page.get_by_role("main").get_by_role("button", name="Log in").click()
    expect(page.get_by_role("heading", name="In progress")).to_be_visible()
