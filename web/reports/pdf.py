"""A page as PDF. Only the shop's own styles and fonts are read; nothing is fetched."""

from pathlib import Path

from django.conf import settings

STATIC = Path(settings.STATICFILES_DIRS[0])


class PdfUnavailable(RuntimeError):
    """The system library for PDF is missing."""


def render_pdf(html):
    """Return the PDF of a page's HTML; PdfUnavailable where Pango is not installed."""
    try:
        from weasyprint import CSS, HTML
        from weasyprint.text.fonts import FontConfiguration
    except OSError as error:
        raise PdfUnavailable("PDF needs Pango. As root: apt-get install libpango-1.0-0 libpangoft2-1.0-0") from error
    fonts = FontConfiguration()
    sheets = [
        CSS(filename=STATIC / "css" / name, font_config=fonts, url_fetcher=_own_files)
        for name in ("fonts.css", "tokens.css", "circuit.css", "report.css")
    ]
    return HTML(string=html, base_url=str(STATIC), url_fetcher=_own_files).write_pdf(stylesheets=sheets, font_config=fonts)


def _own_files(url, *args, **kwargs):
    from weasyprint.urls import default_url_fetcher

    if not url.startswith(STATIC.as_uri()):
        raise ValueError("a report reads nothing but its own styles and fonts")
    return default_url_fetcher(url, *args, **kwargs)
