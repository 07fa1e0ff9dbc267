"""The photos of a call as its screens show them."""

from kettle.benches.ice import map as ice
from web.round.stops import STOPS


def photo_context(call):
    """The photos of a call with what they are of, and the places a photo can be of."""
    photos = list(call.photos.filter(undone_at=None))
    labels = {**{f"place:{code}": place.label for code, place in ice.PLACES.items()}, "place:face": "Coil face"}
    labels |= {f"stop:{stop.slug}": stop.label for stop in STOPS}
    for photo in photos:
        photo.of_words = labels.get(f"place:{photo.place}") or labels.get(f"stop:{photo.stop}", "")
    return {"photos": photos, "ice_places": ice.PLACES.values()}
