import json
import os
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


HOSTILE = ["--", "", "nan", "inf", "1e400", "-1e308", "99 inHg", "²", "abc", "0x10", "1_000", "9" * 40]


@pytest.mark.parametrize("value", HOSTILE)
@pytest.mark.parametrize(
    "command",
    [
        ["saturation", "R-404A", "--psig={}"],
        ["saturation", "R-404A", "--f={}"],
        ["saturation", "R-404A", "--psig=10", "--altitude-ft={}"],
        ["saturation", "{}", "--psig=10"],
        ["judge", "{}"],
        ["simulate", "{}"],
        ["simulate", "walk_in_freezer", "--hours={}"],
        ["simulate", "walk_in_freezer", "--hours=1", "--fault-from={}"],
        ["simulate", "walk_in_freezer", "--hours=1", "--fault=undercharge:{}"],
    ],
)
def test_whatever_is_asked_the_answer_is_one_line_and_no_traceback(command, value, capsys):
    status = main([part.format(value) for part in command])
    told = capsys.readouterr().err
    assert (status == 0 and told == "") or (status == 2 and told.count("\n") == 1 and told.startswith("kettle: "))


def run(*command, **how):
    given = {"capture_output": True, "text": True, **how}
    return subprocess.run([sys.executable, "-m", "kettle", *command], **given)


def test_a_full_disk_a_closed_pipe_and_no_output_end_in_one_line():
    with open("/dev/full", "w") as full:
        done = run("schema", stdout=full, stderr=subprocess.PIPE, capture_output=False)
    assert done.returncode == 1 and done.stderr.count("\n") == 1 and "No space left" in done.stderr
    piped = subprocess.Popen([sys.executable, "-m", "kettle", "schema"], stdout=subprocess.PIPE, stderr=subprocess.PIPE, text=True)
    piped.stdout.close()
    told = piped.stderr.read()
    assert piped.wait() in (0, 1) and "Traceback" not in told and told.count("\n") <= 1
    closed = subprocess.run(f"{sys.executable} -m kettle schema >&-", shell=True, capture_output=True, text=True)
    assert closed.returncode == 1 and "standard output is closed" in closed.stderr


def test_a_terminal_that_knows_few_letters_gets_what_it_can_show():
    told = run("judge", "tests/core/judging/cases/healthy-1.json", env={**os.environ, "PYTHONIOENCODING": "ascii"})
    assert told.returncode == 0 and "set -5" in told.stdout
    as_json = run("judge", "tests/core/judging/cases/healthy-1.json", "--json", env={**os.environ, "PYTHONIOENCODING": "ascii"})
    assert json.loads(as_json.stdout)["ranking"]


def test_a_file_without_end_is_refused():
    assert main(["judge", "/dev/zero"]) == 2
