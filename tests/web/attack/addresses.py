"""Every address of the application, taken from its own table, and what somebody hostile would send to it."""

import itertools
import random

from django.urls import get_resolver

from kettle.knowledge import observations

METHODS = ("get", "head", "post", "put", "patch", "delete", "options")
HOSTILE = (
    "", " ", "0", "-1", "1", "²", "٣", "9" * 4400, "1e400", "-1e308", "inf", "nan", "NaN", "\x00", "a\x00b", "'\"><script>",
    "{{7*7}}", "../../etc/passwd", "%00", "%ED%A0%80", "𝔘𝔫𝔦", "x" * 5000, "2026-02-30",
    "9999-12-31T23:59:59-12:00", "0001-01-01", "true", "[]", "{}",
    "on", "1,5", "5 inHg", "\r\nSet-Cookie: x=1",
)  # fmt: skip
NAMES = (
    "stop", "coil", "coil_place", "supply", "pour", "method", "reason",
    "stage", "rows", "oil", "place-drain_pan", "act", "place", "by",
    "from_x", "from_y", "to_x", "to_y", "starts", "fail_safe_min", "termination_f",
    "why", "box_limit_f", "whole_hours", "take", "q", "page",
    "who", "quantity", "low", "high", "was",
    "name", "kind", "refrigerant", "site_name", "set_f", "evaporators", "phases", "unit", "unit_name",
    "complaint", "changed", "found", "due", "what", "why",
    "cause", "action", "key", "value", "what_if", "direction", "turns", "goal", "parameter",
    "as_found", "as_left", "label", "good", "probe", "minutes", "state", "photo", "of", "content", "case", "device", "address", "login",
    "full_name", "temperature", "pressure", "mass", "vacuum", "valve", "work", "by_feel", "next", "volts", "watts", "elements", "amps",
    "heater_elements", "defrost_ended_by", "coil_after_defrost", "ended_after", "clear_after", "opens", "closes", "deliveries", "r", "step",
    "altitude_ft", "moved", "reading", "theirs", "a", "b", "supply_air_f", "why_not", "against",
)  # fmt: skip


def patterns():
    """Every address as a list of its parts: text, or the name of a converter with its parameter."""
    yield from _walk(get_resolver().url_patterns, "")


def _walk(found, before):
    for pattern in found:
        route = before + str(pattern.pattern)
        if hasattr(pattern, "url_patterns"):
            yield from _walk(pattern.url_patterns, route)
        else:
            yield route


def filled(route, fitting, chance):
    """An address with every parameter filled, from fitting values most of the time and from hostile ones else."""
    out, rest = "", route
    while "<" in rest:
        text, _, rest = rest.partition("<")
        what, _, rest = rest.partition(">")
        converter, _, name = what.partition(":")
        if chance.random() < 0.75 and fitting.get(name):
            value = str(chance.choice(fitting[name]))
        elif converter == "int":
            value = chance.choice(["0", "1", "7", "999999999", "9" * 18])
        else:
            value = chance.choice(["x", "read", "a-b", "0", "zz" * 60, "found", "%2e%2e"])
        out += text + value
    return "/" + out + rest


def sent(chance):
    """A body of hostile values under names that forms use."""
    keys = list(itertools.chain(NAMES, observations.REGISTRY))
    return {name: chance.choice(HOSTILE) for name in chance.sample(keys, k=chance.randint(0, 14))}


def luck(seed):
    """Chance that can be had again."""
    return random.Random(seed)
