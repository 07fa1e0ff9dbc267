"""Take the pictures of docs/screenshots from the demo data: the real application in headless Chromium.

Run by ./ok shots; with names as arguments only those, with --to FOLDER somewhere else.
"""

import argparse
from pathlib import Path

from playwright.sync_api import Page
from served import ROOT, TABLET, logged_in_page, open_call_on

PHONE = {"width": 390, "height": 844}
# name: (screen, unit whose open call is shown or None, address behind the call or whole, what to do before)
VIEWS = {
    "board": (TABLET, None, "/", ""),
    "unit": (TABLET, None, "/units/2/", ""),
    "arrive": (TABLET, "Cooler 1", "arrive/", ""),
    "melt": (TABLET, "Cooler 1", "melt/", "whole"),
    "read": (TABLET, "Freezer 1", "read/", ""),
    "ladder": (TABLET, None, "/ladder/?refrigerant=R-448A&pressure=31&altitude_ft=4200", ""),
    "power": (TABLET, "Cave cooler", "power/", ""),
    "programs": (TABLET, "Freezer 1", "programs/", "drawn"),
    "judge": (TABLET, "Freezer 1", "judge/", ""),
    "valve": (TABLET, "Meat room", "valve/", ""),
    "charge": (TABLET, "Under-counter 3", "charge/", ""),
    "prove": (TABLET, "Cheese case", "prove/", "charted"),
    "trends": (TABLET, None, "/units/1/trends/", "charted"),
    "hand-over": (TABLET, "Bouquet cooler", "hand-over/", "whole"),
    "report": (TABLET, "Meat room", "report/", "whole"),
    "controls": (TABLET, "Bottle cooler 2", "controls/", ""),
    "arrive-phone": (PHONE, "Cooler 1", "arrive/", ""),
    "yard": (TABLET, None, "/yard/lessons/fan-dead/", "practised"),
    "refrigerant": (TABLET, "Dough freezer", "refrigerant/#evacuation", ""),
}


def take(page: Page, at: str, name: str, folder: Path) -> None:
    """Take one picture."""
    screen, unit, address, act = VIEWS[name]
    page.set_viewport_size(screen)
    if unit:
        open_call_on(page, at, unit, address)
    else:
        page.goto(f"{at}{address}")
    if act == "drawn":
        page.locator(".dial-figures").wait_for()
    if act == "charted":
        page.locator(".trend canvas").wait_for()
    if act == "practised":
        practise(page)
    page.wait_for_timeout(150)
    page.screenshot(path=folder / f"{name}.png", full_page=act == "whole")


def practise(page: Page) -> None:
    """Begin a lesson and take some readings on Read."""
    page.get_by_role("button", name="Begin").click()
    page.goto(page.url.replace("/arrive/", "/read/"))
    for key in ("box_temp_f", "evap_fans", "ice_form", "compressor", "ambient_f"):
        with page.expect_response(lambda response: "/entry/" in response.url):
            page.locator(f"#in-{key}").first.click()


def main() -> None:
    """Take the pictures asked for, or all of them."""
    parser = argparse.ArgumentParser()
    parser.add_argument("names", nargs="*", default=list(VIEWS))
    parser.add_argument("--to", type=Path, default=ROOT / "docs" / "screenshots")
    arguments = parser.parse_args()
    arguments.to.mkdir(parents=True, exist_ok=True)
    with logged_in_page() as (page, at):
        for name in arguments.names:
            take(page, at, name, arguments.to)


if __name__ == "__main__":
    main()
