"""Refrigerant work on a call and the shop's ledger: what is kept, what cannot be, what balances, and who reaches it."""

import csv
import io
import math
import re
from collections import deque
from datetime import timedelta

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import connection
from django.test.utils import CaptureQueriesContext
from django.urls import reverse
from django.utils import timezone

from kettle.benches.probes.hearing import Hearing
from kettle.call import tell
from web.benches.refrigerant.actions.record import keep_microns
from web.logbook.actions import gas as booking
from web.logbook.actions.do_act import do_act
from web.logbook.actions.gas import counter_move, keep_cylinder
from web.logbook.calls.judging import judge_call
from web.logbook.calls.record import record_of
from web.logbook.models import Act, ChangeStep, Cylinder, Device, GasMove, LeakLook, StandingTest, VacuumReading


def page(client, call, **query):
    return client.get(reverse("refrigerant", args=[call.number]), query).content.decode()


def post(client, name, *args, **typed):
    return client.post(reverse(name, args=args), typed, follow=True).content.decode()


@pytest.fixture
def supply(user):
    return keep_cylinder(user, {"number": "404-1", "refrigerant": "R-404A", "tare_lb": "10", "water_lb": "26.2"})


@pytest.fixture
def recovery(user):
    return keep_cylinder(user, {"number": "REC-1", "refrigerant": "R-404A", "recovery": "yes", "water_lb": "47.7"})


def gas(user, call, did, ounces, cylinder=""):
    return do_act(user, call, judge_call(call), f"charge.{did}", f"{ounces} oz", reason="as shown", cylinder=cylinder)


def ledger(client, **query):
    return client.get(reverse("ledger"), query).content.decode()


def test_gas_on_a_call_stands_on_the_ledger_by_itself(at_work, call, user, supply):
    gas(user, call, "added", 12, "404-1")
    move = GasMove.objects.get()
    assert (move.kind, move.oz, move.unit, move.call, move.cylinder) == ("added", 12.0, call.unit, call, supply)
    body = ledger(at_work)
    assert "12.0 oz" in body and "−0.8 lb" in body and "more came out than went in" in body
    post(at_work, "ledger-move", kind="bought", cylinder="404-1", amount="24", reason="dealer", day="2026-03-02")
    assert "23.2 lb" in ledger(at_work) and GasMove.objects.get(kind="bought").day.isoformat() == "2026-03-02"


def test_a_recovery_cylinder_over_its_limit_is_marked(at_work, recovery):
    post(at_work, "ledger-move", kind="recovered", cylinder="REC-1", amount="30")
    assert "over its limit" not in ledger(at_work) and "33.0 lb" in ledger(at_work)
    post(at_work, "ledger-move", kind="recovered", cylinder="REC-1", amount="4")
    assert "over its limit" in ledger(at_work)


def test_an_act_taken_back_is_countered_not_erased(at_work, call, user, supply):
    act = gas(user, call, "added", 12, "404-1")
    at_work.post(reverse("take-back", args=[call.number, "act", act.pk]))
    assert [one.oz for one in GasMove.objects.order_by("pk")] == [12.0, -12.0]
    assert "0.0 lb" in ledger(at_work)
    at_work.post(reverse("take-back", args=[call.number, "act", act.pk]))
    assert GasMove.objects.count() == 2


def test_a_line_is_countered_once_and_only_with_a_reason(at_work, supply):
    post(at_work, "ledger-move", kind="bought", cylinder="404-1", amount="10")
    move = GasMove.objects.get()
    assert "say why" in post(at_work, "ledger-counter", move.pk, reason="")
    assert "Countered by a line of its own" in post(at_work, "ledger-counter", move.pk, reason="typed twice")
    assert "countered already" in post(at_work, "ledger-counter", move.pk, reason="again")
    assert "countered already" in post(at_work, "ledger-counter", GasMove.objects.get(counters=move).pk, reason="again")
    assert sum(GasMove.objects.values_list("oz", flat=True)) == 0.0


@pytest.mark.parametrize(("typed", "field", "says"), [
    ({"number": ""}, "number", "1 to 40 letters"), ({"number": "404-1"}, "number", "is there already"),
    ({"refrigerant": "R-9999"}, "refrigerant", "R-9999"), ({"tare_lb": "heavy"}, "tare_lb", "“heavy”"),
    ({"water_lb": "90000"}, "water_lb", "is outside 1 to 3000 lb"),
])  # fmt: skip
def test_a_cylinder_that_cannot_be_is_said_beside_its_field(at_work, supply, typed, field, says):
    body = post(at_work, "ledger-cylinder", **{"number": "N-2", "refrigerant": "R-134a"} | typed)
    assert f'id="{field}-error"' in body and says in body and Cylinder.objects.count() == 1


