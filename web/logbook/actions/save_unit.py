"""Add a unit to a site, or correct its plate."""

from web.accounts.access import require_same_shop, shop_of
from web.logbook.actions import log
from web.logbook.actions.acting import action
from web.logbook.models import Site, Unit


@action
def save_unit(user, unit, site_name, altitude_ft=None, plate_photo=None):
    """Store a checked unit on a site of the shop, new or known by name; an altitude is that of the site.

    `plate_photo` is a prepared picture: its name, the picture, its thumbnail."""
    shop = shop_of(user)
    if unit.pk is None:
        unit.shop = shop
    require_same_shop(user, unit)
    before = Unit.objects.filter(pk=unit.pk).first()
    unit.site = site_named(user, site_name)
    if altitude_ft is not None:
        unit.altitude_ft, unit.site.altitude_ft = None, round(altitude_ft)
        unit.site.save(update_fields=["altitude_ft"])
        for other in unit.site.units.exclude(pk=unit.pk):
            log.revise(other)
    if plate_photo is not None:
        name, large, small = plate_photo
        unit.plate_photo.save(name, large, save=False)
        unit.plate_small.save(name, small, save=False)
    unit.save()
    if before is not None:
        log.revise(before)
    log.of_unit(user, "save_unit", unit, name=str(unit))
    return unit


@action
def site_named(user, name):
    """The site of the shop with a name; made where there is none."""
    site, _ = Site.objects.get_or_create(shop=shop_of(user), name=name.strip())
    return site
