"""The application on demo data of its own, and a browser page logged in to it: for pictures and measurements."""

import os
import socket
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

ROOT = Path(__file__).parent.parent
TABLET = {"width": 1280, "height": 800}
PATIENCE_S = 90


def free_port() -> int:
    """Return a port nobody listens on."""
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        return int(free.getsockname()[1])


@contextmanager
def logged_in_page() -> Iterator[tuple[Page, str]]:
    """Yield a page logged in as a technician of a fresh demo, and the address it is served at."""
    port = free_port()
    at = f"http://127.0.0.1:{port}"
    with tempfile.TemporaryDirectory() as data:
        command = [sys.executable, "manage.py", "demo", "--fresh", "--port", str(port)]
        server = subprocess.Popen(command, cwd=ROOT, env={**os.environ, "KETTLE_DATA": data}, stdout=subprocess.DEVNULL)
        try:
            _wait_for(f"{at}/login/")
            with sync_playwright() as playwright:
                browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=["--no-sandbox"])
                page = browser.new_page(viewport=TABLET, color_scheme="light")
                page.goto(f"{at}/login/")
                page.get_by_label("Username").fill("wren")
                page.get_by_label("Password").fill("orange-kettle-demo")
                page.get_by_role("main").get_by_role("button", name="Log in").click()
                yield page, at
                browser.close()
        finally:
            server.terminate()
            server.wait()


def open_call_on(page: Page, at: str, unit: str, stop: str) -> None:
    """Go to a stop of the open call on a demo unit."""
    page.goto(f"{at}/")
    page.locator("section", has=page.locator("#in-progress")).get_by_text(unit, exact=False).first.click()
    number = page.url.split("/calls/")[1].split("/")[0]
    page.goto(f"{at}/calls/{number}/{stop}")


def _wait_for(address: str) -> None:
    end = time.monotonic() + PATIENCE_S
    while True:
        try:
            urllib.request.urlopen(address)
            return
        except OSError:
            if time.monotonic() > end:
                raise
            time.sleep(0.1)
