"""Pictures: checked by their content before anything is decoded, decoded one at a time and small, written anew without metadata."""

import base64
import io
import threading
import uuid
import warnings

from django.core.files.base import ContentFile
from PIL import Image, ImageOps, UnidentifiedImageError

from kettle.knowledge.errors import InputError

LARGEST_BYTES = 15 * 1024 * 1024
FORMATS = ("JPEG", "PNG", "WEBP")
SIDE, THUMBNAIL_SIDE = 2400, 320
# A camera's JPEG is decoded at a half, a quarter or an eighth of its size, row by row; what must be held whole is held to less.
LARGEST_MP = {"JPEG": 210, "whole": 24, "PNG": 24, "WEBP": 16}
LONGEST_SIDE = 20_000
# The library refuses by itself from twice this on.
Image.MAX_IMAGE_PIXELS = LARGEST_MP["JPEG"] * 500_000
_one_at_a_time = threading.Semaphore(1)
_PATIENCE_S = 30


def prepared(upload):
    """Return a picture and its thumbnail as JPEG files with a name nobody else has; InputError for what is not a sound picture."""
    if upload is None:
        raise InputError("Photo: choose a picture first")
    if upload.size > LARGEST_BYTES:
        raise InputError(f"Photo: {upload.size / 1024 / 1024:.1f} MB is more than {LARGEST_BYTES // 1024 // 1024} MB")
    if not _one_at_a_time.acquire(timeout=_PATIENCE_S):
        raise InputError("Photo: several others are being kept right now; send it again in a moment")
    try:
        picture = _opened(upload)
        name = f"{uuid.uuid4().hex}.jpg"
        large = _encoded(picture, SIDE)
        return name, large, _encoded(picture, THUMBNAIL_SIDE)
    finally:
        _one_at_a_time.release()


def _opened(upload):
    """The picture upright and no larger than it is kept."""
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore", Image.DecompressionBombWarning)
            picture = Image.open(upload, formats=FORMATS)
        _check_size(picture, upload)
        if picture.format == "JPEG":
            picture.draft("RGB", (SIDE, SIDE))
        picture.thumbnail((SIDE, SIDE), reducing_gap=2.0)
        return ImageOps.exif_transpose(picture).convert("RGB")
    except InputError:
        raise
    except Image.DecompressionBombError:
        raise InputError(f"Photo: it is more than {LARGEST_MP['JPEG']} million pixels") from None
    except (UnidentifiedImageError, OSError, SyntaxError, ValueError, MemoryError):
        raise InputError("Photo: this is not a JPEG, PNG or WebP picture, or it is broken") from None


def _check_size(picture, upload):
    """Refuse dimensions that would take too much memory to decode, before anything is decoded."""
    megapixels, most = picture.width * picture.height / 1e6, LARGEST_MP[picture.format]
    if picture.format == "JPEG" and _scans(upload) != 1:
        most = LARGEST_MP["whole"]
    if megapixels > most or max(picture.size) > LONGEST_SIDE:
        raise InputError(f"Photo: {picture.width} × {picture.height} is more than {most} million pixels, or a side over {LONGEST_SIDE}")


def _scans(upload):
    """How many scans a JPEG is in; one that is not in one scan has to be held whole while it is decoded."""
    upload.seek(0)
    data = upload.read()
    upload.seek(0)
    place, scans = 2, 0
    while place + 4 <= len(data) and data[place] == 0xFF:
        marker = data[place + 1]
        if marker == 0xFF:
            place += 1
            continue
        if marker == 0xD9:
            break
        length = int.from_bytes(data[place + 2 : place + 4], "big")
        place += 2 + length
        if marker == 0xDA:
            scans += 1
            # The scan itself ends at the next marker that is neither stuffing nor a restart.
            place = data.find(b"\xff", place)
            while 0 <= place < len(data) - 1 and (data[place + 1] == 0 or 0xD0 <= data[place + 1] <= 0xD7):
                place = data.find(b"\xff", place + 2)
            if place < 0:
                break
    return scans


def _encoded(picture, side):
    """The picture as JPEG bytes, no larger than `side`; only pixels are carried over, no metadata."""
    small = picture.copy()
    small.thumbnail((side, side))
    # A comment, a profile, a place: what the camera wrote beside the picture goes no further.
    small.info = {}
    out = io.BytesIO()
    small.save(out, "JPEG", quality=85)
    return ContentFile(out.getvalue())


def image_of(photo):
    """A photo as the address of an image that needs no other, as small as it is printed."""
    with photo.thumbnail.open("rb") as file:
        return f"data:image/jpeg;base64,{base64.b64encode(file.read()).decode()}"
