"""Figures and words of the core, as templates ask for them."""

from django import template

from kettle.benches.defrost.program import ROLES
from kettle.benches.quote.price import quantity_words
from kettle.judging.evidence import quantity_name
from kettle.judging.holds import ACTIONS
from kettle.judging.scale import push
from kettle.knowledge import causes
from kettle.knowledge.measures import format_percent
from kettle.knowledge.parameters import PARAMETERS

register = template.Library()


@register.filter
def percent(share):
    """A share of one as whole percent."""
    return format_percent(share)


@register.filter
def sentence(words):
    """Words as a sentence: begun with a capital, ended with one full stop."""
    return f"{words[:1].upper()}{words[1:].rstrip('.')}."


@register.filter
def figure(value):
    """A figure without needless zeros."""
    return f"{value:g}".replace("-", "−")


@register.filter
def many(quantity):
    """How many of something, without needless zeros."""
    return quantity_words(quantity)


@register.filter
def parameter(code):
    """The label of a controller setting."""
    return PARAMETERS[code].label


@register.filter
def cause_label(code):
    """What a cause is called."""
    return causes.get(code).label


@register.filter
def role_label(code):
    """What a value of a defrost program is called."""
    return ROLES[code].label if code in ROLES else "Starts"


@register.filter
def action_words(action):
    """What an action that can be held is called."""
    return "closing the call" if action == "close" else ACTIONS.get(action, action)


@register.filter
def quantity_label(key):
    """What a quantity or an observed figure is called."""
    return quantity_name(key)[0]


@register.filter
def push_from(weight):
    """Where the bar of a piece of evidence starts, in % of its line."""
    return push(weight)[0]


@register.filter
def push_width(weight):
    """How wide the bar of a piece of evidence is, in % of its line."""
    return push(weight)[1]


@register.filter
def bar_width(share):
    """How wide the bar of a probability is, in % of its line."""
    return 100.0 * share


@register.filter
def at(mapping, key):
    """What a mapping holds for a key, empty where it holds nothing."""
    return (mapping or {}).get(key, "")


@register.filter
def as_shown(unit, shown):
    """The name of a stored unit as a person reads it."""
    return shown.label(unit)


@register.filter
def by_stage(suspect):
    """The evidence on a suspect stage by stage, what speaks for it first."""
    return sorted((*suspect.speaks_for, *suspect.speaks_against), key=lambda item: (item.stage, -item.weight))


@register.filter
def stage_title(course, stage):
    """What a stage of a course is called."""
    return course.stage_words(stage)


@register.filter
def told_by_stage(course, item):
    """A piece of evidence in words, with its stage."""
    return course.words_of(item)
