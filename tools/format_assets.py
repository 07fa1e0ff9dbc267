"""Lay out templates, styles and scripts: python tools/format_assets.py [--check]. Kept libraries do it; shipped ones are left alone."""

import subprocess
import sys
from pathlib import Path

import cssbeautifier
import jsbeautifier

ROOT = Path(__file__).parent.parent
LONGEST_LINE = 140
DRAWINGS = "*.svg"


def own(pattern: str) -> list[Path]:
    """Return the application's own files of a sort."""
    return [path for path in sorted((ROOT / "web").rglob(pattern)) if "vendor" not in path.parts]


def laid_out(path: Path) -> str:
    """Return a style sheet or script as the formatter lays it out."""
    library = cssbeautifier if path.suffix == ".css" else jsbeautifier
    options = library.default_options()
    options.indent_size, options.wrap_line_length, options.end_with_newline = 2, LONGEST_LINE, True
    options.preserve_newlines = True
    return str(library.beautify(path.read_text(), options))


def main() -> int:
    """Write every file anew, or with --check say which would change and which lines are too long; return the exit status."""
    check = "--check" in sys.argv[1:]
    wrong = []
    for path in own("*.css") + own("*.js"):
        text = laid_out(path)
        if text != path.read_text():
            wrong.append(f"{path.relative_to(ROOT)} is not laid out; run python tools/format_assets.py")
            if not check:
                path.write_text(text)
    command = [sys.executable, "-m", "djlint", str(ROOT / "web"), "--extension", "html", "--quiet", "--check" if check else "--reformat"]
    if subprocess.run(command, stdout=subprocess.DEVNULL, check=False).returncode and check:
        wrong.append("templates are not laid out; run python tools/format_assets.py")
    if not check:
        wrong = []
    for path in own("*.html") + own(DRAWINGS) + own("*.css") + own("*.js"):
        for number, line in enumerate(path.read_text().splitlines(), start=1):
            if len(line) > LONGEST_LINE:
                wrong.append(f"{path.relative_to(ROOT)}:{number} has {len(line)} letters; {LONGEST_LINE} at most")
    for complaint in wrong:
        print(complaint, file=sys.stderr)
    return 1 if wrong else 0


if __name__ == "__main__":
    sys.exit(main())
