"""Choose the units one reads and types in, and whether lines are told by feel."""

from kettle.judging.schools import CHOICES as SCHOOLS
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import SHOWN_CHOICES
from web.accounts.access import shop_of
from web.logbook.actions import log
from web.logbook.actions.acting import action


@action
def choose_units(user, chosen):
    """Store the units of a person (field -> unit); InputError names the first that is not one of the list."""
    shop, member = shop_of(user), user.member
    for name, allowed in SHOWN_CHOICES.items():
        if chosen.get(name) not in allowed:
            raise InputError(f"{name.capitalize()}: choose one of {', '.join(allowed)}")
        setattr(member, name, chosen[name])
    member.save(update_fields=list(SHOWN_CHOICES))
    log.write(user, "choose_units", shop=shop, **{name: chosen[name] for name in SHOWN_CHOICES})


@action
def choose_schools(user, chosen):
    """Store the schools of the shop (field -> choice); InputError names the first that is not one of the list."""
    shop = shop_of(user)
    for name, (question, allowed) in SCHOOLS.items():
        if chosen.get(name) not in allowed:
            raise InputError(f"{question}: choose one of the list")
        setattr(shop, f"{name}_school", chosen[name])
    shop.save(update_fields=[f"{name}_school" for name in SCHOOLS])
    log.write(user, "choose_schools", shop=shop, **{name: chosen[name] for name in SCHOOLS})


@action
def choose_by_feel(user, by_feel):
    """Store whether lines are told by feel or by numbers."""
    shop, member = shop_of(user), user.member
    member.by_feel = by_feel
    member.save(update_fields=["by_feel"])
    log.write(user, "choose_by_feel", shop=shop, by_feel=by_feel)