@pytest.mark.parametrize(("typed", "says"), [
    ({"amount": "lots"}, "How much: “lots”"), ({"amount": "-4"}, "is outside 0 to"), ({"cylinder": "nowhere"}, "one of the shop"),
    ({"kind": "melted"}, "choose one"), ({"day": "yesterday"}, "is not a date like"),
    ({"day": "2090-01-01"}, "is outside 1990"), ({"kind": "recovered"}, "supply cylinder"), ({"reason": "x" * 300}, "at most 200"),
])  # fmt: skip
def test_a_line_that_cannot_be_is_said_and_not_kept(at_work, supply, typed, says):
    body = post(at_work, "ledger-move", **{"kind": "bought", "cylinder": "404-1", "amount": "10", "reason": "dealer"} | typed)
    assert says in body and not GasMove.objects.exists()


def test_gas_is_not_mixed(at_work, call, user, unit, recovery):
    unit.refrigerant = "R-22"
    unit.save()
    body = post(at_work, "recover", call.number, cylinder="REC-1", before="500", after="560")
    assert "R-22 does not go in with it" in body and 'value="560"' in body and not Act.objects.exists() and not GasMove.objects.exists()


def test_recovered_by_the_scale(at_work, call, unit, recovery):
    body = post(at_work, "recover", call.number, cylinder="REC-1", before="500", after="530")
    assert "30.0 oz out, on the ledger" in body and Act.objects.get().weighing.after_oz == 530
    assert "nothing went in" in post(at_work, "recover", call.number, before="500", after="500")


def test_the_ledger_as_csv_and_a_sites_year(at_work, call, user, supply):
    gas(user, call, "added", 12, "404-1")
    answer = at_work.get(reverse("ledger-csv"))
    rows = list(csv.DictReader(io.StringIO(b"".join(answer.streaming_content).decode())))
    assert [(row["kind"], row["ounces"], row["cylinder"], row["call"]) for row in rows] == [("added", "12.00", "404-1", str(call.number))]
    body = at_work.get(reverse("ledger-year", args=[call.unit.site_id])).content.decode()
    assert "In 12.0 oz, out 0.0 oz" in re.sub(r"<[^>]+>", "", body)
    assert "Nothing moved" in at_work.get(reverse("ledger-year", args=[call.unit.site_id]), {"year": "2019"}).content.decode()


def test_no_cell_of_the_csv_is_a_formula(at_work, supply):
    post(at_work, "ledger-move", kind="bought", cylinder="404-1", amount="10", reason="=1+1")
    assert ",'=1+1," in b"".join(at_work.get(reverse("ledger-csv")).streaming_content).decode()


def read_in(client, text, name="lines.csv"):
    upload = SimpleUploadedFile(name, text if isinstance(text, bytes) else text.encode(), "text/csv")
    return client.post(reverse("ledger-read-in"), {"file": upload}, follow=True).content.decode()


def test_lines_are_read_in_from_a_csv_all_or_none(at_work, supply):
    head = "day,kind,ounces,cylinder,reason\n"
    assert "2 lines read in" in read_in(at_work, head + "2026-01-10,bought,384,404-1,spring\n2026-02-01,lost,3.5,404-1,cap off\n")
    assert sorted(GasMove.objects.values_list("kind", "oz")) == [("bought", pytest.approx(384.0)), ("lost", pytest.approx(3.5, abs=0.01))]
    for text, says in (
        (head + "2026-01-10,bought,384,404-1,a\n2026-13-40,bought,3,404-1,b\n", "Row 3: Day"),
        (head + "2026-01-10,added,5,404-1,a\n", "Row 2: “added”"),
        (head + "2026-01-10,bought,lots,404-1,a\n", "Row 2: How much"), (head + "2026-01-10,bought,5,nowhere,a\n", "Row 2: Cylinder"),
        ("a,b\n1,2\n", "its first row has to name"), (b"\xff\xfe\x00", "no CSV in UTF-8"), ("", "its first row"),
    ):  # fmt: skip
        assert says in read_in(at_work, text), text
    assert GasMove.objects.count() == 2


