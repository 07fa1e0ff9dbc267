import re

import pytest
from django.contrib.auth import get_user_model
from django.test import Client

from web.accounts.models import Member, Shop
from web.logbook.actions.open_call import open_call
from web.logbook.actions.record_reading import record_reading
from web.logbook.models import Site, Unit
from web.round.standing import Standing


def make_person(shop_name, name):
    shop, _ = Shop.objects.get_or_create(name=shop_name)
    user = get_user_model().objects.create_user(name, password="a-long-pass-phrase", first_name=name.title())
    Member.objects.create(user=user, shop=shop)
    return user


class Reader(Client):
    """A client that reads a page as a browser does: white space between words is one space, however a template is laid out."""

    def request(self, **request):
        response = super().request(**request)
        if not response.streaming and response.headers.get("Content-Type", "").startswith("text/html"):
            response.content = re.sub(rb"(?<=>) (?=<)", b"", re.sub(rb"\s+", b" ", response.content))
        return response


@pytest.fixture
def client():
    return Reader()


@pytest.fixture
def user(db):
    return make_person("Larch Hollow Cooling", "ansel")


@pytest.fixture
def stranger(db):
    return make_person("Other Shop", "quill")


@pytest.fixture
def unit(user):
    site = Site.objects.create(shop=user.member.shop, name="Test barn")
    return Unit.objects.create(
        shop=user.member.shop, site=site, name="Freezer 9", kind="walk_in_freezer", refrigerant="R-404A", set_f=-5, compressor_rla_a=14.0
    )


@pytest.fixture
def call(user, unit):
    return open_call(user, unit, "Too warm.")


@pytest.fixture
def at_work(client, user):
    client.force_login(user)
    return client


@pytest.fixture
def read_in(user, call):
    """Record readings on the call: read_in(suction_psig="8.6")."""

    def record(**typed):
        return [record_reading(user, call, key, value) for key, value in typed.items()]

    return record


@pytest.fixture
def starved(read_in):
    """A starved coil behind a clear glass, with the bulb found right and the box near set."""
    read_in(
        box_temp_f="-2", suction_psig="9.0", suction_line_evap_f="-9", discharge_psig="213", liquid_line_f="87", ambient_f="75",
        sight_glass="clear", evap_fans="running", bulb="tight_insulated",
    )  # fmt: skip


@pytest.fixture
def standing(call):
    return Standing(call)
