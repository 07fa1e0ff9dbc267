"""Logs of a unit: dropped, matched, read whole or not at all, drawn, taken to a call, kept live; and who reaches them."""

import json
from datetime import UTC, datetime, timedelta
from pathlib import Path
from types import SimpleNamespace

import numpy as np
import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.urls import reverse
from django.utils import timezone

from kettle.knowledge.errors import InputError
from kettle.trends.series import Trend
from web.benches.trends import keeper, reading
from web.benches.trends.actions.keep_live import keep_live
from web.links import probes
from web.logbook.actions.devices import check_address
from web.logbook.actions.do_act import do_act
from web.logbook.actions.open_call import open_call
from web.logbook.calls.judging import judge_call
from web.logbook.models import Device, LogEntry, TrendData, TrendLog, TrendMatch, Unit
from web.logbook.trends import life_marks, of_unit, packed, trend_of, unpacked

BEGINS = datetime(2026, 3, 2, 0, 0, tzinfo=UTC)


def text(hours=60, header="Time,Case air F,Defrost on", step=5, broken=None):
    """A box that cycles, with a defrost of 25 min every six hours that lifts it by 8 °F."""
    rows = [header]
    for n in range(hours * 60 // step):
        minute = n * step
        into = (minute - 120) % 360
        on = into < 25
        air = -5 + 2 * np.sin(minute / 8) + (8 * into / 25 if on else max(0, 8 - (into - 25) / 3))
        rows.append(
            f"{BEGINS + timedelta(minutes=minute):%Y-%m-%d %H:%M},{'warm' if n == broken else f'{air:.1f}'},{'on' if on else 'off'}"
        )
    return "\n".join(rows) + "\n"


def drop(client, unit, body, call=None, name="case.csv"):
    upload = SimpleUploadedFile(name, body if isinstance(body, bytes) else body.encode(), "text/csv")
    return client.post(reverse("add-log", args=[unit.pk]), {"log": upload, "call": call.number if call else ""}, follow=True)


@pytest.fixture
def log(at_work, unit):
    """A log that is read, in this thread."""
    drop(at_work, unit, text())
    found = TrendLog.objects.get()
    at_work.post(
        reverse("read-log", args=[found.pk]), {"role-1": "box_f", "unit-1": "°F", "role-2": "defrost", "unit-2": "", "clock": "wall"}
    )
    return TrendLog.objects.get()


def test_a_file_is_matched_by_its_headers_read_and_its_file_let_go(log, at_work, unit):
    assert log.state == "ready" and log.rows == 720 and not log.file
    assert log.begins == BEGINS and log.match == {"1": ["box_f", "°F"], "2": ["defrost", ""]}
    told = {one["code"]: one for one in log.findings}
    assert told["defrosts"]["keys"]["defrosts_per_day"] == 4 and "every 6.0 h" in told["defrosts"]["says"]
    assert sum(mark[2] == "defrost" for mark in log.marks) == 10
    body = at_work.get(reverse("unit-trends", args=[unit.pk])).content.decode()
    assert "10 defrosts of 25 min" in body and "case.csv" in body
    # The next file of its kind is matched already.
    assert TrendMatch.objects.get().match == log.match
    page = drop(at_work, unit, text(hours=30, step=10)).content.decode()
    assert '<option value="defrost" selected' in page


def test_what_is_wrong_with_a_file_is_one_line_and_nothing_is_kept(at_work, unit):
    for body, says in ((b"\x89PNG\0\0\0", "no text file"), (b"", "empty"), (b"hello", "no columns")):
        answer = drop(at_work, unit, body).content.decode()
        assert says in answer or "choose a file" in answer
    assert not TrendLog.objects.exists()
    drop(at_work, unit, text(broken=100))
    log = TrendLog.objects.get()
    at_work.post(reverse("read-log", args=[log.pk]), {"role-1": "box_f", "unit-1": "°F"})
    log.refresh_from_db()
    assert log.state == "failed" and log.complaint == "Row 102, Case air F: “warm” is not a figure"
    assert not TrendData.objects.exists() and log.file
    assert "Row 102" in at_work.get(reverse("trend-log", args=[log.pk])).content.decode()


@pytest.mark.parametrize(("typed", "says"), [
    ({}, "Say of at least one column what it is"), ({"role-1": "box_f", "role-2": "box_f"}, "box air is said of another column already"),
    ({"role-1": "soup"}, "is nothing a column can be"), ({"role-1": "box_f", "clock": "moon"}, "Clock: choose one of"),
    ({"role-1": "box_f", "zone": "Mars/North"}, "Time zone: “Mars/North” is none"),
])  # fmt: skip
def test_a_wrong_match_is_said_and_what_was_chosen_stays(at_work, unit, typed, says):
    drop(at_work, unit, text())
    log = TrendLog.objects.get()
    body = at_work.post(reverse("read-log", args=[log.pk]), typed).content.decode()
    log.refresh_from_db()
    assert says in body.replace("&quot;", '"') and log.state == "asked"


def test_reading_stops_where_it_is_told_to(at_work, unit):
    drop(at_work, unit, text())
    log = TrendLog.objects.get()
    TrendLog.objects.filter(pk=log.pk).update(state="reading", match={"1": ["box_f", "°F"]}, clock="wall")
    assert "Reading case.csv" in at_work.get(reverse("trend-log", args=[log.pk])).content.decode()
    at_work.post(reverse("stop-log", args=[log.pk]))
    reading.work(log.pk)
    log.refresh_from_db()
    assert log.state == "stopped" and not TrendData.objects.exists()
    assert "Nothing of it was kept" in at_work.get(reverse("trend-log", args=[log.pk])).content.decode()


def test_tiles_are_in_the_units_of_the_person_with_what_happened_marked(log, at_work, user, unit, call):
    asked = {"from": log.begins.timestamp(), "to": log.ends.timestamp(), "pixels": 300}

    def told():
        tile = json.loads(at_work.get(reverse("trend-tile", args=[unit.pk]), asked).content)
        return tile, next(column for column in tile["columns"] if column["code"] == "box_f")

    tile, box = told()
    assert box["unit"] == "°F" and 300 <= len(tile["at"]) <= 301 and {mark[2] for mark in tile["marks"]} >= {"defrost", "recovery"}
    user.member.temperature = "°C"
    user.member.save()
    celsius = next(
        c for c in json.loads(at_work.get(reverse("trend-tile", args=[unit.pk]), asked).content)["columns"] if c["code"] == "box_f"
    )
    assert celsius["unit"] == "°C" and celsius["bands"][1][5] == pytest.approx((box["bands"][1][5] - 32) / 1.8, abs=0.01)
    for wrong in ({}, asked | {"pixels": "9"}, asked | {"to": "0"}, asked | {"from": "nan"}):
        assert at_work.get(reverse("trend-tile", args=[unit.pk]), wrong).status_code == 400
    do_act(user, call, judge_call(call), "coil.melted")
    now = timezone.now().timestamp()
    assert {code for *_, code, _ in life_marks(unit, now - 7200, now + 60)} == {"visit", "done"}


def test_what_a_log_shows_is_taken_to_the_call_and_marked_so(log, at_work, call):
    place = next(n for n, one in enumerate(log.findings) if one["code"] == "defrosts")
    at_work.post(reverse("take-log", args=[log.pk]), {"place": place})
    taken = {one.key: one for one in call.readings.all()}
    assert taken["defrosts_per_day"].value == 4 and taken["defrosts_per_day"].source == "log"
    assert taken["defrost_ran_min"].at >= call.opened_at
    assert "stands for no reading" in at_work.post(reverse("take-log", args=[log.pk]), {"place": []}, follow=True).content.decode()
    assert "shows no such thing" in at_work.post(reverse("take-log", args=[log.pk]), {"place": "99"}, follow=True).content.decode()


def test_a_log_taken_back_is_shown_nowhere(log, at_work, unit):
    at_work.post(reverse("undo-log", args=[log.pk]))
    assert (
        "case.csv"
        not in at_work.get(reverse("unit-trends", args=[unit.pk])).content.decode().split('class="messages"')[-1].split("</div>", 1)[1]
    )
    assert of_unit(unit, log.begins.timestamp(), log.ends.timestamp()).count == 0 and TrendData.objects.exists()


def test_what_is_packed_comes_back_as_it_was():
    at = np.cumsum(np.random.default_rng(1).uniform(1.0, 90.0, 500)) + 1.7e9
    values = {"box_f": np.linspace(-5, 40, 500), "amps": np.where(np.arange(500) % 7, 3.25, np.nan)}
    back = unpacked(packed(Trend(at, values)))
    assert back.at_s == pytest.approx(at, abs=0.06) and back.values["box_f"] == pytest.approx(values["box_f"], abs=1e-4)
    assert np.isnan(back.values["amps"][0]) and back.values["amps"][1] == 3.25


def test_probes_and_a_controller_are_kept_while_the_call_is_open(call, user, unit, monkeypatch):
    unit.probes = Device.objects.create(shop=unit.shop, kind="probes", name="Van", address="127.0.0.1:1", simulated=True)
    unit.controller = Device.objects.create(shop=unit.shop, kind="controller", name="Case", address="127.0.0.1:1", simulated=True)
    unit.save()

    class Probes:
        def since(self, key, moment):
            fresh = moment == call.opened_at and key == "box_temp_f"
            return [(float(n), 30.0 - n / 10.0) for n in range(1, 40)] if fresh else []

    class Controller:
        def live(self):
            return {"box_f": 31.0, "coil_f": 12.0, "superheat_f": 8.0, "state": 3.0}

    monkeypatch.setattr(keeper.probes, "link", lambda device: Probes())
    monkeypatch.setattr(keeper.controller, "link", lambda device: Controller())
    now = timezone.now()
    keeper.keep_all(now)
    keeper.keep_all(now + timedelta(minutes=1))
    told = {log.source: trend_of(log) for log in TrendLog.objects.filter(call=call)}
    assert told["probes"].count == 39 and told["probes"].values["box_f"][0] == pytest.approx(29.9)
    assert told["controller"].count == 2 and told["controller"].values["defrost"].tolist() == [1.0, 1.0]
    assert LogEntry.objects.filter(action="keep_live_log").count() == 2
    call.closed_at = now
    call.save()
    keeper.keep_all(now + timedelta(minutes=2))
    assert TrendLog.objects.get(source="controller").rows == 2


def test_a_controller_that_does_not_answer_stops_nothing(call, unit):
    unit.controller = Device.objects.create(shop=unit.shop, kind="controller", name="Case", address="127.0.0.1:1", simulated=True)
    unit.save()
    keeper.keep_all()
    assert not TrendLog.objects.exists()


def test_two_logs_of_one_source_never_stand_on_a_call(call, user, unit):
    unit.probes = Device.objects.create(shop=unit.shop, kind="probes", name="Van", address="127.0.0.1:1")
    unit.save()
    for begin in (0.0, 600.0):
        keep_live(user, call, "probes", Trend(np.array([begin, begin + 60.0]) + 1.7e9, {"box_f": np.array([1.0, 2.0])}))
    assert TrendLog.objects.get().rows == 4


def test_logs_of_another_shop_are_out_of_reach(client, stranger, log, unit):
    client.force_login(stranger)
    for name, pk in (("unit-trends", unit.pk), ("trend-tile", unit.pk), ("trend-log", log.pk)):
        assert client.get(reverse(name, args=[pk])).status_code == 404
    for name in ("read-log", "stop-log", "take-log", "undo-log"):
        assert client.post(reverse(name, args=[log.pk])).status_code == 404
    assert drop(client, unit, text()).status_code == 404


def device(unit, kind, name, address):
    made = Device.objects.create(shop=unit.shop, kind=kind, name=name, address=address)
    setattr(unit, kind, made)
    unit.save()
    return made


def test_one_bad_device_is_the_matter_of_its_shop_alone(call, user, unit, stranger, monkeypatch):
    """An address that no name can be ended the round of everybody."""
    device(unit, "controller", "Case", "a..b:5")
    other = Unit.objects.create(shop=stranger.member.shop, name="Cooler", kind="walk_in_cooler", refrigerant="R-134a", set_f=36)
    good = device(other, "controller", "Case", "127.0.0.1:1")
    theirs = open_call(stranger, other, "")
    link = keeper.controller.link
    answers = SimpleNamespace(live=lambda: {"box_f": 31.0, "state": 1.0})
    monkeypatch.setattr(keeper.controller, "link", lambda one: answers if one.pk == good.pk else link(one))
    keeper.keep_all()
    assert TrendLog.objects.get().call == theirs
    monkeypatch.setattr(keeper, "keep_live", lambda user, call, *more: 1 / 0)
    keeper.keep_all()


def test_a_controller_that_keeps_silent_is_asked_more_and_more_seldom(call, unit, monkeypatch):
    device(unit, "controller", "Case", "127.0.0.1:1")
    keeper._silent.clear()
    clock, asked = [1000.0], []
    monkeypatch.setattr(keeper.time, "monotonic", lambda: clock[0])
    monkeypatch.setattr(keeper, "_live", lambda one: asked.append(clock[0]))
    for _ in range(60):
        keeper.keep_all()
        clock[0] += 60.0
    waits = np.diff(asked)
    assert waits[:4].tolist() == [120.0, 240.0, 480.0, 900.0] and set(waits[3:]) == {900.0}
    unit.controller.address = "127.0.0.1:2"
    unit.controller.save()
    keeper.keep_all()
    assert asked[-1] == clock[0], "at another address it is asked at once"


def test_probes_nobody_has_or_asks_for_are_not_listened_to(call, unit, monkeypatch):
    monkeypatch.setattr(probes.ProbeLink, "listen", lambda self: None)
    probes._links.clear()
    clock = [1000.0]
    monkeypatch.setattr(probes.time, "monotonic", lambda: clock[0])
    van = device(unit, "probes", "Van", "127.0.0.1:1")
    link = probes.link(van)
    keeper.keep_all()
    assert not link.stop.is_set()
    van.delete()
    unit.refresh_from_db()
    keeper.keep_all()
    assert link.stop.is_set() and not probes._links
    many = [SimpleNamespace(pk=n, address="127.0.0.1:1") for n in range(probes.MOST_LINKS + 5)]
    links = [probes.link(one) for one in many if not clock.__setitem__(0, clock[0] + 1.0)]
    assert len(probes._links) == probes.MOST_LINKS and [one.stop.is_set() for one in links[:6]] == [True] * 5 + [False]
    clock[0] += probes.UNASKED_S + 1.0
    probes.end_unasked({(one.pk, one.address) for one in many})
    assert not probes._links


@pytest.mark.parametrize(("address", "allowed"), [
    ("192.168.8.20:502", True), ("case-7.local:502", True), ("localhost:5020", True), ("[fd00::1]:502", True), ("a..b:5", False),
    (".a:5", False), ("a.:5", False), ("-a:5", False), ("a-:5", False), ("300.1.1.1:5", False), ("1.2.3:5", False), ("[::g]:5", False),
    (f"{'a' * 64}.b:5", False), ("a b:5", False), (":5", False), ("a:0", False), ("a:65536", False), ("a:٥", False),
])  # fmt: skip
def test_an_address_is_a_host_and_a_port(address, allowed):
    if allowed:
        assert check_address(f" {address} ") == address
    else:
        with pytest.raises(InputError, match="^Address: "):
            check_address(address)


def test_a_log_that_waits_for_its_turn_is_not_cut_off_and_one_left_in_the_middle_is(log):
    log.state, log.touched_at = "reading", timezone.now() - timedelta(minutes=5)
    for rows, off in ((0, False), (1, True)):
        log.read_rows = rows
        assert reading.cut_off(log) is off
    log.touched_at = timezone.now() - timedelta(seconds=50)
    assert not reading.cut_off(log)


def test_an_unread_log_taken_back_lets_its_file_go_and_stays_on_record(at_work, unit, django_capture_on_commit_callbacks):
    drop(at_work, unit, text())
    found = TrendLog.objects.get()
    path = Path(found.file.path)
    assert path.exists()
    with django_capture_on_commit_callbacks(execute=True):
        at_work.post(reverse("undo-log", args=[found.pk]))
    found.refresh_from_db()
    assert not path.exists() and found.undone_at and not found.file


def test_a_log_whose_file_is_gone_says_so_without_its_path(at_work, unit, monkeypatch):
    drop(at_work, unit, text())
    found = TrendLog.objects.get()
    Path(found.file.path).unlink()
    TrendLog.objects.update(state="reading")
    reading.work(found.pk)
    found.refresh_from_db()
    assert (found.state, found.complaint) == ("failed", "Its file is not there any more: bring it again")
