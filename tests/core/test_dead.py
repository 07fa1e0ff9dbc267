"""What nothing uses is found, what a template or the settings name is used."""

from tools import dead


def found(folder, text):
    (folder / "some.py").write_text(text)
    return [one.rpartition("unused ")[2] for one in dead.unused((str(folder),))]


def test_a_function_a_method_and_a_class_that_nothing_names_are_found(tmp_path):
    text = """
class Room:
    def hold_nobody_asks(self):
        return 1


def asked_by_nobody():
    return Room()


class Forgotten:
    pass
"""
    assert found(tmp_path, text) == ["method hold_nobody_asks", "function asked_by_nobody", "class Forgotten"]


def test_what_is_used_or_called_by_name_is_not(tmp_path):
    text = """
class Command:
    def add_arguments(self, parser):
        return used()


def used():
    return 2
"""
    assert found(tmp_path, text) == []


def test_templates_and_settings_count_as_users():
    named = dead.named_elsewhere()
    assert {"standing", "LoginRequired"} <= named and "asked_by_nobody" not in named
