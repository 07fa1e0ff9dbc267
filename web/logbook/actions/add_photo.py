"""Keep a photo: checked by its content, re-encoded, stripped of metadata, with a thumbnail."""

from kettle.benches.ice.map import PLACES
from kettle.knowledge.errors import InputError
from web.accounts.access import require_same_shop
from web.logbook.actions import log
from web.logbook.actions.acting import action, outside, require_open
from web.logbook.models import Photo
from web.logbook.photos import pictures


@outside
def add_photo(user, call, upload, stop="", place="", caption="", **when):
    """Store a picture of a call, a stop or a place; InputError for anything that is not a sound JPEG, PNG or WebP."""
    require_same_shop(user, call)
    require_open(call)
    if place and place not in (*PLACES, "face"):
        raise InputError(f"Photo: “{place[:30]}” is no place on the ice map")
    name, large, small = pictures.prepared(upload)
    photo = Photo(call=call, by=user, stop=stop[:20], place=place[:30], caption=caption.strip()[:120], **when)
    try:
        photo.image.save(name, large, save=False)
        photo.thumbnail.save(name, small, save=False)
        return _keep(user, call, photo)
    except BaseException:
        for file in (photo.image, photo.thumbnail):
            if file:
                file.delete(save=False)
        raise


@action
def _keep(user, call, photo):
    require_open(call)
    photo.save()
    log.write(user, "add_photo", call, photo=photo.pk, place=photo.place)
    return photo
