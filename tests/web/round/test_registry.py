"""What stops are made of: no part draws over another's words."""

from collections import defaultdict

import pytest

from web.round import registry


@pytest.fixture
def parts(monkeypatch):
    monkeypatch.setattr(registry, "_PARTS", defaultdict(list))


def test_a_panel_that_leads_stands_before_the_others(parts):
    registry.register("correct", lambda request, standing: {"stem": 1}, panel="stem.html")
    registry.register("correct", lambda request, standing: {"asked": 2}, panel="asked.html", leads=True)
    assert registry.context_of("correct", None, None) == {"panels": ["asked.html", "stem.html"], "stem": 1, "asked": 2}


def test_two_parts_that_call_something_the_same_are_refused(parts):
    for _ in range(2):
        registry.register("correct", lambda request, standing: {"first": []})
    with pytest.raises(LookupError, match="two parts of correct both call something first"):
        registry.context_of("correct", None, None)
