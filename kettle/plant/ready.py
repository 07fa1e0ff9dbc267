"""Loading the model before it is needed: it is compiled code, which takes a second, and some more where it is new."""

from kettle.plant.compiled import kept


def is_compiled() -> bool:
    """Whether the model was compiled before, and is only to be loaded."""
    return kept().exists()


def load() -> None:
    """Load, and where need be compile, all that a run of the model takes."""
    from kettle.plant.run import run
    from kettle.plant.simulate import preset

    run(preset("walk_in_freezer"), 0.1)
