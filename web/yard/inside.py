"""A person inside a practice call: for as long as one request, the shop of whoever works is the call's own, and its clock the clock."""

from contextlib import contextmanager
from datetime import timedelta

from web import work_time


@contextmanager
def inside(user, practice, ahead_min=0.0):
    """Let a person work on a practice call: every action and every query then sees that call's shop alone."""
    member = user.member
    own = member.shop
    member.shop = practice.shop
    try:
        with work_time.standing_at(practice.now + timedelta(minutes=ahead_min)):
            yield
    finally:
        member.shop = own
