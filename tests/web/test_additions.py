"""What docs/architecture.md says of adding a thing is tried here: one entry in one place, and everything picks it up."""

import json
from collections import defaultdict
from pathlib import Path

import pytest
from django.conf import settings
from django.template import engines
from django.urls import get_resolver, reverse
from django.utils import timezone

from kettle import case
from kettle.call import tell
from kettle.judging import network
from kettle.knowledge import acts, causes, observations
from kettle.knowledge.acts import Act
from kettle.knowledge.causes.model import MOSTLY, Cause
from kettle.knowledge.observations.make import choice
from web.logbook.actions.record_reading import record_reading
from web.logbook.calls.case_files import case_text
from web.logbook.calls.judging import judge_call
from web.round import registry

ROOT = Path(settings.ROOT)
BENCHES = sorted(path.name for path in (ROOT / "web" / "benches").iterdir() if (path / "__init__.py").exists())


@pytest.fixture
def hum(monkeypatch):
    """An observation nobody has yet, and a cause that shows in it."""
    entry = choice("shelf_hum", "Shelf hums", "box", "Hand on the shelf", "no", "yes")
    monkeypatch.setitem(observations.REGISTRY, entry.key, entry)
    cause = Cause("loose_shelf", "Shelf loose", "A shelf rattles.", 0.1, {"shelf_hum": {"yes": MOSTLY}}, ("Push it",), ("Tighten it",))
    monkeypatch.setitem(causes.CATALOGUE, cause.code, cause)
    monkeypatch.setitem(causes.USUAL, "shelf_hum", {"no": 0.97, "yes": 0.03})
    network._kept.clear()
    yield entry
    network._kept.clear()


def test_a_new_observation(hum, user, call, at_work):
    answer = at_work.post(reverse("enter", args=[call.number, "shelf_hum"]), {"shelf_hum": "yes", "stop": "read"})
    assert answer.status_code == 200
    assert judge_call(call).facts.seen["shelf_hum"] == "yes"
    [event] = [one for one in case.read_call(case_text(call)).events if one.kind == "reading"]
    assert event.data["key"] == "shelf_hum" and event.data["value"] == "yes"
    assert all("shelf_hum" in str(case.schema(version)) for version in (1, 2))
    assert "Shelf hums" in at_work.get(reverse("report", args=[call.number])).content.decode()


def test_a_new_cause(hum, user, call):
    record_reading(user, call, "shelf_hum", "yes")
    [leader, *_] = judge_call(call).ranking
    assert leader.codes == ("loose_shelf",)
    record_reading(user, call, "shelf_hum", "no")
    assert judge_call(call).ranking[0].codes != ("loose_shelf",)


def test_a_new_act(hum, user, call, monkeypatch):
    act = Act("shelf", "tightened", "Shelf tightened", {"loose_shelf": 0.9}, proof=("shelf_hum",), prove="No hum in the hand")
    monkeypatch.setitem(acts.ACTS, act.code, act)
    monkeypatch.setitem(acts.PARTS, "shelf", ("tightened",))
    content = json.loads(case_text(call))
    at = {"at": timezone.now().isoformat()}
    content["events"] = [
        {"kind": "reading", "key": "shelf_hum", "value": "yes", **at}, {"kind": "act", "part": "shelf", "did": "tightened", **at},
        {"kind": "reading", "key": "shelf_hum", "value": "no", **at},
    ]  # fmt: skip
    told = tell(case.read_call(json.dumps(content)))
    assert told.was.was[0].codes == ("loose_shelf",) and told.left[0].codes == ()
    assert "Shelf tightened" in str(case.answer_of(told)["said"])


def test_a_new_screen(call, at_work, monkeypatch, tmp_path):
    engine = engines["django"].engine
    monkeypatch.setattr(engine, "dirs", [tmp_path, *engine.dirs])
    (tmp_path / "_shelf.html").write_text("<section>Shelf of {{ shelf_of }}</section>")
    monkeypatch.setattr(registry, "_PARTS", defaultdict(list, {stop: list(parts) for stop, parts in registry._PARTS.items()}))
    registry.register("correct", lambda request, standing: {"shelf_of": standing.unit.name}, panel="_shelf.html")
    page = at_work.get(reverse("stop", args=[call.number, "correct"])).content.decode()
    assert f"<section>Shelf of {call.unit}</section>" in page
    assert "Expansion valve" in page


@pytest.mark.parametrize("bench", BENCHES)
def test_every_bench_has_the_same_rooms(bench):
    home, core = ROOT / "web" / "benches" / bench, ROOT / "kettle" / "benches" / bench
    assert f"web.benches.{bench}" in settings.INSTALLED_APPS
    assert (home / "urls.py").exists()
    assert (home / "views.py").exists() or (home / "views" / "__init__.py").exists()
    assert (home / "templates" / bench).is_dir()
    assert (core / "__init__.py").read_text().startswith('"""')
    modules = {pattern.lookup_str.rpartition(".")[0] for pattern in _patterns(get_resolver().url_patterns)}
    assert any(module.startswith(f"web.benches.{bench}.views") for module in modules)


def _patterns(patterns):
    for pattern in patterns:
        if hasattr(pattern, "url_patterns"):
            yield from _patterns(pattern.url_patterns)
        else:
            yield pattern
