"""Who may reach what: a person reaches what belongs to the own shop, and nothing else."""

from django.core.exceptions import PermissionDenied

from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import TRADE


def shop_of(user):
    """Return the shop of a person; PermissionDenied for one who belongs to none."""
    member = getattr(user, "member", None)
    if member is None:
        raise PermissionDenied("This login belongs to no shop yet.")
    return member.shop


def require_owner(user):
    """Return the shop of its owner; PermissionDenied for anybody else."""
    shop = shop_of(user)
    if not user.member.owner:
        raise PermissionDenied("This is for the owner of the shop.")
    return shop


def shown_to(user):
    """Return the units a person reads and types in; the trade's own for one who belongs to no shop."""
    member = getattr(user, "member", None)
    return member.shown if member else TRADE


def require_live_work(user):
    """Refuse measuring live to a person whom the owner did not put down for it; InputError says who can change that."""
    shop_of(user)
    if not user.member.live_work:
        raise InputError("Measuring live is for those the shop put down for it: the owner can, under Shop, or let somebody measure who is")


def require_same_shop(user, thing):
    """Refuse a thing of another shop; `thing` has a `shop` or is reached through one."""
    if thing.shop_id != shop_of(user).pk:
        raise PermissionDenied("This belongs to another shop.")
