"""Every action is one transaction that asks for an open call inside it, or waits outside and keeps by one that does."""

import importlib
import inspect
import pkgutil
from pathlib import Path

import pytest
from django.conf import settings

PACKAGES = ["web.logbook.actions", *(f"web.benches.{p.parent.name}.actions" for p in Path(settings.ROOT, "web/benches").glob("*/actions"))]


def actions():
    for package in PACKAGES:
        for found in pkgutil.iter_modules(importlib.import_module(package).__path__):
            module = importlib.import_module(f"{package}.{found.name}")
            for name, function in inspect.getmembers(module, inspect.isfunction):
                own = inspect.unwrap(function).__module__ == module.__name__
                if own and next(iter(inspect.signature(function).parameters), "") == "user" and not name.startswith("_"):
                    yield pytest.param(function, id=f"{found.name}.{name}")


# What asks, and changes nothing.
QUESTIONS = {"has_room"}
LOG = {"write", "of_unit"}
# What is done by other actions, which ask; and what concerns the unit rather than the visit.
COMPOSED = {"enter_watch", "take_probes", "keep_on_known_unit", "keep_as_new_unit"}


@pytest.mark.parametrize("function", list(actions()))
def test_a_function_of_a_person_is_an_action(function):
    if function.__name__ in QUESTIONS | LOG:
        return
    assert getattr(function, "is_action", False), f"{function.__name__} is not an action: @action, or @outside where it waits"
    source = inspect.getsource(inspect.unwrap(function))
    if "call" in inspect.signature(function).parameters and function.__name__ not in COMPOSED:
        asks = getattr(function, "asks_open", False) or "require_open(" in source
        assert asks, f"{function.__name__} does not ask for an open call"
