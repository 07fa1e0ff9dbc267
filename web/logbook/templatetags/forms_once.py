"""What every form that is posted carries: proof that it is of this site, and a key by which it is taken once."""

import secrets

from django import template
from django.utils.html import format_html

from web.logbook.once import FIELD

register = template.Library()


@register.simple_tag(takes_context=True, name="csrf_token")
def csrf_token(context):
    """Return both hidden fields; nothing where there is no request."""
    token = context.get("csrf_token")
    if not token or token == "NOTPROVIDED":
        return ""
    fields = '<input type="hidden" name="csrfmiddlewaretoken" value="{}"><input type="hidden" name="{}" value="{}">'
    return format_html(fields, token, FIELD, secrets.token_urlsafe(12))
