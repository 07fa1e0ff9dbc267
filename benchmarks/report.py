"""The report of a full call with thirty photos as PDF: seconds, megabytes, and how many times the page it is made of.

Run: python -m benchmarks.report [--photos 30]. A copy of the demo in memory; its call with most drawings, photos of noise, which compress
worst.
"""

import argparse
import io
import os
import statistics
import tempfile
import time

PHOTO = (4000, 3000)
RUNS = 3


def _photo(number):
    import numpy as np
    from django.core.files.uploadedfile import SimpleUploadedFile
    from PIL import Image

    rng = np.random.default_rng(number)
    small = Image.fromarray(rng.integers(0, 255, (PHOTO[1] // 8, PHOTO[0] // 8, 3), dtype=np.uint8))
    out = io.BytesIO()
    small.resize(PHOTO).save(out, "JPEG", quality=85)
    return SimpleUploadedFile(f"{number}.jpg", out.getvalue(), content_type="image/jpeg")


def _timed(client, address):
    took = []
    for _ in range(RUNS):
        begins = time.perf_counter()
        answer = client.get(address)
        took.append(time.perf_counter() - begins)
        assert answer.status_code == 200, answer.status_code
    return statistics.median(took), len(answer.content)


def main():
    """Load the demo, hang photos on a call, print what its report takes."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--photos", type=int, default=30)
    photos = parser.parse_args().photos
    os.environ["KETTLE_DATA"] = tempfile.mkdtemp()
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "web.settings")
    import django

    django.setup()
    from django.core.management import call_command
    from django.test import Client
    from django.urls import reverse

    from web.demo import load
    from web.logbook.actions.add_photo import add_photo
    from web.logbook.models import Call

    call_command("migrate", verbosity=0)
    load.load()
    call = max(Call.objects.filter(closed_at=None), key=lambda one: (one.icedrawings.count(), one.readings.count()))
    for number in range(photos):
        add_photo(call.opened_by, call, _photo(number), caption=f"Photo {number + 1}")
    client = Client(headers={"host": "localhost"})
    client.force_login(call.opened_by)
    page_s, _ = _timed(client, reverse("report", args=[call.number]))
    pdf_s, size = _timed(client, reverse("report-pdf", args=[call.number]))
    print(f"{call}, {photos} photos: page {page_s:.2f} s, PDF {pdf_s:.2f} s ({pdf_s / page_s:.1f} times the page), {size / 1e6:.2f} MB")


if __name__ == "__main__":
    main()
