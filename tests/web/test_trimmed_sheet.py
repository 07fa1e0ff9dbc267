"""The base library's sheet holds what is used of it, and nothing else."""

from tools import trim_bulma

SHEET = """
:root{--a:1px;--b:var(--a);--c:2px;--d:red}
h1{margin:var(--b)}
.tag,.is-gone{color:var(--d)}
.is-gone{padding:var(--c)}
.tag:not(.is-gone){left:0!important}
h1,[data-theme=dark] h1{top:0}
@media print{.is-gone{top:1px}.tag{top:2px}}
@keyframes turns{to{top:0}}
@keyframes shakes{to{top:0}}
.tag{animation:turns 1s}
"""


def test_what_no_class_of_ours_asks_for_is_cut_and_its_variables_with_it():
    kept = trim_bulma.cut(SHEET, {"tag"}, "a{width:var(--mine)}")
    assert "is-gone{" not in kept and "--c" not in kept and "shakes" not in kept and "data-theme" not in kept
    assert ":root{--a:1px;--b:var(--a);--d:red}" in kept
    assert ".tag{color:var(--d)}" in kept and ".tag:not(.is-gone){left:0 !important}" in kept
    assert "@media print{.tag{top:2px}}" in kept and "@keyframes turns" in kept and "h1{top:0}" in kept


def test_a_variable_our_own_sheets_ask_for_is_kept():
    assert "--c:2px" in trim_bulma.cut(SHEET, set(), "a{width:var(--c)}")


def test_what_is_shipped_is_what_the_templates_use(monkeypatch):
    monkeypatch.setattr("sys.argv", ["trim_bulma.py", "--check"])
    assert trim_bulma.main() == 0
    used = trim_bulma.used_classes()
    assert {"btn", "chips", "entry"} <= used and "is-primary" not in used


def test_a_sheet_that_is_not_what_would_be_cut_is_said(monkeypatch, tmp_path, capsys):
    (tmp_path / "old.css").write_text("h1{top:0}")
    monkeypatch.setattr(trim_bulma, "CUT", tmp_path / "old.css")
    monkeypatch.setattr("sys.argv", ["trim_bulma.py", "--check"])
    assert trim_bulma.main() == 1 and "python tools/trim_bulma.py" in capsys.readouterr().out
