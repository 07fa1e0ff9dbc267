"""What the core refuses, said on the page that asked: the one place that turns it into a message."""

from contextlib import contextmanager

from django.contrib import messages

from kettle.knowledge.errors import InputError


@contextmanager
def refusals_said(request):
    """Say what is refused inside of it as a message of the page that comes; what follows inside is then left out.

    Where a field was typed into, its view says it beside the field instead (`InputError.beside`).
    """
    try:
        yield
    except InputError as error:
        messages.error(request, str(error))
