"""The one error the core raises when something it was given cannot be right."""


class InputError(ValueError):
    """A value, file or argument that cannot be accepted; the message is one line meant for the user."""


class FieldErrors(InputError):
    """What is wrong, by field of a form."""

    def __init__(self, by_field: dict[str, str]) -> None:
        super().__init__("; ".join(by_field.values()))
        self.by_field = by_field
