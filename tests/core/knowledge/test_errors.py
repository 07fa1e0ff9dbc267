"""An error knows beside which field it belongs."""

from kettle.knowledge.errors import FieldErrors, InputError


def test_what_names_no_field_stands_beside_the_one_given():
    assert InputError("Box: 900 °F is outside").beside("box") == {"box": "Box: 900 °F is outside"}


def test_what_names_its_fields_keeps_them():
    error = FieldErrors({"low": "Low: missing", "high": "High: missing"})
    assert error.beside("box") == {"low": "Low: missing", "high": "High: missing"}
    assert str(error) == "Low: missing; High: missing"
