"""Thirty hostile logs and pictures sent to one server, one after another: the memory each took, while twenty technicians work beside them.

Run with the test requirements installed: python -m benchmarks.uploads
"""

import io
import time
import urllib.request
import zlib

from PIL import Image

from benchmarks.load import Technician, multipart, pace_of_machine, served

PEOPLE, PACE_S, MOST_MB, WANTED_P95_S = 20, 8.0, 200.0, 0.5
# What was taken is read so long before the next is sent.
READ_S = 6.0
TIME = b"time,box F\n2026-01-01 10:00,31\n2026-01-01 10:01,31\n"


def _picture(form, size, **how):
    out = io.BytesIO()
    Image.new("RGB", size, (40, 90, 160)).save(out, form, **how)
    return out.getvalue()


def _flat_png(side):
    """A PNG that says so many pixels and holds a few bytes: its lines unpack from nothing."""
    whole = bytearray(_picture("PNG", (8, 8)))
    whole[16:24] = side.to_bytes(4, "big") * 2
    whole[29:33] = zlib.crc32(bytes(whole[12:29])).to_bytes(4, "big")
    return bytes(whole)


def logs():
    """Logs that are none, by a word for what is wrong with them."""
    return {
        "64 KB of commas": b"," * 64_000, "8 MB of commas": b"," * 8_000_000, "8 MB of line ends": b"\n" * 8_000_000,
        "one cell of 60,000 digits": TIME + b"2026-01-01 10:02," + b"9" * 60_000,
        "one cell of 8 MB": TIME + b'2026-01-01 10:02,"' + b"9" * 8_000_000,
        "quotation marks": b'"' * 4_000_000, "a quotation mark without its end": TIME + b'"' + b"2026-01-01 10:02,31\n" * 200_000,
        "times in every column": (b"1:11," * 58 + b"1\n") * 20_000, "nothing but letters": b"a" * 8_000_000,
        "nothing but zeros": b"\0" * 8_000_000, "semicolons and tabs": b";\t" * 2_000_000, "one long row": b"1," * 4_000_000,
        "many short rows": TIME + b"2026-01-01 10:02,31\n" * 400_000, "bytes of no letters": bytes(range(128, 256)) * 30_000,
        "UTF-16": TIME.decode().encode("utf-16") * 20_000, "half a letter at each end": b"\xe2\x82" * 1_000_000,
    }  # fmt: skip


def pictures():
    """Pictures no camera makes, by a word for what is wrong with them."""
    jpeg, png = _picture("JPEG", (4890, 4890)), _picture("PNG", (4890, 4890))
    return {
        "24 megapixels, PNG": png, "24 megapixels, JPEG": jpeg,
        "24 megapixels, progressive": _picture("JPEG", (4890, 4890), progressive=True),
        "196 megapixels, JPEG": _picture("JPEG", (14_000, 14_000)), "25 megapixels, WebP": _picture("WEBP", (5000, 5000)),
        "a PNG that says 60,000 by 60,000": _flat_png(60_000), "a PNG that says 20,000 by 20,000": _flat_png(20_000),
        "21,000 by 10": _picture("JPEG", (21_000, 10)), "a JPEG cut off": jpeg[: len(jpeg) // 2], "a PNG cut off": png[: len(png) // 2],
        "a GIF": _picture("GIF", (3000, 3000)), "an SVG": b"<svg xmlns='http://www.w3.org/2000/svg'>" + b"<g>" * 500_000,
        "a TIFF": _picture("TIFF", (4000, 4000)), "a JPEG with 8 MB behind it": jpeg + b"\0" * 8_000_000,
    }  # fmt: skip


def _status(process, name):
    with open(f"/proc/{process.pid}/status") as status:
        return next(int(line.split()[1]) / 1024 for line in status if line.startswith(name))


class Sender(Technician):
    """Somebody who sends one file after another, and has read what was taken for a log."""

    def send(self, path, name, content, more):
        """One file as by a form; in how many seconds it was answered, and whether it was refused."""
        token = next(cookie.value for cookie in self.jar if cookie.name == "csrftoken")
        body, head = multipart({"csrfmiddlewaretoken": token, **more}, name, content)
        start = time.perf_counter()
        with self.browser.open(urllib.request.Request(f"{self.base}{path}", body, head), timeout=60) as answer:
            page = answer.read()
        took = time.perf_counter() - start
        if "/trends/" in answer.url and "/units/" not in answer.url:
            at = answer.url.removeprefix(self.base)
            self.ask(f"{at}read/", {"role-1": "box_f", "unit-1": "°F", "clock": "wall", "zone": "America/Denver"})
            time.sleep(READ_S)
            return took, "taken, and read"
        return took, "refused" if b'class="notice error"' in page else "kept"


def main():
    """Print what each upload took, the most of all, and how long the others waited."""
    files = [("/units/1/trends/add/", "log", what, content, {}) for what, content in logs().items()]
    files += [("/calls/201/photos/", "photo", what, content, {"stop": "arrive"}) for what, content in pictures().items()]
    with served(PEOPLE + 1) as (port, server):
        base = f"http://127.0.0.1:{port}"
        people = [Technician(base, number, PACE_S, float("inf")) for number in range(1, PEOPLE + 1)]
        sender = Sender(base, 0, PACE_S, 0.0)
        for person in (sender, *people):
            person.log_in()
        sender.ask("/calls/201/read/")
        for person in people:
            person.start()
        time.sleep(2 * PACE_S)
        for person in people:
            person.took.clear()
        most = 0.0
        for path, name, what, content, more in files:
            with open(f"/proc/{server.pid}/clear_refs", "w") as clear:
                clear.write("5")
            before = _status(server, "VmRSS")
            took, how = sender.send(path, name, content, more)
            memory = _status(server, "VmHWM") - before
            most = max(most, memory)
            print(f"{what:40} {len(content) / 1e6:5.1f} MB sent: {how}, {took:5.2f} s, {memory:5.0f} MB over what stood")
            time.sleep(2.0)
        took = sorted(seconds for person in people for seconds in list(person.took))
        failed = sum(person.failed for person in people)
        for person in people:
            person.until = 0.0
        for person in people:
            person.join()
    p95 = took[int(0.95 * len(took))]
    print(f"{len(files)} uploads, {most:.0f} MB at the most, {most / MOST_MB:.2f} of what is allowed")
    print(
        f"{PEOPLE} technicians meanwhile: {len(took)} answers, {failed} failed, p95 {p95:.2f} s, {p95 / WANTED_P95_S:.2f} of what is wanted"
    )
    print(f"1.5 million additions took {pace_of_machine():.2f} s")


if __name__ == "__main__":
    main()
