"""The write-up of the demo's calls, line by line against their records: no sentence without a record, no record without a sentence."""

import json
import re
from pathlib import Path

import pytest
from django.apps import apps
from django.urls import reverse

from web.benches.report.drafting import sentences_of
from web.logbook.actions.do_act import do_act
from web.logbook.actions.record_reading import record_reading
from web.logbook.calls.judging import judge_call
from web.logbook.models import Call, Wording
from web.round.standing import Standing

# Drafted once, read by a person line by line, and kept: python -m pytest tests/web/benches/test_report_written.py --golden writes it anew.
GOLDEN = Path(__file__).parent / "written.json"
DATES = re.compile(r"by \d+ (January|February|March|April|May|June|July|August|September|October|November|December)")
MODELS = {model.__name__.lower(): model for model in apps.get_app_config("logbook").get_models()}
NAMED = {"setting": "settingchange", "measured": "measurement", "ice": "icedrawing", "sibling": "unit"}


def written(call):
    call = Call.objects.prefetch_related("readings").get(pk=call.pk)
    return sentences_of(call, Standing(call))


def is_on_record(call, ref):
    kind, pk = (*ref.split(":"), "")[:2]
    if kind in ("proof", "advice", "was", "call"):
        return True
    rows = MODELS[NAMED.get(kind, kind)].objects.filter(pk=pk)
    return rows.filter(call__unit=call.unit_id).exists() if hasattr(rows.model, "call") else rows.exists()


def must_be_said(call):
    """What was done on a call by its own rows, not by way of the drafting."""
    stands = {"undone_at": None}
    refs = {f"act:{one.pk}" for one in call.acts.filter(**stands)} | {f"valveturn:{one.pk}" for one in call.valveturns.filter(**stands)}
    programs = call.defrostprograms.filter(side="left", **stands)
    refs |= {f"defrostprogram:{one.pk}" for one in programs}
    # What a program changed is told with it, once.
    alone = call.settingchanges.filter(**stands).exclude(at__in=[one.at for one in programs])
    refs |= {f"setting:{one.pk}" for one in alone if one.as_found != one.as_left}
    refs |= {f"finding:{one.pk}" for one in call.findings.filter(**stands)} | {
        f"override:{one.pk}" for one in call.overrides.filter(**stands)
    }
    refs |= {f"placed:{one.pk}" for one in call.left_there.filter(gone_at=None, **stands)}
    return refs | {f"melt:{one.pk}" for one in call.melts.filter(ended_at__isnull=False, **stands)}


def test_the_write_ups_of_a_whole_shop_against_their_records(loaded, pytestconfig):
    calls = list(Call.objects.order_by("number"))
    told = {}
    for call in calls:
        sentences = written(call)
        refs = {ref for one in sentences for ref in one.refs}
        assert [ref for ref in refs if not is_on_record(call, ref)] == [], call
        assert must_be_said(call) <= refs, call
        told[str(call.number)] = [f"{one.section}: {DATES.sub('by DAY', one.text)}" for one in sentences]
    if pytestconfig.getoption("--golden"):
        GOLDEN.write_text(json.dumps(told, indent=1, ensure_ascii=False) + "\n")
    assert len(calls) >= 20 and sum(bool(lines) for lines in told.values()) >= 20
    assert told == json.loads(GOLDEN.read_text())


def page(client, call):
    return client.get(reverse("stop", args=[call.number, "hand-over"])).content.decode()


def word(client, call, key, text="", do=""):
    return client.post(
        reverse("word-sentence", args=[call.number]), {"key": key, "section": key.partition(":")[0], "text": text, "do": do}, follow=True
    )


def test_words_of_ones_own_stand_and_what_changed_meanwhile_is_marked(at_work, user, call, read_in):
    [box] = read_in(box_temp_f="12.0")
    do_act(user, call, judge_call(call), "evap_fan.replaced")
    body = page(at_work, call)
    assert "Box found at 12.0 °F, set −5 °F." in body and "Fan replaced." in body
    key = f"found:reading:{box.pk}"
    word(at_work, call, key, "The ice cream was soft.")
    body = at_work.get(reverse("report", args=[call.number])).content.decode()
    assert "The ice cream was soft." in body and "Box found at 12.0" not in body
    box.value = 14.0
    box.save()
    body = page(at_work, call)
    assert "The ice cream was soft." in body and "the record says now: Box found at 14.0 °F" in body
    word(at_work, call, key, "The ice cream ran.")
    assert "the record says now" not in page(at_work, call)
    word(at_work, call, key, do="out")
    report = at_work.get(reverse("report", args=[call.number])).content.decode()
    assert "ice cream" not in report and "left out" in page(at_work, call)
    word(at_work, call, key, do="record")
    assert "Box found at 14.0 °F" in at_work.get(reverse("report", args=[call.number])).content.decode() and not Wording.objects.exists()


@pytest.mark.parametrize(("key", "text", "says"), [
    ("found:reading:1", "x" * 601, "601 letters are more than 600"), ("moon:reading:1", "x", "no sentence of this write-up"),
])  # fmt: skip
def test_what_cannot_be_worded_is_said_and_stays_typed(at_work, call, read_in, key, text, says):
    [box] = read_in(box_temp_f="12.0")
    body = word(at_work, call, key.replace(":1", f":{box.pk}"), text).content.decode()
    assert says in body and (len(text) < 10 or text in body) and not Wording.objects.exists()


def test_the_customers_page_says_what_is_on_record_and_no_more(at_work, user, call):
    record_reading(user, call, "evap_fans", "stopped")
    body = at_work.get(reverse("customer", args=[call.number])).content.decode()
    assert "What was wrong" not in body and "What we did" not in body and "Whom to call" in body
    do_act(user, call, judge_call(call), "evap_fan.replaced")
    at_work.post(reverse("found", args=[call.number]), {"causes": "evap_fan_failed"})
    body = at_work.get(reverse("customer", args=[call.number])).content.decode()
    assert "We put in a new fan." in body and "What was wrong" in body and "Superheat" not in body


def test_the_write_up_of_another_shop_is_out_of_reach(client, stranger, call):
    client.force_login(stranger)
    assert client.get(reverse("customer", args=[call.number])).status_code == 404
    assert client.post(reverse("word-sentence", args=[call.number]), {"key": "found:reading:1"}).status_code == 404