def test_the_same_file_is_booked_once_whatever_its_name(at_work, supply):
    text = "day,kind,ounces,cylinder,reason\n2026-01-10,bought,384,404-1,spring\n"
    read_in(at_work, text)
    for again in (text, text.replace("\n", "\r\n"), "\ufeff" + text):
        assert "all its 1 lines stand in the ledger already; nothing is booked twice" in read_in(at_work, again, "copy.csv")
    assert GasMove.objects.count() == 1
    assert "1 lines read in" in read_in(at_work, text.replace("384", "385"))


def test_a_file_that_has_grown_is_booked_from_where_it_grew(at_work, user, supply):
    head, old = "day,kind,ounces,cylinder,reason\n", "2026-01-10,bought,384,404-1,spring\n2026-01-10,bought,384,404-1,spring\n"
    read_in(at_work, head + old)
    assert GasMove.objects.count() == 2, "two alike in one file are two"
    said = read_in(at_work, head + old + "2026-02-01,lost,3.5,404-1,cap off\n")
    assert "1 lines read in. 2 stand in the ledger already" in said
    assert "all its 1 lines stand in the ledger already" in read_in(at_work, head + "2026-02-01,lost,3.5,404-1,cap off\n")
    # What was countered stands no more: it may be read in again.
    counter_move(user, GasMove.objects.get(kind="lost"), "wrong cylinder")
    assert "1 lines read in" in read_in(at_work, head + "2026-02-01,lost,3.5,404-1,cap off\n\n")
    assert sorted(GasMove.objects.values_list("kind", flat=True)) == ["bought", "bought", "lost", "lost", "lost"]


def test_a_ledger_of_five_thousand_lines_is_written_in_few_statements_and_checked_before_any(at_work, supply, monkeypatch):
    rows = "".join(f"2026-01-{n % 28 + 1:02d},bought,{n % 90 + 1},404-1,line {n}\n" for n in range(5000))
    checked, keep, order = booking._checked, booking._keep_all, []
    monkeypatch.setattr(booking, "_checked", lambda *given: order.append("checked") or checked(*given))
    monkeypatch.setattr(booking, "_keep_all", lambda *given: order.append("kept") or keep(*given))
    with CaptureQueriesContext(connection) as told:
        assert "5000 lines read in" in read_in(at_work, "day,kind,ounces,cylinder,reason\n" + rows)
    assert GasMove.objects.count() == 5000 and order == ["checked"] * 5000 + ["kept"]
    assert len([one for one in told if 'INSERT INTO "logbook_gasmove' in one["sql"]]) == 1, "all lines in one statement"


def test_a_recovery_cylinder_that_is_too_full_by_the_scale_is_said(at_work, call, user):
    keep_cylinder(user, {"number": "REC-2", "refrigerant": "R-404A", "recovery": "yes", "tare_lb": "28", "water_lb": "47.7"})
    fine = post(at_work, "recover", call.number, cylinder="REC-2", before="800", after="900")
    assert "over its limit" not in fine
    assert "over its limit by" in post(at_work, "recover", call.number, cylinder="REC-2", before="900", after="1000")


def test_a_leak_is_searched_place_by_place_and_found_is_an_observation(at_work, call):
    assert "Next: Stem caps" in page(at_work, call)
    for place, heard in (("coil_left", "twice"), ("coil_right", "no")):
        post(at_work, "leak-look", call.number, place, heard)
    assert "now its neighbours, Coil: joints" in page(at_work, call)
    post(at_work, "leak-look", call.number, "coil_joints", "no")
    assert "in the coil, not the lines" in page(at_work, call)
    assert judge_call(call).facts.is_("leak_test", "found") and LeakLook.objects.count() == 3
    assert "Choose a place" in post(at_work, "leak-look", call.number, "roof", "no")


def test_everything_searched_without_a_find_is_none_found(at_work, call):
    from kettle.benches.refrigerant.leaks import PLACES

    for place in PLACES:
        post(at_work, "leak-look", call.number, place.code, "no")
    assert judge_call(call).facts.is_("leak_test", "none_found") and "Nothing found at any place" in page(at_work, call)


def test_gas_without_repair_is_the_customers_word_with_name_reason_and_a_visit(at_work, call, user):
    body = post(at_work, "leak-open", call.number, who="", why_open="later")
    assert 'id="who-error"' in body and 'value="later"' in body and not Act.objects.exists()
    post(at_work, "leak-open", call.number, who="The cook in charge", why_open="open for the weekend")
    act = Act.objects.get(did="given_up")
    call.refresh_from_db()
    assert act.note == "The cook in charge: open for the weekend" and "leak left open" in call.follow_ups.get().what
    assert "The cook in charge" in at_work.get(reverse("report", args=[call.number])).content.decode()


