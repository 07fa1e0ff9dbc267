"""What a docstring leaves unsaid is found: a unit, an error, a section of what is handed on."""

import ast

import pytest

from tools import docstrings


def unsaid(text, handed_on=False):
    [function] = docstrings.functions(ast.parse(text))
    return docstrings.unsaid(function, handed_on)


@pytest.mark.parametrize(("text", "told"), [
    ('def lift() -> float:\n    """How far it is."""', ["no unit of what it returns"]),
    ('def lift() -> float:\n    """How far it is, °F."""', []),
    ('def lift_f() -> float:\n    """How far it is."""', []),
    ('def lift() -> dict[str, float]:\n    """Each by name."""', ["no unit of what it returns"]),
    ('def lift() -> str:\n    """How far it is."""', []),
    ('def lift() -> str:\n    """A word."""\n    raise InputError("no")', ["no error, though it raises one"]),
    ('def lift() -> str:\n    """A word; InputError for none."""\n    raise InputError("no")', []),
    ('def lift() -> str:\n    """A word."""\n    try:\n        raise OSError("no")\n    except OSError:\n        return ""', []),
    ('def lift() -> str:\n    """A word."""\n    try:\n        a()\n    except OSError:\n        raise InputError("no")',
     ["no error, though it raises one"]),
    ('class Unit:\n    def lift(self) -> float:\n        """How far."""', ["no unit of what it returns"]),
])  # fmt: skip
def test_a_unit_and_an_error_are_asked_for(text, told):
    assert unsaid(text) == told


def test_what_nobody_else_calls_is_left_alone():
    assert list(docstrings.functions(ast.parse("def _lift() -> float: ...\nclass _Unit:\n    def lift(self) -> float: ..."))) == []


def test_what_is_handed_on_has_its_sections_and_a_word_of_each_parameter():
    bare = 'def lift(high_f: str) -> str:\n    """A word."""'
    assert unsaid(bare, handed_on=True) == [
        "no section “Parameters”", "no section “Returns”", "no section “Examples”", "not a word of high_f",
    ]  # fmt: skip
    sections = ("Parameters", "high_f: °F"), ("Returns", "str"), ("Examples", "none")
    whole = bare.replace("A word.", "A word.\n" + "".join(f"\n    {name}\n    {'-' * len(name)}\n    {says}\n" for name, says in sections))
    assert unsaid(whole, handed_on=True) == []


def test_the_core_says_it_all():
    assert docstrings.found(docstrings.ROOT / "kettle", docstrings.ROOT / docstrings.FRONT) == []
