"""What the core raises: something it was given cannot be right, or who asked does not want the answer any more."""


class InputError(ValueError):
    """A value, file or argument that cannot be accepted; the message is one line meant for the user."""

    def beside(self, field: str) -> dict[str, str]:
        """Return what is wrong by field of a form: where none is named, beside the one given."""
        return {field: str(self)}


class Stopped(Exception):
    """The one who asked does not want the answer any more."""


class FieldErrors(InputError):
    """What is wrong, by field of a form."""

    def __init__(self, by_field: dict[str, str]) -> None:
        super().__init__("; ".join(by_field.values()))
        self.by_field = by_field

    def beside(self, field: str) -> dict[str, str]:
        """Return what is wrong by field; the one given is not needed."""
        return self.by_field
