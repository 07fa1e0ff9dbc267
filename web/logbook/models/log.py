"""Who did what, when."""

from django.conf import settings
from django.core.serializers.json import DjangoJSONEncoder
from django.db import models

from kettle.knowledge import observations
from web import work_time
from web.accounts.models import Shop
from web.logbook.models.calls import Call

# A line of the log is read at a glance.
LONGEST_TOLD = 120


class LogEntry(models.Model):
    """Who did what, when: one line for every action."""

    shop = models.ForeignKey(Shop, on_delete=models.PROTECT, related_name="log")
    at = models.DateTimeField(default=work_time.now)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    action = models.CharField(max_length=40)
    call = models.ForeignKey(Call, on_delete=models.SET_NULL, null=True, blank=True, related_name="log")
    data = models.JSONField(default=dict, encoder=DjangoJSONEncoder)

    class Meta:
        ordering = ["-at", "-pk"]

    def __str__(self):
        return self.action

    @property
    def words(self):
        """What was done, in words."""
        return self.action.replace("_", " ")

    @property
    def told(self):
        """What it was done with, in short."""
        entry = observations.REGISTRY.get(str(self.data.get("key")))
        if entry is not None:
            value = self.data.get("value")
            return f"{entry.label} {entry.show(tuple(value) if isinstance(value, list) else value)}"
        told = ", ".join(f"{name.replace('_', ' ')} {value}" for name, value in self.data.items() if value not in (None, "", [], {}, False))
        return f"{told[:LONGEST_TOLD]}…" if len(told) > LONGEST_TOLD else told
