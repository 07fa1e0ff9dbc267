"""When somebody arrived, waited, went for parts and left."""

from django.db import models

from kettle.benches.report.times import MARKS
from web.logbook.models.calls import Entry


class TimeMark(Entry):
    """A moment of a visit."""

    what = models.CharField(max_length=8, choices=list(MARKS.items()))

    def __str__(self):
        return f"{self.get_what_display()} {self.at:%H:%M}"
