from datetime import timedelta

import pytest
from django.urls import reverse
from django.utils import timezone

from web.reports import pdf


@pytest.fixture
def written(at_work, call, starved):
    words = {
        "complaint": "Too warm.",
        "found": "Valve starving <b>",
        "done": "Opened ½ turn",
        "advice": "New drier",
        "declined": "New drier",
    }
    at_work.post(reverse("stop", args=[call.number, "hand-over"]), words | {"next_visit": "", "next_visit_why": ""})
    return call


def test_the_report_says_it_all_and_escapes_it(at_work, written):
    body = at_work.get(reverse("report", args=[written.number])).content.decode()
    for part in ("Freezer 9 · Test barn", "Valve starving &lt;b&gt;", "Opened ½ turn", "Declined by the customer", "Superheat, coil",
                 "Valve feeding too little", "licensed work", "None agreed", "Readings"):  # fmt: skip
        assert part in body, part


def test_the_pdf_is_a_pdf_of_the_same_report(at_work, written):
    response = at_work.get(reverse("report-pdf", args=[written.number]))
    assert response["Content-Type"] == "application/pdf"
    assert response.content.startswith(b"%PDF")
    assert len(response.content) > 10_000


def test_without_the_system_library_the_page_says_the_one_command(at_work, written, monkeypatch):
    def missing(html):
        raise pdf.PdfUnavailable("PDF needs Pango. As root: apt-get install libpango-1.0-0")

    monkeypatch.setattr("web.reports.views.render_pdf", missing)
    body = at_work.get(reverse("report-pdf", args=[written.number]), follow=True).content.decode()
    assert "apt-get install" in body


def test_a_report_reads_nothing_from_outside(caplog):
    html = '<img src="http://127.0.0.1:9/x.png"><img src="file:///etc/hostname"><img src="../../settings.py"><p>kept'
    assert pdf.render_pdf(html).startswith(b"%PDF")
    assert caplog.text.count("a report reads nothing but its own styles and fonts") == 3


def test_the_drawing_keeps_its_colours_in_the_file():
    style = pdf.drawing_style()
    assert ".cold { stroke: #2463A8; }" in style
    assert "var(" not in style
    assert "@media" not in style


@pytest.mark.parametrize("day", ["soon", "2001-01-01", (timezone.localdate() + timedelta(days=5000)).isoformat()])
def test_a_wrong_day_is_said_beside_the_field_and_the_words_stay(at_work, call, day):
    body = at_work.post(reverse("stop", args=[call.number, "hand-over"]), {"found": "My words", "next_visit": day}).content.decode()
    assert "Next visit: " in body
    assert "My words" in body
    call.refresh_from_db()
    assert call.found == ""


def test_too_long_a_text_is_refused_with_its_length(at_work, call):
    body = at_work.post(reverse("stop", args=[call.number, "hand-over"]), {"found": "x" * 4001}).content.decode()
    assert "4001 letters are more than 4000" in body


def test_the_report_shows_the_ice_and_how_the_melt_ended(at_work, call):
    for stage, letter in (("before", "i"), ("after", ".")):
        rows = "/".join([letter * 10] * 5)
        at_work.post(reverse("ice", args=[call.number]), {"stage": stage, "coil": "1", "rows": rows, "place-ceiling": "s"})
    at_work.post(reverse("end-melt", args=[call.number]), {"reason": "shop opens in ten minutes"})
    body = at_work.get(reverse("report", args=[call.number])).content.decode()
    assert "Ice was left: shop opens in ten minutes" in body
    assert body.count("% covered") >= 2
    assert at_work.get(reverse("report-pdf", args=[call.number])).content.startswith(b"%PDF")
