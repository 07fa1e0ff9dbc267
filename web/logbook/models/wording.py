"""Sentences of a write-up that somebody worded, and what was answered to what is left so."""

from django.conf import settings
from django.db import models

from kettle.benches.prove.leaving import ANSWERS
from web import work_time
from web.logbook.models.calls import Call, Entry


class Wording(models.Model):
    """A sentence of a call's write-up as somebody worded it: by the records it is of, what was drafted then, and the words now (none: left
    out)."""

    call = models.ForeignKey(Call, on_delete=models.CASCADE, related_name="wordings")
    section = models.CharField(max_length=10)
    key = models.CharField(max_length=300)
    drafted = models.TextField(blank=True)
    text = models.TextField(blank=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField(default=work_time.now)

    class Meta:
        ordering = ["pk"]
        constraints = [models.UniqueConstraint(fields=["call", "key"], name="one_wording_of_a_sentence")]

    def __str__(self):
        return self.text or f"left out: {self.drafted}"


class Leaving(Entry):
    """One thing that is left so at the end of a visit (its key), what it was in words then, and what was answered to it."""

    key = models.CharField(max_length=60)
    words = models.CharField(max_length=300)
    answer = models.CharField(max_length=10, choices=[(one.code, one.label) for one in ANSWERS.values()])
    reason = models.CharField(max_length=300, blank=True)

    def __str__(self):
        return f"{self.words}: {self.get_answer_display()}"
