import json
import subprocess
import sys

import pytest

from kettle.__main__ import main
from tests.core.test_case import text


@pytest.fixture
def good(tmp_path):
    path = tmp_path / "case.json"
    path.write_text(text())
    return str(path)


def test_judge_prints_one_json_object(good, capsys):
    assert main(["judge", good, "--json"]) == 0
    answer = json.loads(capsys.readouterr().out)
    assert 0.95 < sum(row["probability"] for row in answer["ranking"]) <= 1.001


def test_judge_in_words_names_unit_suspects_and_holds(good, capsys):
    assert main(["judge", good]) == 0
    out = capsys.readouterr().out
    assert "Cooler 2: walk-in cooler, expansion valve, R-448A" in out
    assert "Suspects" in out
    assert "Must wait: Valve stem" in out


def test_saturation_both_ways(capsys):
    assert main(["saturation", "R-404A", "--psig", "30"]) == 0
    assert "dew −2.7 °F, bubble −3.8 °F, glide 1.1 °F" in capsys.readouterr().out
    assert main(["saturation", "r404a", "--f", "20", "--json"]) == 0
    found = json.loads(capsys.readouterr().out)
    assert found["refrigerant"] == "R-404A"
    assert found["bubble_psig"] > found["dew_psig"] > 50


def test_schema_is_json(capsys):
    assert main(["schema"]) == 0
    assert json.loads(capsys.readouterr().out)["title"] == "Case"


@pytest.mark.parametrize(
    "arguments",
    [
        [],
        ["fly"],
        ["judge", "no-such-file.json"],
        ["saturation", "R-404A"],
        ["saturation", "R-404A", "--psig", "x"],
        ["saturation", "R-404A", "--psig", "9999"],
        ["saturation", "R-404A", "--f", "900"],
        ["saturation", "R-404A", "--f", "20", "--altitude-ft", "90000"],
        ["saturation", "water", "--f", "20"],
    ],
)
def test_a_bad_argument_is_status_2_and_one_line(arguments, capsys):
    assert main(arguments) == 2
    captured = capsys.readouterr()
    assert captured.out == ""
    assert captured.err.startswith("kettle: ")
    assert captured.err.count("\n") == 1


def test_it_runs_from_standard_input_and_never_loads_django():
    code = "import sys; from kettle.__main__ import main; main(['judge', '-', '--json']); sys.exit('django' in sys.modules)"
    done = subprocess.run([sys.executable, "-c", code], input=text(), capture_output=True, text=True)
    assert done.returncode == 0, done.stderr
    assert json.loads(done.stdout)["derived"]
