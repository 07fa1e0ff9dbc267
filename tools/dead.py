"""Functions, methods and classes nothing uses: python tools/dead.py. Templates and settings count as users, tests do not."""

import os
import re
import sys
from pathlib import Path
from typing import Final

from vulture import Vulture

ROOT = Path(__file__).parent.parent
PLACES: Final = ("kettle", "web", "devices", "tools", "benchmarks", "manage.py")
KINDS: Final = ("function", "method", "property", "class")
# Called by name: by Django and its fields, by the queue, by Python's own protocols, and by whoever tries an outside device without its own
# process.
CALLED: Final = (
    "Command",
    "add_arguments",
    "process_exception",
    "_set_signal_handlers",
    "*Config",
    "__getattr__",
    "handle",
    "to_python",
    "readinto",
    "clean_*",
    "serve_in_background",
    "get_queryset",
)
DECORATED: Final = ("@field_validator", "@model_validator", "@register.*", "@receiver")
WORD: Final = re.compile(r"[A-Za-z_][A-Za-z0-9_]*")
SPOKEN: Final = re.compile(r"\{\{.*?\}\}|\{%.*?%\}", re.S)


def named_elsewhere() -> set[str]:
    """Return every name that a template asks for or the settings name in words."""
    pages = [path.read_text() for path in ROOT.glob("web/**/templates/**/*") if path.is_file()]
    asked = {word for page in pages for part in SPOKEN.findall(page) for word in WORD.findall(part)}
    return asked | set(WORD.findall((ROOT / "web" / "settings.py").read_text()))


def unused(places: tuple[str, ...] = PLACES) -> list[str]:
    """Return what is defined and used nowhere: file, line, what it is."""
    looked = Vulture(ignore_names=CALLED, ignore_decorators=DECORATED)
    looked.scavenge([str(ROOT / place) for place in places], exclude=["*/migrations/*"])
    used = named_elsewhere()
    return [
        f"{os.path.relpath(item.filename, ROOT)}:{item.first_lineno}: unused {item.typ} {item.name}"
        for item in looked.get_unused_code(min_confidence=60)
        if item.typ in KINDS and item.name not in used
    ]


def main() -> int:
    """Print what is dead; return the exit status."""
    found = unused()
    for one in found:
        print(one, file=sys.stderr)
    return 1 if found else 0


if __name__ == "__main__":
    sys.exit(main())
