"""The people of a shop: the owner adds them, closes and re-opens their log-in, and gives them a new password."""

import secrets

from axes import utils as axes
from django.contrib.auth import get_user_model
from django.contrib.auth.password_validation import validate_password
from django.contrib.auth.validators import UnicodeUsernameValidator
from django.core.exceptions import ValidationError

from kettle.knowledge.errors import FieldErrors, InputError
from web.accounts.access import require_owner, require_same_shop
from web.accounts.models import Member
from web.logbook.actions import log
from web.logbook.actions.acting import action

# Syllables that are read aloud without doubt; a password of four words of three is some 47 bits.
SYLLABLES = ("ba", "da", "fo", "ga", "hu", "ki", "la", "me", "no", "pa", "ri", "so", "tu", "va", "wi", "zo")
LONGEST_NAME = 60


def made_password():
    """A password to hand over on paper: four words that can be read out."""
    return "-".join("".join(secrets.choice(SYLLABLES) for _ in range(3)) for _ in range(4))


def check_login(name):
    """Return a log-in name; InputError says what is wrong with it."""
    name = name.strip()
    try:
        UnicodeUsernameValidator()(name)
    except ValidationError:
        raise InputError("Log-in: letters, digits and . - _ only") from None
    if not 2 <= len(name) <= LONGEST_NAME:
        raise InputError(f"Log-in: 2 to {LONGEST_NAME} letters are needed")
    if get_user_model().objects.filter(username__iexact=name).exists():
        raise InputError(f"Log-in: “{name}” is taken")
    return name


def make_person(shop, login, full_name, password=None, owner=False):
    """Make a person of a shop and return it with the password; FieldErrors names what is wrong."""
    errors, full_name = {}, " ".join(full_name.split())
    try:
        login = check_login(login)
    except InputError as error:
        errors["login"] = str(error)
    if not 2 <= len(full_name) <= LONGEST_NAME:
        errors["full_name"] = f"Name: 2 to {LONGEST_NAME} letters are needed"
    password = password or made_password()
    first, _, last = full_name.partition(" ")
    user = get_user_model()(username=login, first_name=first, last_name=last)
    if weak := _weakness(password, user):
        errors["password"] = f"Password: {weak}"
    if errors:
        raise FieldErrors(errors)
    user.set_password(password)
    user.save()
    Member.objects.create(user=user, shop=shop, owner=owner)
    return user, password


def _weakness(password, user):
    """What speaks against a password, in words; empty where nothing does."""
    try:
        validate_password(password, user)
    except ValidationError as error:
        return " ".join(error.messages)
    return ""


def make_password_for(person):
    """Give a person a new password and return it; what was tried before at the log-in is forgotten."""
    password = made_password()
    _set_password(person, password)
    axes.reset(username=person.username)
    return password


def _set_password(person, password):
    """Store a new password: open sessions end, and so does the address by which the follow-ups are read."""
    person.set_password(password)
    person.save(update_fields=["password"])
    Member.objects.filter(user=person).update(feed_key=None)


@action
def change_password(user, new, again):
    """Store a person's own new password; FieldErrors by field. Whether the old one was right is asked before."""
    wrong = {}
    if new != again:
        wrong["again"] = "Again: it is not the same as above"
    if weak := _weakness(new, user):
        wrong["new"] = f"New password: {weak}"
    if wrong:
        raise FieldErrors(wrong)
    _set_password(user, new)
    log.write(user, "change_password", shop=user.member.shop)


@action
def add_person(user, login, full_name, owner=False):
    """Add a person to the own shop; returns the person and the password to hand over."""
    shop = require_owner(user)
    person, password = make_person(shop, login, full_name, owner=owner)
    log.write(user, "add_person", shop=shop, person=person.pk, login=person.username, owner=owner)
    return person, password


@action
def close_person(user, member):
    """Close a person's log-in: what was recorded stays, open sessions end."""
    require_owner(user)
    require_same_shop(user, member)
    if member.user_id == user.pk:
        raise InputError("Nobody closes the own log-in: another owner does it")
    member.user.is_active = False
    member.user.save(update_fields=["is_active"])
    member.feed_key = None
    member.save(update_fields=["feed_key"])
    log.write(user, "close_person", shop=member.shop, person=member.user_id)


@action
def reopen_person(user, member):
    """Open a closed log-in again."""
    require_owner(user)
    require_same_shop(user, member)
    member.user.is_active = True
    member.user.save(update_fields=["is_active"])
    log.write(user, "reopen_person", shop=member.shop, person=member.user_id)


@action
def allow_live_work(user, member):
    """Put a person down for live work."""
    _set_live_work(user, member, allowed=True)


@action
def bar_live_work(user, member):
    """Take a person off live work."""
    _set_live_work(user, member, allowed=False)


def _set_live_work(user, member, allowed):
    require_owner(user)
    require_same_shop(user, member)
    member.live_work = allowed
    member.save(update_fields=["live_work"])
    log.write(user, "live_work", shop=member.shop, person=member.user_id, allowed=allowed)


@action
def reset_password(user, member):
    """Give a person a new password, which is returned once to be handed over; open sessions of the person end."""
    require_owner(user)
    require_same_shop(user, member)
    password = make_password_for(member.user)
    log.write(user, "reset_password", shop=member.shop, person=member.user_id)
    return password
