"""What was sent already: a form tapped twice is taken once."""

from django.conf import settings
from django.db import models


class SentOnce(models.Model):
    """One form that was taken: a name made of its key and all that was typed, who sent it, and where its answer led."""

    name = models.CharField(max_length=64, unique=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+")
    at = models.DateTimeField(auto_now_add=True, db_index=True)
    led_to = models.CharField(max_length=500, blank=True)

    def __str__(self):
        return self.name
