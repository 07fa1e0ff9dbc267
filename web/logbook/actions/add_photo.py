"""Keep a photo: checked by its content, re-encoded, stripped of metadata, with a thumbnail."""

import io
import uuid

from django.core.files.base import ContentFile
from PIL import Image, ImageOps, UnidentifiedImageError

from kettle.benches.ice.map import PLACES
from kettle.knowledge.errors import InputError
from web.accounts.access import require_same_shop
from web.logbook.actions import log
from web.logbook.actions.acting import action, require_open
from web.logbook.models import Photo

LARGEST_BYTES = 15 * 1024 * 1024
FORMATS = ("JPEG", "PNG", "WEBP")
LARGEST_PIXELS = 80_000_000
SIDE, THUMBNAIL_SIDE = 2400, 320


@action
def add_photo(user, call, upload, stop="", place="", caption="", **when):
    """Store a picture of a call, a stop or a place; InputError for anything that is not a sound JPEG, PNG or WebP."""
    require_same_shop(user, call)
    require_open(call)
    if upload is None:
        raise InputError("Photo: choose a picture first")
    if place and place not in (*PLACES, "face"):
        raise InputError(f"Photo: “{place[:30]}” is no place on the ice map")
    if upload.size > LARGEST_BYTES:
        raise InputError(f"Photo: {upload.size / 1024 / 1024:.1f} MB is more than {LARGEST_BYTES // 1024 // 1024} MB")
    picture = _open(upload)
    photo = Photo(call=call, by=user, stop=stop[:20], place=place[:30], caption=caption.strip()[:120], **when)
    name = f"{uuid.uuid4().hex}.jpg"
    photo.image.save(name, _encoded(picture, SIDE), save=False)
    photo.thumbnail.save(name, _encoded(picture, THUMBNAIL_SIDE), save=False)
    photo.save()
    log.write(user, "add_photo", call, photo=photo.pk, place=place)
    return photo


def _open(upload):
    refused = InputError("Photo: this is not a JPEG, PNG or WebP picture, or it is broken")
    try:
        picture = Image.open(upload, formats=FORMATS)
        if picture.width * picture.height > LARGEST_PIXELS:
            raise InputError(f"Photo: {picture.width} × {picture.height} is more than {LARGEST_PIXELS // 1_000_000} million pixels")
        picture.load()
    except InputError:
        raise
    except (UnidentifiedImageError, Image.DecompressionBombError, OSError, SyntaxError, ValueError):
        raise refused from None
    return ImageOps.exif_transpose(picture).convert("RGB")


def _encoded(picture, side):
    """The picture as JPEG bytes, no larger than `side`; only pixels are carried over, no metadata."""
    small = picture.copy()
    small.thumbnail((side, side))
    out = io.BytesIO()
    small.save(out, "JPEG", quality=85)
    return ContentFile(out.getvalue())
