"""Hostile pictures: refused before they are decoded, and what is decoded takes little memory, also three at once."""

import io
import subprocess
import sys
import textwrap

import pytest
from django.conf import settings
from django.core.files.uploadedfile import SimpleUploadedFile
from PIL import Image

from kettle.knowledge.errors import InputError
from web.logbook import kept_files
from web.logbook.actions.add_photo import add_photo
from web.logbook.models import Photo
from web.logbook.photos import pictures

MOST_MB = 200


def picture(width, height, form="JPEG", **how):
    out = io.BytesIO()
    Image.new("RGB", (width, height), (40, 90, 160)).save(out, form, **how)
    return SimpleUploadedFile("x", out.getvalue())


@pytest.mark.parametrize(
    ("width", "height", "form", "how"),
    [(12000, 9000, "PNG", {}), (7000, 6000, "JPEG", {"progressive": True}), (5000, 4000, "WEBP", {}), (21000, 10, "JPEG", {})],
)
def test_what_would_have_to_be_held_whole_is_refused_before_it_is_decoded(width, height, form, how, monkeypatch):
    upload = picture(width, height, form, **how)
    monkeypatch.setattr(Image.Image, "load", lambda self: pytest.fail("it was decoded"))
    with pytest.raises(InputError, match="is more than"):
        pictures.prepared(upload)


def test_a_large_camera_picture_is_kept_small_and_upright(user, call, settings, tmp_path):
    settings.MEDIA_ROOT = tmp_path
    exif = Image.Exif()
    exif[0x0112] = 6
    kept = add_photo(user, call, picture(8000, 6000, exif=exif.tobytes()), stop="arrive")
    with Image.open(kept.image) as image:
        assert image.size == (1800, 2400) and not image.getexif()
    assert (tmp_path / kept.image.name).stat().st_mode & 0o077 == 0


# Three threads keep the largest pictures that are taken; prints megabytes over what it was before.
HEAVY = """
import io, resource, threading
import django; django.setup()
from django.core.files.uploadedfile import SimpleUploadedFile
from PIL import Image
from web.logbook.photos import pictures
def made(size, form, **how):
    out = io.BytesIO(); Image.new("RGB", size, (9, 9, 9)).save(out, form, **how); return out.getvalue()
sorts = [made((4890, 4890), "PNG"), made((4890, 4890), "JPEG", progressive=True), made((14000, 14000), "JPEG")]
peak = lambda: resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
def status(name):
    return next(int(line.split()[1]) / 1024 for line in open("/proc/self/status") if line.startswith(name))
open("/proc/self/clear_refs", "w").write("5")
before = status("VmRSS")
threads = [threading.Thread(target=lambda data=data: pictures.prepared(SimpleUploadedFile("x", data))) for data in sorts]
for thread in threads: thread.start()
for thread in threads: thread.join()
print(status("VmHWM") - before)
"""


def test_three_of_the_heaviest_at_once_take_little_memory(tmp_path):
    environment = {"KETTLE_DATA": str(tmp_path), "DJANGO_SETTINGS_MODULE": "web.settings", "PATH": ""}
    done = subprocess.run(
        [sys.executable, "-c", textwrap.dedent(HEAVY)], cwd=settings.ROOT, env=environment, capture_output=True, text=True
    )
    assert done.returncode == 0, done.stderr[-600:]
    assert float(done.stdout) < MOST_MB, f"{done.stdout.strip()} MB over idle"


def test_a_photo_that_cannot_be_kept_leaves_no_file_and_what_was_cut_off_is_swept(user, call, settings, tmp_path, monkeypatch):
    settings.MEDIA_ROOT = tmp_path
    kept = add_photo(user, call, picture(400, 300))
    monkeypatch.setattr("web.logbook.actions.add_photo._keep", lambda *given: (_ for _ in ()).throw(InputError("no")))
    with pytest.raises(InputError):
        add_photo(user, call, picture(400, 300))
    assert len(list(tmp_path.rglob("*.jpg"))) == 2 and Photo.objects.count() == 1
    orphan = tmp_path / "photos" / "cut-off.jpg"
    orphan.write_bytes(b"half")
    assert kept_files.sweep() == 0, "an upload may still be writing it"
    assert kept_files.sweep(now=orphan.stat().st_mtime + 2 * kept_files.ORPHANED_S) == 1
    assert (tmp_path / kept.image.name).exists() and not orphan.exists()


def test_scans_are_counted_also_past_a_thumbnail():
    plain, progressive = picture(300, 200), picture(300, 200, progressive=True)
    assert pictures._scans(plain) == 1
    assert pictures._scans(progressive) > 1
    exif = Image.Exif()
    exif[0x010E] = "\xff\xda" * 40
    assert pictures._scans(picture(300, 200, exif=exif.tobytes())) == 1


def test_what_a_camera_wrote_beside_the_picture_goes_no_further():
    upload = picture(300, 200, comment=b"home address of the owner", icc_profile=b"a profile", dpi=(300, 300))
    _, large, small = pictures.prepared(upload)
    for made in (large, small):
        assert b"home address" not in made.read()
        assert "comment" not in Image.open(made).info


def test_a_picture_of_too_many_pixels_is_told_so_and_not_called_broken():
    # A header that says 15,000 × 15,000 is enough: nothing is decoded.
    whole = bytearray(picture(16, 16).read())
    frame = whole.index(b"\xff\xc0")
    whole[frame + 5 : frame + 9] = (15_000).to_bytes(2, "big") * 2
    with pytest.raises(InputError, match="more than 210 million pixels"):
        pictures.prepared(SimpleUploadedFile("x", bytes(whole)))
