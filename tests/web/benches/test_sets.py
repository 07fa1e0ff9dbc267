"""Sets of a call, the unit's own baseline, and values taken from probes."""

from datetime import timedelta

import pytest
from django.urls import reverse
from django.utils import timezone

from kettle.benches.probes.protocol import Live
from web.benches.sets.actions.keep_set import keep_set
from web.links import probes
from web.logbook.actions.hand_over import close_call
from web.logbook.actions.open_call import open_call
from web.logbook.actions.record_reading import record_reading
from web.logbook.models import Call, Device, Reading, ReadingSet, Unit, ValveTurn
from web.round.standing import Standing


def page_of(client, call):
    return client.get(reverse("sets", args=[call.number])).content.decode()


def test_sets_stand_side_by_side_with_what_moved_and_what_was_adjusted(at_work, user, call, starved, read_in):
    at_work.post(reverse("keep-set", args=[call.number]), {"label": "As found"})
    ValveTurn.objects.create(call=call, by=user, direction="out", turns=0.5)
    record_reading(user, call, "suction_line_evap_f", "-20")
    at_work.post(reverse("keep-set", args=[call.number]), {"label": "After the turn", "good": "yes"})
    body = page_of(at_work, call)
    assert [kept.good for kept in ReadingSet.objects.order_by("at")] == [False, True]
    assert "Valve turned out, ½ turn" in body
    assert "▼ 11.0" in body
    assert body.index("<b>As found</b>") < body.index("<b>After the turn</b>") < body.index("<b>Now</b>")


def test_a_set_needs_a_name_and_something_read(at_work, call):
    refused = at_work.post(reverse("keep-set", args=[call.number]), {"label": "As found"}, follow=True).content.decode()
    assert "nothing is read yet" in refused
    assert "give it a name" in at_work.post(reverse("keep-set", args=[call.number]), {"label": " "}, follow=True).content.decode()
    assert not ReadingSet.objects.exists()


def test_a_set_is_taken_back(at_work, user, call, starved):
    kept = keep_set(user, call, "As found")
    at_work.post(reverse("take-back", args=[call.number, "set", kept.pk]))
    kept.refresh_from_db()
    assert kept.undone_at is not None
    assert "As found</b>" not in page_of(at_work, call)


def test_the_past_good_set_of_the_unit_is_its_baseline(at_work, user, unit, call, starved):
    earlier = timezone.now() - timedelta(days=200)
    past = open_call(user, unit, opened_at=earlier)
    for key, value in (("suction_psig", "20"), ("suction_line_evap_f", "-5"), ("box_temp_f", "-4"), ("ambient_f", "77")):
        record_reading(user, past, key, value, at=earlier)
    keep_set(user, past, "In order", good=True, at=earlier + timedelta(minutes=5))
    close_call(user, past)
    now = open_call(user, unit)
    for key, value in (("suction_psig", "5"), ("suction_line_evap_f", "5"), ("box_temp_f", "-2"), ("ambient_f", "75")):
        record_reading(user, now, key, value)
    words = [drift.words for drift in Standing(now).drifts]
    assert words and "above what it ran on" in words[0] and "at about the same ambient" in words[0]
    assert "Its own baseline" in page_of(at_work, now)
    assert Standing(past).drifts == []


@pytest.fixture
def probed(call, monkeypatch):
    """Three probes as if heard: one live, one live, one lost."""
    device = Device.objects.create(shop=call.shop, name="Van", kind="probes", address="127.0.0.1:9")
    Unit.objects.filter(pk=call.unit_id).update(probes=device)
    now = timezone.now()
    link = probes.ProbeLink(("127.0.0.1", 9), connected=True, started=True)
    link.hearing.heard = {
        "P1": Live("P1", "Suction gauge", "suction_psig", 9.1, now, 80),
        "T1": Live("T1", "Clamp", "suction_line_evap_f", -2.25, now, 9),
        "A1": Live("A1", "Return air", "return_air_f", 3.0, now - timedelta(seconds=40), None),
    }
    monkeypatch.setitem(probes._links, (device.pk, device.address), link)
    return link


def test_probes_show_age_battery_and_loss_and_are_taken_as_a_set(at_work, call, probed):
    body = at_work.get(reverse("probes", args=[call.number])).content.decode()
    for text in ("9.1 psig", "80 %", "9 % low", "● live", "✕ lost", "40 s ago"):
        assert text in body, text
    answer = at_work.post(reverse("take-probes", args=[call.number]), {"probe": "", "label": "With probes"}, follow=True).content.decode()
    assert "Taken as the set “With probes”." in answer
    assert {(r.key, r.value, r.source) for r in Reading.objects.all()} == {
        ("suction_psig", 9.1, "probe P1"),
        ("suction_line_evap_f", -2.25, "probe T1"),
    }
    assert "From probe P1." in answer
    assert ReadingSet.objects.get().label == "With probes"


def test_a_lost_probe_cannot_be_taken(at_work, call, probed):
    answer = at_work.post(reverse("take-probes", args=[call.number]), {"probe": "A1"}, follow=True).content.decode()
    assert "none of these is in reach" in answer
    assert not Reading.objects.exists() and not ReadingSet.objects.exists()


def test_a_lost_link_is_said_and_none_at_all_too(at_work, call, probed):
    probed.connected = False
    assert "The probes are lost" in at_work.get(reverse("probes", args=[call.number])).content.decode()
    Unit.objects.update(probes=None)
    assert "This unit has no probes" in at_work.get(reverse("probes", args=[call.number])).content.decode()
    assert "probe-chip" not in at_work.get(reverse("stop", args=[call.number, "read"])).content.decode()


def test_an_unsound_line_is_skipped_and_said(probed):
    now = timezone.now()
    probed.hearing.take(b'{"type": "hello", "protocol": "orange-kettle/probes", "version": 1}\n', now)
    line = b'{"type": "reading", "probe": "P1", "key": "suction_psig", "value": 9000, "unit": "psig"}\n'
    assert probed.hearing.take(line, now)
    assert "outside" in probed.complaint
    assert len(probed.latest()) == 3


def test_sets_and_probes_of_another_shop_are_out_of_reach(client, stranger, call):
    client.force_login(stranger)
    for name in ("sets", "probes"):
        assert client.get(reverse(name, args=[call.number])).status_code == 404
    for name in ("keep-set", "take-probes"):
        assert client.post(reverse(name, args=[call.number])).status_code == 404
    assert Call.objects.count() == 1
