"""Each benchmark of the application's pages runs once, shortened, so that none of them rots; how fast it is, nobody asks here."""

import importlib
import os

import pytest

from benchmarks import timing


@pytest.fixture
def benchmark(monkeypatch, loaded):
    """Bring in a benchmark by its name, on the demo that is loaded already; whatever it times is done once."""

    def bring(name, **shortened):
        before = dict(os.environ)
        module = importlib.import_module(f"benchmarks.{name}")
        # A benchmark by itself makes a folder of data of its own.
        os.environ.clear()
        os.environ.update(before)
        monkeypatch.setattr(module, "call_command", lambda *_: None)
        monkeypatch.setattr(module, "median", lambda act, *_: timing.first(act))
        for constant, value in shortened.items():
            monkeypatch.setattr(module, constant, value)
        return module

    return bring


def test_the_screens(benchmark, capsys):
    benchmark("pages").main()
    told = capsys.readouterr().out
    assert told.count("of what is wanted") > 20 and "hand-over" in told


def test_a_ledger_of_many_lines(benchmark, capsys):
    benchmark("ledger", LINES=300, CYLINDERS=3).main()
    assert "/refrigerant/?page=300" in capsys.readouterr().out


def test_the_board_of_a_busy_shop(benchmark, capsys):
    benchmark("board", UNITS=40, CLOSED=10, OPEN=4).main()
    assert "entry, then Board" in capsys.readouterr().out
