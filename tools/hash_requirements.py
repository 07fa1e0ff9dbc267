"""Write the pinned requirements with the hashes of what is installed of them on this kind of machine.

Run on each kind that is served (system, processor, Python): python tools/hash_requirements.py
"""

import hashlib
import platform
import subprocess
import sys
import tempfile
from pathlib import Path

REQUIREMENTS = Path(__file__).parent.parent / "requirements"


def kind() -> str:
    """Return what this machine is called in the names of the files: system, processor, Python."""
    return f"{platform.system()}-{platform.machine()}-{sys.version_info[0]}.{sys.version_info[1]}".lower()


def hashes(pins: list[str]) -> dict[str, str]:
    """Return the SHA-256 of the file that is installed for each pin."""
    with tempfile.TemporaryDirectory() as folder:
        found = {}
        for pin in pins:
            into = Path(folder) / pin
            subprocess.run([sys.executable, "-m", "pip", "download", "--quiet", "--no-deps", "--dest", str(into), pin], check=True)
            [file] = into.iterdir()
            found[pin] = hashlib.sha256(file.read_bytes()).hexdigest()
        return found


def pins_of(name: str) -> list[str]:
    """Return the pins of a file of requirements, those it takes from others included."""
    lines = [line.split("#")[0].strip() for line in (REQUIREMENTS / name).read_text().splitlines()]
    own = [line for line in lines if line and not line.startswith("-r")]
    return sorted({*own, *(pin for line in lines if line.startswith("-r") for pin in pins_of(line[2:].strip()))})


def main() -> None:
    """Write both files for this kind of machine."""
    known = hashes(pins_of("test.txt"))
    for name in ("app.txt", "test.txt"):
        told = "\n".join(f"{pin} --hash=sha256:{known[pin]}" for pin in pins_of(name))
        target = REQUIREMENTS / "hashed" / f"{name.removesuffix('.txt')}-{kind()}.txt"
        target.parent.mkdir(exist_ok=True)
        target.write_text(f"# Made by tools/hash_requirements.py from {name}; do not edit by hand.\n{told}\n")


if __name__ == "__main__":
    main()
