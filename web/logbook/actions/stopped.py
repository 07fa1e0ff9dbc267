"""What an action refuses because it would hurt or break something, told to whoever counts it."""

from django.dispatch import Signal

# Sent with `call` and `words`: something was stopped by a hold, or by a rule of safety.
stopped = Signal()


def tell(call, words):
    """Say that something on a call was stopped."""
    stopped.send(sender=type(call), call=call, words=str(words))
