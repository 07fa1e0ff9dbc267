"""The one error the core raises when something it was given cannot be right."""


class InputError(ValueError):
    """A value, file or argument that cannot be accepted; the message is one line meant for the user."""
