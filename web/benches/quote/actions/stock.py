"""Keep one's van: parts put on its list, counted, priced, dropped; and what of it was used on a call."""

from decimal import Decimal

from django.db.models import F

from kettle.benches.quote.price import parse_money, parse_quantity
from kettle.knowledge.errors import FieldErrors, InputError
from web.accounts.access import require_same_shop, shop_of
from web.logbook.actions import log
from web.logbook.actions.acting import action, on_call, require_open
from web.logbook.actions.undo_entry import undo_entry
from web.logbook.models import PartUsed, VanPart

LONGEST, MOST_IN_A_VAN, MOST_USED = 80, 400, 120
COUNTS = (("carried", "In the van"), ("wanted", "Should be"))


def _count(text):
    return Decimal(0) if text.strip() in ("", "0") else parse_quantity(text)


@action
def keep_part(user, typed, part=None):
    """Put a part on the list of one's van, or change one (`part`); FieldErrors by field, and nothing is stored then."""
    shop, wrong, values = shop_of(user), {}, {"what": " ".join(typed.get("what", "").split())}
    if part is not None and (part.shop_id != shop.pk or part.person_id != user.pk):
        raise InputError("That is in another van")
    if not 2 <= len(values["what"]) <= LONGEST:
        wrong["what"] = f"What: 2 to {LONGEST} letters"
    for name, label in COUNTS:
        try:
            values[name] = _count(typed.get(name, ""))
        except InputError as error:
            wrong[name] = f"{label}: {error}"
    try:
        values["cents"] = parse_money(typed.get("price", ""))
    except InputError as error:
        wrong["price"] = f"Price of one: {error}"
    mine = user.van_parts.exclude(pk=part.pk if part else None)
    if "what" not in wrong and any(one.what.casefold() == values["what"].casefold() for one in mine):
        wrong["what"] = f"What: {values['what']} is in the van already"
    if part is None and mine.count() >= MOST_IN_A_VAN:
        wrong["what"] = f"The van's list holds {MOST_IN_A_VAN} parts, which is all it can"
    if wrong:
        raise FieldErrors(wrong)
    part = part or VanPart(shop=shop, person=user)
    for name, value in values.items():
        setattr(part, name, value)
    part.save()
    log.write(user, "keep_part", shop=shop, part=part.pk, what=part.what, carried=str(part.carried))
    return part


@action
def drop_part(user, part):
    """Take a part off the list of one's van; what was used of it stays on the calls."""
    shop = shop_of(user)
    if part.shop_id != shop.pk or part.person_id != user.pk:
        raise InputError("That is in another van")
    log.write(user, "drop_part", shop=shop, what=part.what, carried=str(part.carried))
    part.delete()


@action
def fill_up(user):
    """Say that everything short was got: each part stands as many as it should; returns how many parts were short."""
    shop = shop_of(user)
    short = list(user.van_parts.filter(carried__lt=F("wanted")))
    for one in short:
        one.carried = one.wanted
        one.save(update_fields=["carried"])
    if short:
        log.write(user, "fill_up", shop=shop, parts=[one.what for one in short])
    return len(short)


@on_call
def use_part(user, call, what, quantity="1"):
    """Store that a part was used on a call, out of one's van where it carries one of that name; FieldErrors by field."""
    what, wrong, many = " ".join(what.split()), {}, Decimal(1)
    if not 2 <= len(what) <= LONGEST:
        wrong["part"] = f"Part: 2 to {LONGEST} letters"
    try:
        many = parse_quantity(quantity or "1")
    except InputError as error:
        wrong["many"] = f"How many: {error}"
    if call.partuseds.count() >= MOST_USED:
        wrong["part"] = f"{call} holds {MOST_USED} parts, which is all it can"
    if wrong:
        raise FieldErrors(wrong)
    own = next((one for one in user.van_parts.filter(shop=call.shop_id) if one.what.casefold() == what.casefold()), None)
    had = min(own.carried, many) if own is not None else None
    if own is not None:
        own.carried -= had
        own.save(update_fields=["carried"])
    used = PartUsed.objects.create(
        call=call, by=user, what=own.what if own else f"{what[:1].upper()}{what[1:]}", quantity=many,
        cents=own.cents if own else None, van_part=own, out_of_van=had,
    )  # fmt: skip
    log.write(user, "use_part", call, what=used.what, quantity=str(many), van=bool(own))
    return used


@action
def take_part_back(user, used):
    """Say that a part was not used: as many as came out of a van lie in it again."""
    require_same_shop(user, used)
    require_open(used.call)
    used.refresh_from_db()
    if used.undone_at is None and used.van_part_id:
        # Of what was used before that was noted, all of it is taken to have been there.
        had = used.quantity if used.out_of_van is None else used.out_of_van
        VanPart.objects.filter(pk=used.van_part_id).update(carried=F("carried") + had)
    undo_entry(user, used)