def test_the_makers_coefficients_and_a_label(at_work, call):
    ten = "1000 10 -2 0.1 0.05 -0.01 0.001 0.002 -0.0003 0.00004"
    body = page(at_work, call, coefficients=ten, maker_sst="20", maker_sct="100", measured="554")
    assert "Due at 20 °F and 100 °F: 1108" in body and "554.0 of 1108.0, 50 %" in body
    assert 'id="coefficients-error"' in page(at_work, call, coefficients="1 2 3", maker_sst="20", maker_sct="100")
    assert 'id="coefficients-error"' in page(at_work, call, coefficients="ten of them", maker_sst="20", maker_sct="100")
    label = at_work.get(reverse("retrofit-label", args=[call.number, "R-449A"])).content.decode()
    assert "R-449A" in label and "was R-404A" in label
    assert at_work.get(reverse("retrofit-label", args=[call.number, "R-9"])).status_code == 404


def test_a_standing_test_is_kept_with_what_it_says(at_work, call):
    typed = {"start_psig": "150", "start_f": "70", "now_psig": "143.8", "now_f": "50", "minutes": "60"}
    assert "Nothing lost that can be told" in post(at_work, "nitrogen", call.number, **typed)
    assert "It leaks" in post(at_work, "nitrogen", call.number, **typed | {"now_psig": "120"})
    body = post(at_work, "nitrogen", call.number, **typed | {"start_psig": "9000", "minutes": "soon"})
    assert 'id="minutes-error"' in body and 'value="9000"' in body and StandingTest.objects.count() == 2


def test_an_evacuation_is_drawn_and_its_rise_read(at_work, call, user):
    began = timezone.now() - timedelta(minutes=60)
    for at, value, pump in (
        (0, 400000, True),
        (10, 5000, True),
        (25, 450, True),
        *((26 + n, 450 + 4000 * (1 - math.exp(-n / 3)), False) for n in range(14)),
    ):
        keep_microns(user, call, f"{value:.0f}", pump, at=began + timedelta(minutes=at))
    body = page(at_work, call)
    assert "Wet: it levels off at about" in body and body.count('class="off"') == 14 and "polyline" in body
    # The pump runs again: what was read before says nothing any more.
    post(at_work, "microns", call.number, microns="900", pump="on")
    assert "Wet:" not in page(at_work, call)
    refused = post(at_work, "microns", call.number, microns="few", pump="off")
    assert 'id="microns-error"' in refused and 'value="few"' in refused
    at_work.post(reverse("undo-microns", args=[call.number, VacuumReading.objects.last().pk]))
    assert "Wet:" in page(at_work, call)


def test_a_vacuum_gauge_among_the_probes_is_drawn_and_kept(at_work, call, unit, monkeypatch):
    began = timezone.now() - timedelta(minutes=30)
    call.opened_at = began
    call.save()
    hearing = Hearing()
    for n in range(200):
        hearing.past.setdefault("vacuum_micron", deque()).append((began + timedelta(seconds=6 * n), 400.0 + 10.0 * n))
    unit.probes = Device.objects.create(shop=unit.shop, kind="probes", name="Van set", address="127.0.0.1:1", simulated=True)
    unit.save()
    monkeypatch.setattr("web.benches.refrigerant.views.bench.link", lambda device: hearing)
    body = page(at_work, call)
    assert "Van set tells by itself, simulated" in body and body.count("<circle") > 60 and not VacuumReading.objects.exists()
    part = at_work.get(
        reverse("refrigerant", args=[call.number]), headers={"HX-Request": "true", "HX-Target": "microns-drawn"}
    ).content.decode()
    assert part.startswith('<div id="microns-drawn"')
    # Twenty minutes, one in 15 s drawn, of these one a minute kept: every 72 s where it tells every 6.
    assert "17 readings of the gauge kept" in post(at_work, "told-microns", call.number, pump="off")
    assert "Leaking" in page(at_work, call)
    assert "0 readings" in post(at_work, "told-microns", call.number, pump="off") and VacuumReading.objects.count() == 17


def test_the_steps_of_a_change_are_ticked_and_taken_back(at_work, call):
    body = page(at_work, call, part="compressor")
    assert "Proved bad by measuring" in body and "Dry nitrogen flowing while it is brazed" in body and "About" in body
    assert "✓" in post(at_work, "change-step", call.number, "compressor", "proved")
    post(at_work, "change-step", call.number, "compressor", "proved")
    assert ChangeStep.objects.filter(undone_at=None).count() == 0 and ChangeStep.objects.count() == 1
    assert "no step of this change" in post(at_work, "change-step", call.number, "compressor", "painted")


