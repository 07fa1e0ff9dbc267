"""Begin a practice call: its draw, a shop of its own, a unit, and the call; and join somebody else's."""

import secrets

from kettle.knowledge.errors import InputError
from kettle.plant.sizing import sized
from kettle.yard import draw
from kettle.yard.drawn import OZ_PER_LB
from kettle.yard.spoken import ALL, HELPS
from web.accounts.access import shop_of
from web.accounts.models import Shop
from web.logbook.actions.acting import action
from web.logbook.actions.open_call import open_call
from web.logbook.models import Site, Unit
from web.yard.inside import inside
from web.yard.models import Joined, Practice
from web.yard.rigs import stored

LARGEST_NUMBER = 999_999
MOST = 5000
# What of a spec a unit of the logbook has under the same name.
PLATE = ("kind", "refrigerant", "metering", "condensing", "head_control", "defrost", "box_control", "receiver", "set_f", "differential_f",
         "critical_charge_oz", "compressor_rla_a", "nameplate_v", "phases", "evaporators")  # fmt: skip


@action
def begin(user, one=None, number=None, kind="", refrigerant="", difficulty="", outside_f=None, help_by=ALL, lesson="", scenario=None):
    """Begin a practice call on a draw, `one` or that of a number with what was chosen; InputError for what cannot be drawn."""
    shop = shop_of(user)
    if help_by not in HELPS:
        raise InputError(f"Help: “{help_by[:20]}” is none of {', '.join(HELPS)}")
    if Practice.objects.filter(learner=user).count() >= MOST:
        raise InputError(f"You have {MOST} practice calls, which is all one person can have")
    if one is None:
        number = number if number is not None else 1 + secrets.randbelow(LARGEST_NUMBER)
        one = draw(number, kind, refrigerant, difficulty, outside_f)
    own = Shop.with_practice.create(
        name=f"Practice yard {secrets.token_hex(6)}", practice=True, valve_school=shop.valve_school, work_school=shop.work_school,
    )  # fmt: skip
    practice = Practice.objects.create(
        shop=own, of_shop=shop, learner=user, number=one.number, lesson=lesson, scenario=scenario, drawn=stored(one),
        difficulty=one.difficulty, help=help_by,
    )  # fmt: skip
    # It stands on every page, print and file that names the shop.
    own.name = f"PRACTICE {practice.pk}: not a real unit, not a real visit"
    own.save(update_fields=["name"])
    with inside(user, practice):
        _open(user, practice, one)
    return practice


def _open(user, practice, one):
    """The unit, and the call on it, in words of the story."""
    # A draw that somebody may take too is known by its number.
    name = one.unit.kind.label.capitalize() + (f" {one.number}" if one.number <= LARGEST_NUMBER else "")
    site = Site.objects.create(shop=practice.shop, name=f"Practice {practice.pk}")
    plate = {field: getattr(one.spec, field) for field in PLATE}
    unit = Unit.objects.create(
        shop=practice.shop, site=site, name=name, label_charge_oz=None if one.spec.critical_charge_oz else _charge_oz(one),
        **{field: value for field, value in plate.items() if value is not None},
    )  # fmt: skip
    open_call(user, unit, one.story)


def _charge_oz(one):
    """What its plate says is in it when it is sound."""
    return round(float(sized(one.unit).parts.charge_lb[0]) * OZ_PER_LB)


@action
def join(user, key, role):
    """Join the practice call of a key as another pair of hands, or to teach; InputError for a key that is none of this shop."""
    practice = Practice.objects.filter(of_shop=shop_of(user), key=key.strip().upper()).first()
    if practice is None:
        raise InputError(f"Word: no practice call of this shop is called “{key.strip()[:10]}”")
    if role not in dict(Joined.ROLES):
        raise InputError("Choose: work with, or teach")
    if practice.learner_id == user.pk:
        raise InputError("That is your own practice call")
    Joined.objects.update_or_create(practice=practice, user=user, defaults={"role": role})
    return practice
