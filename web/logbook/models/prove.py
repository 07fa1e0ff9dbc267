"""What shows that a repair holds: a box watched down, proofs said by hand, what is promised, and whether it held."""

from django.conf import settings
from django.db import models

from kettle.benches.prove.held import ANSWERS
from kettle.benches.prove.stock import STOCK
from web import work_time
from web.accounts.models import Shop
from web.logbook.models.calls import Call, Entry
from web.logbook.models.places import OfShop, Unit


class BoxWatch(Entry):
    """A box watched down from a temperature: °F, the air outside, the stock in it; when somebody wants to be reminded, and was."""

    call = models.ForeignKey(Call, on_delete=models.CASCADE, related_name="box_watches")
    from_f = models.FloatField()
    ambient_f = models.FloatField()
    stock = models.CharField(max_length=8, choices=list(STOCK.items()))
    remind_at = models.DateTimeField(null=True, blank=True)
    reminded_at = models.DateTimeField(null=True, blank=True)

    def __str__(self):
        return f"Box watched from {self.at:%H:%M}"


class ProofSeen(Entry):
    """A proof that was seen and is no observation of its own (`kettle/benches/prove/proofs.py`)."""

    call = models.ForeignKey(Call, on_delete=models.CASCADE, related_name="proofs_seen")
    code = models.CharField(max_length=20)

    def __str__(self):
        return self.code


class FollowUp(models.Model):
    """What to come back for: on which unit, promised on which call, what, why, by when; done on a later call or let go."""

    shop = models.ForeignKey(Shop, on_delete=models.PROTECT, related_name="follow_ups")
    unit = models.ForeignKey(Unit, on_delete=models.PROTECT, related_name="follow_ups")
    call = models.ForeignKey(Call, on_delete=models.PROTECT, related_name="follow_ups")
    code = models.CharField(max_length=16, blank=True)
    what = models.CharField(max_length=200)
    why = models.CharField(max_length=200, blank=True)
    due = models.DateField()
    at = models.DateTimeField(default=work_time.now)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    done_at = models.DateTimeField(null=True, blank=True)
    done_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+", null=True, blank=True)
    done_on = models.ForeignKey(Call, on_delete=models.PROTECT, related_name="follow_ups_done", null=True, blank=True)
    let_go = models.CharField(max_length=200, blank=True)

    objects = OfShop.as_manager()

    class Meta:
        ordering = ["due", "pk"]
        indexes = [models.Index(fields=["shop", "done_at", "due"])]

    def __str__(self):
        return self.what

    @property
    def is_open(self):
        """Whether it is still promised."""
        return self.done_at is None


class Outcome(models.Model):
    """What a call came to when it was closed, and whether it held: first suspect, cause named, what was done, the answer since."""

    call = models.OneToOneField(Call, on_delete=models.CASCADE, related_name="outcome")
    suspects = models.JSONField(default=list)
    probability = models.FloatField(default=0.0)
    found = models.JSONField(default=list)
    minutes = models.FloatField(null=True, blank=True)
    done = models.JSONField(default=list)
    answer = models.CharField(max_length=16, blank=True, choices=list(ANSWERS.items()))
    answered_at = models.DateTimeField(null=True, blank=True)
    answered_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+", null=True, blank=True)

    def __str__(self):
        return f"{self.call}: {self.get_answer_display() or 'not asked yet'}"
