"""What the yard's pages say and draw: spans of time, sections of a coil."""

from django import template

register = template.Library()
FIRST_SECTION_X, SECTION_WIDTH = 78, 44
# From so many minutes on hours are said, and from so many hours days.
HOURS_FROM_MIN, DAYS_FROM_H = 100.0, 48.0


@register.filter
def section(number):
    """Where a section of the coil is drawn, from the valve end on."""
    return FIRST_SECTION_X + SECTION_WIDTH * int(number)


@register.filter
def span(minutes):
    """Minutes in words: minutes, hours and minutes, or days."""
    minutes = float(minutes or 0.0)
    if minutes < HOURS_FROM_MIN:
        return f"{minutes:.1f}".removesuffix(".0") + " min"
    hours, rest = divmod(round(minutes), 60)
    if hours >= DAYS_FROM_H:
        return f"{hours / 24:.1f}".removesuffix(".0") + " days"
    return f"{hours} h {rest} min" if rest else f"{hours} h"
