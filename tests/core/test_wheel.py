"""The core as a wheel: built from its sources alone, and a case judged by it where there is no Django and no checkout."""

import json
import shutil
import subprocess
import sys
import zipfile
from pathlib import Path

import pytest

from kettle import __version__

ROOT = Path(__file__).parents[2]
# Runs as a user's own script would: nothing of the checkout on its path, and nothing of the web to be had.
SCRIPT = """
import sys
class NoWeb:
    def find_spec(self, name, path=None, target=None):
        if name.partition('.')[0] in ('django', 'web', 'devices'):
            raise ImportError(f'{name} is not here')
sys.meta_path.insert(0, NoWeb())
import json, kettle
found = kettle.judge(kettle.unit('walk_in_cooler', 'R-448A'), {'box_temp_f': 46, 'evap_fans': 'stopped', 'evap_fan_supply_v': 230})
print(json.dumps([kettle.__file__, found.ranking[0].codes, kettle.saturation('R-134a', psig=20.0).dew_f]))
"""


@pytest.fixture(scope="module")
def wheel(tmp_path_factory):
    sources, made = tmp_path_factory.mktemp("sources"), tmp_path_factory.mktemp("wheel")
    shutil.copytree(ROOT / "kettle", sources / "kettle", ignore=shutil.ignore_patterns("__pycache__"))
    for name in ("pyproject.toml", "README.md", "LICENSE"):
        shutil.copy(ROOT / name, sources / name)
    command = [sys.executable, "-m", "pip", "wheel", str(sources), "--no-deps", "--quiet", "--wheel-dir", str(made)]
    done = subprocess.run(command, capture_output=True, text=True, check=False)
    assert done.returncode == 0, done.stderr[-2000:]
    return next(made.glob("*.whl"))


def test_it_holds_the_core_with_its_data_and_nothing_of_the_web(wheel):
    assert __version__ in wheel.name
    names = zipfile.ZipFile(wheel).namelist()
    assert "kettle/knowledge/refrigerants/data/saturation.json" in names and "kettle/front.py" in names
    packages = {name.partition("/")[0] for name in names if not name.partition("/")[0].endswith(".dist-info")}
    assert packages == {"kettle"}
    here = {str(path.relative_to(ROOT)) for path in (ROOT / "kettle").rglob("*.py")}
    assert here <= set(names), "a package without its __init__ would be left out"


def test_it_judges_a_case_by_itself(wheel, tmp_path):
    zipfile.ZipFile(wheel).extractall(tmp_path)
    done = subprocess.run([sys.executable, "-c", SCRIPT], cwd=tmp_path, env={"PYTHONPATH": str(tmp_path), "PATH": "/usr/bin"},
                          capture_output=True, text=True, check=False)  # fmt: skip
    assert done.returncode == 0, done.stderr
    where, codes, dew_f = json.loads(done.stdout)
    assert where.startswith(str(tmp_path)) and codes == ["evap_fan_failed"] and 20.0 < dew_f < 25.0
