"""Refresh the shipped styles, scripts and fonts from the npm registry, by the npm client, at the versions named here.

Run from the project folder: python tools/vendor_assets.py
"""

import subprocess
import sys
import tarfile
import tempfile
from pathlib import Path

sys.path.insert(0, str(Path(__file__).parent.parent))
from tools import trim_bulma

ROOT = Path(__file__).parent.parent
VENDOR = ROOT / "web" / "static" / "vendor"
NEXT, MONO = "@fontsource/atkinson-hyperlegible-next", "@fontsource/atkinson-hyperlegible-mono"
# package, version, licence, {file in the package: where it goes}
PACKAGES = [
    ("bulma", "1.0.4", "MIT", {"css/versions/bulma-no-dark-mode.min.css": trim_bulma.WHOLE, "LICENSE": VENDOR / "bulma.LICENSE"}),
    # Its package holds no licence file: alpine.LICENSE is kept by hand.
    ("@alpinejs/csp", "3.17.4", "MIT", {"dist/cdn.min.js": VENDOR / "alpine-csp.min.js"}),
    ("htmx.org", "2.0.11", "0BSD", {"dist/htmx.min.js": VENDOR / "htmx.min.js", "LICENSE": VENDOR / "htmx.LICENSE"}),
    ("uplot", "1.6.32", "MIT", {
        "dist/uPlot.iife.min.js": VENDOR / "uplot.min.js", "dist/uPlot.min.css": VENDOR / "uplot.min.css",
        "LICENSE": VENDOR / "uplot.LICENSE"}),
    (NEXT, "5.3.0", "OFL-1.1", {
        **{f"files/atkinson-hyperlegible-next-latin-{w}-normal.woff2": VENDOR / f"fonts/next-{w}.woff2" for w in (400, 600, 700)},
        "LICENSE": VENDOR / "fonts/next.LICENSE"}),
    (MONO, "5.3.0", "OFL-1.1", {
        **{f"files/atkinson-hyperlegible-mono-latin-{w}-normal.woff2": VENDOR / f"fonts/mono-{w}.woff2" for w in (400, 600)},
        "LICENSE": VENDOR / "fonts/mono.LICENSE"}),
    ("axe-core", "4.14.1", "MPL-2.0", {
        "axe.min.js": ROOT / "tests/browser/vendor/axe.min.js", "LICENSE": ROOT / "tests/browser/vendor/axe.LICENSE"}),
]  # fmt: skip


def main() -> None:
    """Fetch every package, copy the files that are shipped, and write the list of versions and licences."""
    by_hand = {"@alpinejs/csp": VENDOR / "alpine.LICENSE"}
    lines = ["# Shipped styles, scripts and fonts", "", "Made by tools/vendor_assets.py; do not edit by hand.", ""]
    lines += ["| package | version | licence | files |", "| --- | --- | --- | --- |"]
    with tempfile.TemporaryDirectory() as folder:
        for name, version, licence, files in PACKAGES:
            command = ["npm", "pack", "--silent", f"{name}@{version}"]
            archive = subprocess.run(command, cwd=folder, check=True, capture_output=True, text=True).stdout.split()[-1]
            with tarfile.open(Path(folder) / archive) as package:
                for source, target in files.items():
                    member = package.extractfile(f"package/{source}")
                    if member is None:
                        raise FileNotFoundError(f"{name}: {source}")
                    target.parent.mkdir(parents=True, exist_ok=True)
                    target.write_bytes(member.read())
            every = [*files.values(), *([by_hand[name]] if name in by_hand else []), *([trim_bulma.CUT] if name == "bulma" else [])]
            shipped = ", ".join(str(target.relative_to(ROOT)) for target in every)
            lines.append(f"| {name} | {version} | {licence} | {shipped} |")
    trim_bulma.main()
    (VENDOR / "README.md").write_text("\n".join(lines) + "\n")


if __name__ == "__main__":
    main()
