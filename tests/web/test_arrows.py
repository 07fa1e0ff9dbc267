"""Templates, styles and scripts keep to the arrows that import-linter holds for code: nothing includes or loads what stands above it."""

import re
import tomllib
from pathlib import Path

from django.conf import settings

WEB = Path(settings.ROOT) / "web"
CONTRACTS = tomllib.loads((Path(settings.ROOT) / "pyproject.toml").read_text())["tool"]["importlinter"]["contracts"]
TEMPLATE = re.compile(r"""{%-?\s*(?:include|extends)\s+["']([^"']+)["']""")
ASSET = re.compile(r"""{%-?\s*static\s+["']([^"']+)["']""")


def floors():
    """Home of files -> its floor, as the contracts have it: what has none (`web/templates`, `web/static`) stands at the bottom."""
    [house] = [one["layers"] for one in CONTRACTS if one.get("layers", [""])[-1] == "web.accounts"]
    [benches] = [one["layers"] for one in CONTRACTS if one.get("containers") == ["web.benches"]]
    found = {}
    for height, names in enumerate(reversed(house), start=1):
        for name in names.split(" | "):
            found[name.removeprefix("web.")] = (height, 0)
    base = found.pop("benches")[0]
    for height, names in enumerate(reversed(benches)):
        for name in names.split(" | "):
            found[f"benches/{name.strip()}"] = (base, height)
    return found


def home_of(path):
    """The application a file is of; empty for what all share."""
    parts = path.relative_to(WEB).parts
    if parts[0] in ("templates", "static"):
        return ""
    return "/".join(parts[:2]) if parts[0] == "benches" and parts[1] not in ("templates", "static") else parts[0]


def owners(kind):
    """Name of a file as it is asked for -> the application it is of."""
    found = {}
    for root in (WEB / kind, *WEB.glob(f"*/{kind}"), *WEB.glob(f"benches/*/{kind}")):
        for path in root.rglob("*"):
            if path.is_file():
                found.setdefault(str(path.relative_to(root)), home_of(root))
    return found


def reaching_up():
    """Every line that asks for a file of an application above its own, or beside it."""
    floor, found = floors(), []
    for kind, pattern in (("templates", TEMPLATE), ("static", ASSET)):
        owner = owners(kind)
        for path in [*WEB.rglob("templates/**/*.html"), *WEB.rglob("templates/**/*.svg")]:
            here = home_of(path)
            for name in pattern.findall(path.read_text()):
                there = owner.get(name)
                if there is None:
                    found.append(f"{path.relative_to(WEB)} asks for {name}, which is not there")
                elif there and there != here and floor[there] >= floor.get(here, (0, 0)):
                    found.append(f"{path.relative_to(WEB)} asks for {name} of {there}")
    return found


def test_every_application_has_a_floor():
    homes = {home_of(path) for path in WEB.rglob("templates/**/*.html")} - {""}
    assert homes - set(floors()) == set()
    assert len(homes) > 10


def test_no_include_and_no_asset_reaches_up():
    assert reaching_up() == []
