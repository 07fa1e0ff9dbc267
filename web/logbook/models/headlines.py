"""What was judged of a call, kept beside it until something on it changes."""

from django.db import models

from web import work_time
from web.logbook.models.calls import Call


class Headline(models.Model):
    """The judgement of a call in one line, with what it holds for: a revision of the call, the code that judged, a time."""

    call = models.OneToOneField(Call, on_delete=models.CASCADE, primary_key=True, related_name="kept_headline")
    revision = models.PositiveIntegerField()
    code = models.CharField(max_length=16)
    until = models.DateTimeField(null=True)
    leader = models.CharField(max_length=200, blank=True)
    probability = models.FloatField(default=0.0)
    holds = models.PositiveSmallIntegerField(default=0)
    settling = models.DateTimeField(null=True)

    def __str__(self):
        return self.leader or "nothing judged yet"

    def stands(self, call, code):
        """Whether nothing has changed since: neither the call, nor the code, nor did a reading grow old."""
        return self.revision == call.revision and self.code == code and (self.until is None or self.until > work_time.now())
