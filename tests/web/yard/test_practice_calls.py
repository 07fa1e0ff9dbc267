"""A practice call is the application on a shop of its own: reached by those on it alone, answered by its unit, and nowhere on record."""

from datetime import timedelta

import pytest
from django.apps import apps
from django.db import models
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from kettle.yard.lessons import LESSONS
from tests.web.yard.conftest import AtPractice
from web.accounts.models import Member, Shop
from web.logbook.actions.open_call import open_call
from web.logbook.models import BoxWatch, VanPart
from web.yard.actions.begin import begin
from web.yard.models import Practice


def test_a_call_is_begun_from_the_yard_with_what_was_chosen(at_work):
    page = at_work.get("/yard/").content.decode()
    assert "Take the call" in page and 'value="covered"' in page
    answer = at_work.post("/yard/begin/", {"kind": "reach_in_cooler", "number": "31", "help": "none", "outside": "95"}, follow=True)
    page = answer.content.decode()
    assert answer.redirect_chain[-1][0].startswith("/practice/") and "PRACTICE" in page and "draw 31" in page
    one = Practice.objects.get()
    assert (one.number, one.help, one.drawn["outside_f"], one.drawn["spec"]["kind"]) == (31, "none", 95.0, "reach_in_cooler")
    twin = at_work.post("/yard/begin/", {"kind": "reach_in_cooler", "number": "31", "outside": "95"}, follow=True)
    assert twin.status_code == 200 and Practice.objects.latest("pk").drawn == one.drawn, "the same number is the same call"
    assert "Practice 1" in at_work.get("/yard/").content.decode() or str(one) in at_work.get("/yard/").content.decode()


@pytest.mark.parametrize(("typed", "says"), [
    ({"number": "0"}, "whole number from 1"), ({"number": "x"}, "whole number"), ({"number": "1000000"}, "999999"),
    ({"outside": "300"}, "-20 to 120"), ({"outside": "x"}, "allowed"), ({"refrigerant": "R-9"}, "R-9"), ({"kind": "tea"}, "tea"),
    ({"difficulty": "x"}, "is none of"), ({"help": "x"}, "Help"),
])  # fmt: skip
def test_what_cannot_be_drawn_is_said_beside_its_field_and_nothing_is_kept(at_work, typed, says):
    answer = at_work.post("/yard/begin/", {"kind": "walk_in_cooler", "number": "5", **typed})
    page = answer.content.decode().replace("−", "-")
    assert answer.status_code == 422 and says in page
    assert Practice.objects.count() == 0 and Shop.with_practice.filter(practice=True).count() == 0
    if "number" in typed:
        assert f'value="{typed["number"]}"' in page, "what was typed is kept"


def test_every_page_of_it_is_marked_and_leads_to_itself(practise):
    at = practise()
    for stop in ("arrive", "melt", "read", "programs", "power", "judge", "correct", "prove", "hand-over", "report", "taken", "parts",
                 "valve", "charge", "controls", "refrigerant", "quote", "sets", "watch", "customer", "explanation"):  # fmt: skip
        answer = at.get(f"{stop}/")
        page = answer.content.decode()
        assert answer.status_code == 200 and "PRACTICE" in page and "not a real unit" in page, stop
        assert f'href="/calls/{at.call.number}' not in page and f'action="/calls/{at.call.number}' not in page, stop
    assert f"PRACTICE {at.practice.pk}: not a real unit" in at.page("report/")
    assert at.get("report.pdf").headers["Content-Type"] == "application/pdf"
    assert f"Practice {at.practice.pk}" in at.page("case.json")
    for file in ("case.json", "report.pdf", "call.zip"):
        assert "practice-call-" in at.get(file).headers["Content-Disposition"], file


def test_nobody_else_reaches_it_and_it_reaches_nobody_elses(practise, client, stranger, call):
    at = practise()
    assert at.client.get(f"/practice/{at.practice.pk}/calls/{call.number}/read/").status_code in (200, 404)
    assert at.call.number == call.number and at.call.pk != call.pk, "the same number, another call"
    page = at.page("read/")
    assert "Freezer 9" not in page and "Practice" in page
    client.force_login(stranger)
    for path in (f"{at.at}/read/", f"{at.base}/yard/debrief/", f"/yard/teach/{at.practice.pk}/", f"{at.at}/report.pdf"):
        assert client.get(path).status_code == 404
    client.logout()
    assert client.get(f"{at.at}/read/").url.startswith("/login/?next=/practice/")
    gone = client.get(f"{at.at}/entry/box_temp_f/", HTTP_HX_REQUEST="true")
    assert gone.status_code in (302, 401)


def test_what_leaves_the_house_is_outside(practise):
    at = practise()
    for path, to in (("/", "/yard/"), ("/me/", "/me/"), ("/shop/", "/shop/"), ("/refrigerant/", "/refrigerant/"), ("/van/", "/van/")):
        answer = at.client.get(f"{at.base}{path}")
        assert answer.status_code == 302 and answer.url == to
    for path in ("customer/link/", "follow-ups/add/", "keep/", "controller/write/"):
        answer = at.post(path)
        assert "it would leave the yard" in answer.content.decode(), path
    assert at.client.get(f"{at.base}/nowhere/").status_code == 302 and at.client.get(f"{at.at}/nowhere/at/all/").status_code == 404


