"""A landed migration is never edited: python tools/landed.py checks them against landed.txt; --add notes new ones when they land."""

import hashlib
import sys
from pathlib import Path

ROOT = Path(__file__).parent.parent
LANDED = Path(__file__).with_name("landed.txt")


def migrations() -> dict[str, str]:
    """Return every migration of the application by its path, with the hash of what it says."""
    found = sorted(ROOT.glob("web/**/migrations/[0-9]*.py"))
    return {str(path.relative_to(ROOT)): hashlib.sha256(path.read_bytes()).hexdigest() for path in found}


def complaints(now: dict[str, str], landed: dict[str, str]) -> list[str]:
    """Return what is wrong: a landed migration that was edited or taken away, or a new one that is not noted yet."""
    wrong = []
    for path, told in landed.items():
        if path not in now:
            wrong.append(f"{path} has landed and is gone")
        elif now[path] != told:
            wrong.append(f"{path} has landed and was edited: write a new migration instead")
    wrong += [f"{path} is not noted: python tools/landed.py --add" for path in now if path not in landed]
    return wrong


def main() -> int:
    """Check, or note what is new; return the exit status."""
    rows = LANDED.read_text().splitlines() if LANDED.exists() else []
    landed = {path: told for told, path in (row.split(maxsplit=1) for row in rows if row.strip())}
    now = migrations()
    if "--add" in sys.argv[1:]:
        landed = {**{path: told for path, told in now.items() if path not in landed}, **landed}
        LANDED.write_text("".join(f"{told} {path}\n" for path, told in sorted(landed.items())))
    wrong = complaints(now, landed)
    for complaint in wrong:
        print(complaint, file=sys.stderr)
    return 1 if wrong else 0


if __name__ == "__main__":
    sys.exit(main())
