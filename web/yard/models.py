"""Practice calls: what was drawn, who is on it, and each step of the work."""

import secrets
from datetime import timedelta

from django.conf import settings
from django.db import models
from django.utils import timezone

from kettle.yard.drawn import DIFFICULTIES
from kettle.yard.spoken import HELPS
from web.accounts.models import Shop
from web.logbook.models import OfShop

# Letters and figures that nobody reads for another, for the word by which somebody joins.
LETTERS, LETTERS_OF_A_KEY = "ACDEFHJKMNPRTUVWXY34679", 5


def make_key():
    """A word by which somebody joins a practice call."""
    return "".join(secrets.choice(LETTERS) for _ in range(LETTERS_OF_A_KEY))


class Scenario(models.Model):
    """A practice call somebody of the shop wrote, or laid out from a closed call: what `kettle.yard.scenario` reads."""

    shop = models.ForeignKey(Shop, on_delete=models.PROTECT, related_name="scenarios")
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField(default=timezone.now)
    title = models.CharField(max_length=80)
    told = models.JSONField()
    gone_at = models.DateTimeField(null=True, blank=True)

    objects = OfShop.as_manager()

    class Meta:
        ordering = ["title", "pk"]

    def __str__(self):
        return self.title


class Practices(models.QuerySet):
    """Practice calls, reached only by those who are on them."""

    def for_user(self, user):
        """Those a person works on, or joined; of their shop alone."""
        member = getattr(user, "member", None)
        if member is None:
            return self.none()
        return self.filter(models.Q(learner=user) | models.Q(joined__user=user), of_shop=member.shop_id).distinct()


class Practice(models.Model):
    """A practice call: `shop` is one of its own, which nothing else sees; `of_shop` is whose people practise.

    Its clock stands at `begun_at` and so many minutes and seconds more, which only its work moves.
    """

    shop = models.OneToOneField(Shop, on_delete=models.PROTECT, related_name="practised")
    of_shop = models.ForeignKey(Shop, on_delete=models.PROTECT, related_name="practices")
    learner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="practices")
    number = models.PositiveBigIntegerField()
    lesson = models.CharField(max_length=40, blank=True)
    scenario = models.ForeignKey(Scenario, on_delete=models.SET_NULL, null=True, blank=True, related_name="practices")
    drawn = models.JSONField()
    difficulty = models.CharField(max_length=12, choices=list(DIFFICULTIES.items()))
    help = models.CharField(max_length=8, choices=list(HELPS.items()), default="all")
    key = models.CharField(max_length=8, unique=True, default=make_key)
    begun_at = models.DateTimeField(default=timezone.now)
    minutes = models.FloatField(default=0.0)
    seconds = models.PositiveIntegerField(default=0)
    frozen = models.BooleanField(default=False)
    named = models.JSONField(null=True, blank=True)
    ended_at = models.DateTimeField(null=True, blank=True)
    told = models.JSONField(null=True, blank=True, help_text="The debrief, once it was told")

    objects = Practices.as_manager()

    class Meta:
        ordering = ["-begun_at", "-pk"]

    def __str__(self):
        return f"Practice {self.pk}"

    @property
    def now(self):
        """The moment its clock stands at."""
        return self.begun_at + timedelta(minutes=self.minutes, seconds=self.seconds)

    @property
    def is_over(self):
        """Whether it was named, which ends it."""
        return self.named is not None

    @property
    def call(self):
        """The one call of its shop."""
        return self.shop.calls.select_related("unit").first()


class Joined(models.Model):
    """Somebody else on a practice call: another pair of hands, or who teaches."""

    ROLES = [("partner", "works with"), ("instructor", "watches and asks")]

    practice = models.ForeignKey(Practice, on_delete=models.CASCADE, related_name="joined")
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+")
    role = models.CharField(max_length=10, choices=ROLES)
    at = models.DateTimeField(default=timezone.now)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["practice", "user"], name="joined_once")]

    def __str__(self):
        return f"{self.user} {self.role}"


class Step(models.Model):
    """One step of a practice call as `kettle.yard.practice.Step` has it; `ref` is the entry of the record it came with."""

    practice = models.ForeignKey(Practice, on_delete=models.CASCADE, related_name="steps")
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    what = models.CharField(max_length=16)
    of = models.CharField(max_length=120, blank=True)
    value = models.JSONField(null=True, blank=True)
    minutes = models.FloatField(default=0.0)
    at_min = models.FloatField(default=0.0)
    at = models.DateTimeField(default=timezone.now)
    says = models.TextField(blank=True)
    ref = models.CharField(max_length=40, blank=True)
    undone = models.BooleanField(default=False)

    class Meta:
        ordering = ["pk"]

    def __str__(self):
        return f"{self.what} {self.of}"