def test_a_person_is_never_stored_in_a_practice_shop(practise, user):
    at = practise()
    user.member.shop = at.practice.shop
    with pytest.raises(ValueError, match="real shop"):
        user.member.save()
    at.take("box_temp_f")
    assert Member.objects.get(user=user).shop.practice is False
    assert Shop.objects.filter(practice=True).count() == 0 and Shop.with_practice.filter(practice=True).count() == 1


def test_its_clock_goes_by_its_work_alone(practise):
    at = practise()
    before = Practice.objects.get(pk=at.practice.pk).now
    at.get("read/")
    assert Practice.objects.get(pk=at.practice.pk).now == before, "looking at a page takes no time"
    at.take("suction_psig")
    at.take("box_temp_f")
    one = Practice.objects.get(pk=at.practice.pk)
    assert one.minutes == 6.0 and timedelta(minutes=6) <= one.now - before < timedelta(minutes=6.2)
    readings = list(at.call.readings.order_by("pk").values_list("key", "at"))
    assert [key for key, _ in readings][:2] == ["suction_psig", "box_temp_f"]
    assert readings[1][1] - readings[0][1] == timedelta(minutes=4, seconds=1)
    at.yard("pass/", minutes="60")
    assert Practice.objects.get(pk=at.practice.pk).minutes == 66.0
    for typed in ("0", "x", "10081", ""):
        assert "is no whole number from 1 to 10080 min" in at.yard("pass/", minutes=typed).content.decode()


def test_things_of_a_person_are_not_touched_by_practice(practise, user):
    VanPart.objects.create(shop=user.member.shop, person=user, what="Fan motor", carried=2, wanted=2)
    at = practise("fan-dead")
    at.post("parts-used/", part="Fan motor", many="1")
    assert VanPart.objects.get().carried == 2 and at.call.partuseds.count() == 1
    BoxWatch.objects.create(call=at.call, by=user, from_f=60.0, ambient_f=85.0, stock="none", remind_at=at.practice.now)
    assert "Practice" not in at.client.get("/reminders/").content.decode()


def of_shop(shop):
    """How many rows of each table belong to a shop, by every way that leads there."""
    counts = {}
    for model in apps.get_models():
        if model._meta.app_label in ("yard", "accounts") or not model._meta.managed:
            continue
        for path in ("shop", "call__shop", "unit__shop", "act__call__shop", "site__shop"):
            first = path.split("__")[0]
            fields = {field.name for field in model._meta.get_fields() if isinstance(field, models.ForeignKey | models.OneToOneField)}
            if first in fields:
                try:
                    counts[model.__name__, path] = model.objects.filter(**{path: shop}).count()
                except Exception:
                    continue
    return counts


ACTS = ("evap_fan.replaced", "drier.replaced", "charge.added", "valve.turned_in", "condenser.cleaned", "timer.replaced", "bulb.clamped")
THINGS = st.one_of(
    st.sampled_from(("box_temp_f", "suction_psig", "evap_fans", "power_locked_out", "sight_glass", "door", "ice_form", "oil_trace"))
    .map(lambda key: ("take", key)),
    st.sampled_from(ACTS).map(lambda code: ("act", code)), st.sampled_from(("15", "480")).map(lambda minutes: ("pass", minutes)),
    st.sampled_from(("down", "back")).map(lambda which: ("stat", which)),
    st.sampled_from(("gas", "program", "close")).map(lambda one: (one, "")),
)  # fmt: skip


@settings(max_examples=3, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(st.lists(THINGS, min_size=3, max_size=9), st.sampled_from(("fan-dead", "short-of-gas", "too-little")))
def test_whatever_is_practised_leaves_no_trace_in_the_shops_records(at_work, user, call, done, code):
    shop = user.member.shop
    before = of_shop(shop)
    at = AtPractice(at_work, begin(user, LESSONS[code].draw, lesson=code))
    for what, of in done:
        if what == "take":
            at.take(of, **{of: "yes"} if of == "power_locked_out" else {})
        elif what == "act":
            at.act(of, amount="2", reason="to try it")
        elif what == "pass":
            at.yard("pass/", minutes=of)
        elif what == "stat":
            at.yard("thermostat/", which=of)
        elif what == "gas":
            at.post("charge/add/", before="400", after="380", cylinder="7", reason="to try it")
        elif what == "program":
            at.post("program/found/")
        else:
            at.post("close/", reason="practised")
    at.yard("name/", cause="undercharge")
    assert of_shop(shop) == before
    assert at_work.get("/refrigerant/").status_code == at_work.get("/").status_code == 200
    assert f"Practice {at.practice.pk}" not in at_work.get("/").content.decode()
    open_call(user, call.unit, "after it")