def test_a_tube_and_another_refrigerant_are_worked_out(at_work, call, unit):
    unit.kind, unit.metering, unit.refrigerant, unit.set_f = "reach_in_cooler", "cap_tube", "R-134a", 38.0
    unit.save()
    body = page(at_work, call, length_in="", length_ft="8", bore_in="0.031", other_bore="0.036")
    assert "It passes" in body and "The same through 0.036 in" in body
    assert 'id="bore_in-error"' in page(at_work, call, length_ft="8", bore_in="9")
    assert "the unit is not made for it: refused" in page(at_work, call, other="R-290")


@pytest.mark.parametrize("value", ["-500", "1e30", "nan", "inf", "٣", "0", "x" * 100])
def test_no_figure_breaks_the_bench(at_work, call, unit, value):
    unit.kind, unit.metering, unit.refrigerant = "reach_in_cooler", "cap_tube", "R-134a"
    unit.save()
    names = (
        "volume_ft3",
        "pump_cfm",
        "hose_ft",
        "hose_bore_in",
        "length_ft",
        "bore_in",
        "tube_sct",
        "tube_sst",
        "tube_sc",
        "other_bore",
        "part",
        "other",
    )
    assert "Leak search" in page(at_work, call, **dict.fromkeys(names, value))
    for name in ("microns", "nitrogen", "recover"):
        post(
            at_work,
            name,
            call.number,
            microns=value,
            start_psig=value,
            start_f=value,
            now_psig=value,
            now_f=value,
            minutes=value,
            before=value,
            after=value,
        )
    assert not StandingTest.objects.exists()


def test_a_leak_rate_over_the_shops_limit_is_marked_on_board_unit_and_ledger(at_work, call, user, unit):
    user.member.owner = True
    user.member.save()
    gas(user, call, "added", 64)
    address = reverse("unit", args=[unit.pk])
    assert "% a year" in at_work.get(address).content.decode() and "Over the leak rate" not in ledger(at_work)
    body = post(at_work, "leak-limit", leak_limit="much", leak_method="annualised")
    assert 'id="leak_limit-error"' in body and 'value="much"' in body
    post(at_work, "leak-limit", leak_limit="20", leak_method="rolling")
    assert "Over the leak rate" in ledger(at_work) and "▲" in at_work.get(address).content.decode()
    assert "Over the leak rate" in at_work.get(reverse("board")).content.decode()


def test_only_the_owner_sets_the_leak_rate(at_work, user):
    assert at_work.post(reverse("leak-limit"), {"leak_limit": "20", "leak_method": "rolling"}).status_code == 403
    user.member.shop.refresh_from_db()
    assert user.member.shop.leak_limit_pct is None


def test_which_coil_leaks_is_kept_and_written_up(at_work, call, unit):
    unit.evaporators, unit.coil_names = 2, ["street", "yard"]
    unit.save()
    body = at_work.get(reverse("refrigerant", args=[call.number])).content.decode()
    assert ">street</a>" in body and ">yard</a>" in body
    for place, heard in (("coil_left@2", "twice"), ("coil_joints@2", "no"), ("coil_right@2", "no"), ("coil_left@1", "no")):
        at_work.post(reverse("leak-look", args=[call.number, place, heard]), {"reading": ""})
    assert [(one.place, one.evaporator) for one in call.leaklooks.all()][0] == ("coil_left", 2)
    said = tell(record_of(call)).said("found")
    assert any("Leak found at the coil: left half" in text and "yard" in text for text in said), said
    assert not any("street" in text and "Leak found" in text for text in said)
    assert at_work.post(reverse("leak-look", args=[call.number, "coil_left@3", "no"])).status_code in (302, 404)
    assert call.leaklooks.count() == 4


def test_another_shop_reaches_nothing_of_it(client, stranger, call, user, supply):
    gas(user, call, "added", 12, "404-1")
    client.force_login(stranger)
    assert "404-1" not in ledger(client) and "12.0 oz" not in ledger(client)
    assert client.get(reverse("ledger-year", args=[call.unit.site_id])).status_code == 404
    assert client.post(reverse("ledger-counter", args=[GasMove.objects.get().pk]), {"reason": "mine"}).status_code == 404
    assert b"404-1" not in b"".join(client.get(reverse("ledger-csv")).streaming_content)
    for name in ("refrigerant", "microns", "nitrogen", "recover"):
        assert client.post(reverse(name, args=[call.number])).status_code in (404, 405)
    assert client.get(reverse("refrigerant", args=[call.number])).status_code == 404
