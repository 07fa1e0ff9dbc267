"""A shop and the people who work in it."""

from django.conf import settings
from django.db import models


class Shop(models.Model):
    """A service company; everything recorded belongs to one."""

    name = models.CharField(max_length=80, unique=True)

    def __str__(self):
        return self.name


class Member(models.Model):
    """A person of a shop."""

    user = models.OneToOneField(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="member")
    shop = models.ForeignKey(Shop, on_delete=models.PROTECT, related_name="members")

    def __str__(self):
        return self.user.get_full_name() or self.user.get_username()
