"""Take the pictures of docs/screenshots from the demo data: the real application in headless Chromium.

Run by ./ok shots; with names as arguments only those, with --to FOLDER somewhere else.
"""

import argparse
import os
import socket
import subprocess
import sys
import tempfile
import time
import urllib.request
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

ROOT = Path(__file__).parent.parent
with socket.socket() as free:
    free.bind(("127.0.0.1", 0))
    PORT = free.getsockname()[1]
AT = f"http://127.0.0.1:{PORT}"
TABLET, PHONE = {"width": 1280, "height": 800}, {"width": 390, "height": 844}
# name: (screen, unit whose open call is shown or None, address behind the call or whole, what to do before)
VIEWS = {
    "board": (TABLET, None, "/", ""),
    "unit": (TABLET, None, "/units/1/", ""),
    "arrive": (TABLET, "Cooler 1", "arrive/", "whole"),
    "melt": (TABLET, "Cooler 1", "melt/", "whole"),
    "read": (TABLET, "Freezer 1", "read/", ""),
    "read-night": (TABLET, "Freezer 1", "read/", "night"),
    "judge": (TABLET, "Freezer 1", "judge/", ""),
    "correct": (TABLET, "Meat room", "correct/", ""),
    "hand-over": (TABLET, "Reach-in 2", "hand-over/", ""),
    "report": (TABLET, "Meat room", "report/", "whole"),
    "read-phone": (PHONE, "Freezer 1", "read/", ""),
    "standing-phone": (PHONE, "Freezer 1", "judge/", "sheet"),
}


def take(page: Page, name: str, folder: Path) -> None:
    """Take one picture."""
    screen, unit, address, act = VIEWS[name]
    page.set_viewport_size(screen)
    page.goto(f"{AT}/")
    if unit:
        page.locator("section", has=page.locator("#in-progress")).get_by_text(unit, exact=False).first.click()
        call = page.url.split("/calls/")[1].split("/")[0]
        address = f"/calls/{call}/{address}"
    page.goto(f"{AT}{address}")
    if act == "night":
        page.get_by_role("button", name="Night").click()
    if act == "sheet":
        page.locator(".sheet-handle").click()
    page.wait_for_timeout(150)
    page.screenshot(path=folder / f"{name}.png", full_page=act == "whole")
    if act == "night":
        page.get_by_role("button", name="Night").click()


def main() -> None:
    """Start the demo on data of its own, log in, take the pictures."""
    parser = argparse.ArgumentParser()
    parser.add_argument("names", nargs="*", default=list(VIEWS))
    parser.add_argument("--to", type=Path, default=ROOT / "docs" / "screenshots")
    arguments = parser.parse_args()
    arguments.to.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as data:
        environment = {**os.environ, "KETTLE_DATA": data}
        command = [sys.executable, "manage.py", "demo", "--fresh", "--port", str(PORT)]
        server = subprocess.Popen(command, cwd=ROOT, env=environment, stdout=subprocess.DEVNULL)
        try:
            for _ in range(100):
                try:
                    urllib.request.urlopen(f"{AT}/login/")
                    break
                except OSError:
                    time.sleep(0.2)
            with sync_playwright() as playwright:
                browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=["--no-sandbox"])
                page = browser.new_page(viewport=TABLET, color_scheme="light")
                page.goto(f"{AT}/login/")
                page.get_by_label("Username").fill("wren")
                page.get_by_label("Password").fill("orange-kettle-demo")
                page.get_by_role("main").get_by_role("button", name="Log in").click()
                for name in arguments.names:
                    take(page, name, arguments.to)
                browser.close()
        finally:
            server.terminate()
            server.wait()


if __name__ == "__main__":
    main()
