"""A report as PDF. Only the application's own styles and fonts are read; nothing is fetched."""

import atexit
import base64
import os
import re
import select
import struct
import sys
from functools import cache
from pathlib import Path

from django.conf import settings

STATIC = Path(settings.STATICFILES_DIRS[0])
# Benches keep their styles with themselves.
BENCHES = Path(settings.ROOT) / "web" / "benches"
ICE_SHEET = STATIC / "css" / "ice.css"
# Drawings that stand by themselves, under a name of their own: the sheets that hold their rules.
BENCH_SHEETS = (STATIC / "css" / "program.css", BENCHES / "electrical" / "static" / "electrical" / "power.css")
BENCH_DRAWN = (".dial ", ".mark-", ".arc ", ".wiring ")
SHEETS = ("fonts.css", "tokens.css", "report.css")
# The rules of shapes that are printed; the rest of those sheets lays out screens.
PRINTED = (
    ".circuit-drawing",
    ".ice-ground",
    ".ice-pale",
    ".ice-deep",
    ".ice-dot",
    ".ice-line",
    ".ice-slash",
    ".ice-ring",
    ".ice-cell",
    ".ice-tubes",
)


# A process that sets a paper ends so where the system's library is missing, and gives way to all others.
MADE, FAILED, NO_PANGO, GIVES_WAY = 0, 1, 3, 5


# Fonts and sheets of a process that has set a paper.
_SET_BEFORE = []
atexit.register(_SET_BEFORE.clear)
# How long a process waits for the next paper before it ends, s; how a length is written before what it measures.
STAYS_S = 300.0
LENGTH = struct.Struct(">BQ")


class PdfUnavailable(RuntimeError):
    """The system library for PDF is missing."""


def render_pdf(html):
    """Return the PDF of a page's HTML; PdfUnavailable where Pango is not installed."""
    try:
        from weasyprint import CSS, HTML
        from weasyprint.text.fonts import FontConfiguration
        from weasyprint.urls import URLFetcher
    except OSError as error:
        raise PdfUnavailable("PDF needs Pango. As root: apt-get install libpango-1.0-0 libpangoft2-1.0-0") from error

    class OwnFiles(URLFetcher):
        """Reads below the application's static files and nowhere else."""

        def fetch(self, url, headers=None):
            if not url.startswith((f"{STATIC.as_uri()}/", "data:image/svg+xml;base64,", "data:image/jpeg;base64,")) or ".." in url:
                raise ValueError("a report reads nothing but its own styles and fonts")
            return super().fetch(url, headers)

    fetcher = OwnFiles(allowed_protocols={"file", "data"})
    if not _SET_BEFORE:
        # Fonts and styles are read once by a process that sets several papers.
        fonts = FontConfiguration()
        sheets = [CSS(string=by_day(name), base_url=str(STATIC / "css" / name), font_config=fonts, url_fetcher=fetcher) for name in SHEETS]
        _SET_BEFORE.append((fonts, sheets))
    fonts, sheets = _SET_BEFORE[0]
    return HTML(string=html, base_url=str(STATIC), url_fetcher=fetcher).write_pdf(stylesheets=sheets, font_config=fonts)


def by_day(name):
    """A style sheet of the application in the colours of the day: paper has no night, and the engine does not know `light-dark()`."""
    return re.sub(r"light-dark\(([^,()]+), [^()]+\)", r"\1", (STATIC / "css" / name).read_text())


def styled(svg, style):
    """Return an SVG drawing that carries its style inside and can stand by itself."""
    own = f"<style>{style}</style>"
    head, close, body = svg.partition(">")
    return f"{head}{close}{own}{body}".replace("<svg ", '<svg xmlns="http://www.w3.org/2000/svg" ', 1)


def as_image(svg, style):
    """Return an SVG drawing as the address of an image that carries its style inside."""
    whole = styled(svg, style)
    return f"data:image/svg+xml;base64,{base64.b64encode(whole.encode()).decode()}"


@cache
def drawing_style():
    """The light style of the drawings with its colours written out, to stand inside an SVG.

    The PDF engine does not carry a page's style sheet or its variables into a drawing.
    """
    drawn = _rules((STATIC / "css" / "circuit.css", STATIC / "css" / "picture.css", ICE_SHEET), PRINTED)
    return re.sub(r"\.circuit-drawing(?= \{)", "svg", drawn).replace(".circuit-drawing ", "")


@cache
def bench_style():
    """The same for the dial and the wiring. The engine knows no halo round letters: it would cover them."""
    return f"{_rules(BENCH_SHEETS, BENCH_DRAWN)}\n.wiring text {{ stroke: none; }}"


def _rules(sheets, starts):
    """The rules of some sheets whose selectors start so, colours written out."""
    tokens = by_day("tokens.css").split("}")[0]
    values = dict(re.findall(r"(--[\w-]+):\s*([^;]+);", tokens))
    text = "\n".join(sheet.read_text() for sheet in sheets)
    rules = re.sub(r"@media[^{]*\{(?:[^{}]*\{[^{}]*\})*[^{}]*\}|/\*.*?\*/", "", text, flags=re.DOTALL)
    own = []
    for selectors, body in re.findall(r"([^{}]+)\{([^{}]*)\}", rules):
        kept = [one.strip() for one in selectors.split(",") if f"{one.strip()} ".startswith(starts)]
        if kept:
            own.append(f"{', '.join(kept)} {{ {' '.join(body.split())} }}")
    return re.sub(r"var\((--[\w-]+)\)", lambda found: values[found.group(1)], "\n".join(own))


def main():
    """Set papers one after another: HTML on the standard input, PDF on the standard output, each behind its state and length."""
    os.nice(GIVES_WAY)
    while select.select([sys.stdin], [], [], STAYS_S)[0]:
        head = sys.stdin.buffer.read(LENGTH.size)
        if len(head) < LENGTH.size:
            break
        html = sys.stdin.buffer.read(LENGTH.unpack(head)[1]).decode()
        try:
            state, content = MADE, render_pdf(html)
        except PdfUnavailable as error:
            state, content = NO_PANGO, str(error).encode()
        except Exception as error:  # whatever is wrong with one paper, the next is set
            state, content = FAILED, repr(error).encode()
        sys.stdout.buffer.write(LENGTH.pack(state, len(content)) + content)
        sys.stdout.buffer.flush()
    return 0


if __name__ == "__main__":
    sys.exit(main())
