import io
import threading
import zipfile
from datetime import timedelta

import numpy as np
import pypdfium2 as pdfium
import pytest
from django.test import Client
from django.urls import reverse
from django.utils import timezone

from kettle.knowledge.errors import InputError
from web.benches.defrost.actions.keep_program import keep_program
from web.benches.electrical.actions.keep_measurement import keep_measurement
from web.logbook.actions.do_act import do_act
from web.logbook.actions.name_cause import name_cause
from web.logbook.calls.judging import judge_call
from web.reports import papers, pdf

SET_APART = papers.set_apart


@pytest.fixture(autouse=True)
def none_made():
    """No paper of another test is there already."""
    papers._papers.clear()


@pytest.fixture
def written(at_work, call, starved):
    words = {
        "complaint": "Too warm.",
        "found": "Valve starving <b>",
        "done": "Opened ½ turn",
        "advice": "New drier",
        "declined": "New drier",
    }
    at_work.post(reverse("stop", args=[call.number, "hand-over"]), words)
    return call


def test_the_report_says_it_all_and_escapes_it(at_work, written):
    body = at_work.get(reverse("report", args=[written.number])).content.decode()
    for part in ("Freezer 9 · Test barn", "Valve starving &lt;b&gt;", "Opened ½ turn", "Declined: New drier", "Superheat, coil",
                 "Valve feeding too little", "licensed work", "Nothing agreed", "Readings"):  # fmt: skip
        assert part in body, part


def test_the_pdf_is_a_pdf_of_the_same_report(at_work, written):
    response = at_work.get(reverse("report-pdf", args=[written.number]))
    assert response["Content-Type"] == "application/pdf"
    assert response.content.startswith(b"%PDF")
    assert len(response.content) > 10_000


def test_without_the_system_library_the_page_says_the_one_command(at_work, written, monkeypatch):
    def missing(paper, html):
        raise InputError("PDF needs Pango. As root: apt-get install libpango-1.0-0")

    monkeypatch.setattr(papers, "set_apart", missing)
    body = at_work.get(reverse("report-pdf", args=[written.number]), follow=True).content.decode()
    assert "apt-get install" in body
    packed = zipfile.ZipFile(io.BytesIO(b"".join(at_work.get(reverse("call-zip", args=[written.number])).streaming_content)))
    assert f"call-{written.number}.json" in packed.namelist() and f"call-{written.number}.pdf" not in packed.namelist()


class TestApart:
    """Papers as they are made in earnest: by a process of their own."""

    @pytest.fixture(autouse=True)
    def apart(self, monkeypatch, settings):
        monkeypatch.setattr(papers, "set_apart", SET_APART)
        settings.PAPER_WAIT_S = 0.0

    def test_the_page_says_how_far_it_is_and_becomes_the_paper(self, at_work, stranger, written):
        answer = at_work.get(reverse("report-pdf", args=[written.number]))
        assert b"Being made" in answer.content
        then = answer["Refresh"].partition("url=")[2]
        other = Client()
        other.force_login(stranger)
        assert other.get(then).status_code == 404 and other.post(f"{then}stop/").status_code == 404
        # It gives way to everything else: on a machine full of tests that is a while.
        papers.find(then.split("/")[2], written.shop_id).made(papers.LONGEST_S)
        assert at_work.get(then).content.startswith(b"%PDF")
        assert at_work.get(then).content.startswith(b"%PDF"), "read again"

    def test_one_that_is_stopped_is_not_made(self, at_work, written):
        # One before it takes as long as this test does.
        before = threading.Event()
        papers._maker.submit(before.wait, 60.0)
        then = at_work.get(reverse("report-pdf", args=[written.number]))["Refresh"].partition("url=")[2]
        made = papers.find(then.split("/")[2], written.shop_id)
        answer = at_work.post(f"{then}stop/", follow=True)
        assert "is not made" in answer.content.decode() and answer.redirect_chain[-1][0] == reverse("report", args=[written.number])
        assert at_work.get(then).status_code == 404
        before.set()
        assert made.future.cancelled() or not made.future.result(30.0)

    def test_a_shop_has_so_many_papers_made_at_once(self, at_work, written, monkeypatch):
        monkeypatch.setattr(papers, "MOST_OF_SHOP", 0)
        body = at_work.get(reverse("report-pdf", args=[written.number]), follow=True).content.decode()
        assert "papers of your shop are being made" in body


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
    body = at_work.post(reverse("promise", args=[call.number]), {"what": "My words", "due": day}).content.decode()
    assert "Day: " in body and 'value="My words"' in body
    assert not call.follow_ups.exists()


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


def pages_of(answer):
    """The pages of a PDF as text, and as pictures of 50 dots an inch."""
    document = pdfium.PdfDocument(answer.content)
    try:
        text = [" ".join(document[n].get_textpage().get_text_bounded().split()) for n in range(len(document))]
        return text, [document[n].render(scale=50 / 72).to_pil().convert("RGB") for n in range(len(document))]
    finally:
        document.close()


def share_of(picture, red, green, blue, reach=40):
    """The share of a picture that is near a colour."""
    found = np.abs(np.asarray(picture, dtype=int) - (red, green, blue)).max(axis=2) < reach
    return float(found.mean())


def test_the_first_page_says_what_an_owner_wants_and_the_record_comes_behind_it(at_work, written, user):
    do_act(user, written, judge_call(written), "valve.exercised")
    name_cause(user, written, ["txv_underfeeding"])
    text, pictures = pages_of(at_work.get(reverse("report-pdf", args=[written.number])))
    first = text[0]
    for part in ("Freezer 9 · Test barn", "Too warm.", "The cause: valve feeding too little.", "Valve run in, out and back.", "New drier",
                 "Not proved", "Found beside left", "Nothing agreed"):  # fmt: skip
        assert part.lower() in first.lower(), part
    assert "Readings" not in first and any("Readings" in page for page in text[1:])
    # A page is not empty, and not black.
    assert all(0.002 < 1.0 - share_of(one, 255, 255, 255) < 0.6 for one in pictures)


def test_programs_are_dials_and_the_wiring_is_drawn_as_found_and_as_left(at_work, written, user):
    for side, starts in (("found", "02:00 14:00"), ("left", "02:00 08:00 14:00 20:00")):
        keep_program(user, written, side, {"starts": starts, "fail_safe_min": "30", "termination_f": "55"}, "drier days")
    judged, circuit = judge_call(written), written.unit.circuit()
    keep_measurement(user, written, judged, circuit, "volts", "K1", circuit.common, "231", "calling")
    page = at_work.get(reverse("report", args=[written.number])).content.decode()
    assert "Program as found" in page and "Program as left" in page and "Wiring as found" in page and "Wiring as left" not in page
    assert page.count('class="dial"') == 2 and page.count('class="wiring"') == 1 and "data-point" not in page
    do_act(user, written, judged, "contactor.replaced", at=timezone.now() + timedelta(seconds=1))
    keep_measurement(
        user, written, judged, circuit, "volts", "K1", circuit.common, "232", "calling", at=timezone.now() + timedelta(seconds=2)
    )
    assert "Wiring as left" in at_work.get(reverse("report", args=[written.number])).content.decode()
    text, pictures = pages_of(at_work.get(reverse("report-pdf", args=[written.number])))
    drawn = next(n for n, page in enumerate(text) if "Program as found" in page)
    # The defrosts of the dials are hatched in the warm colour.
    assert share_of(pictures[drawn], 194, 84, 10) > 0.0005


def test_every_coil_of_a_unit_is_drawn(at_work, written, unit):
    unit.evaporators = 2
    unit.save()
    page = at_work.get(reverse("report", args=[written.number])).content.decode()
    assert page.count('class="circuit-drawing"') >= 3 and "Coil 2" in page
    assert "Coil by coil" in " ".join(pages_of(at_work.get(reverse("report-pdf", args=[written.number])))[0])


@pytest.mark.parametrize(("paper", "size"), [("a4", (595, 842)), ("letter", (612, 792)), ("nonsense", (612, 792))])
def test_the_paper_asked_for(at_work, written, paper, size):
    answer = at_work.get(reverse("report-pdf", args=[written.number]), {"paper": paper})
    document = pdfium.PdfDocument(answer.content)
    assert tuple(round(edge) for edge in document[0].get_size()) == size
    document.close()


def test_drawings_of_a_bench_bring_their_own_rules_and_no_others():
    bench, circuit = pdf.bench_style(), pdf.drawing_style()
    assert ".mark-heat {" in bench and ".wiring .body {" in bench and "var(" not in bench
    # Rules of the circuit lose their drawing's name, and would reach into any other drawing.
    assert not [line for line in bench.splitlines() if not line.startswith((".dial", ".mark-", ".arc ", ".wiring"))]
    assert ".wiring" not in circuit and ".mark-heat" not in circuit
    # The engine reads no short form of a font: letters would fill the page.
    assert "font:" not in bench


class TestReady:
    """What Hand over has made before somebody asks is the paper that is asked for."""

    @pytest.fixture(autouse=True)
    def apart(self, monkeypatch):
        monkeypatch.setattr(papers, "set_apart", SET_APART)

    def test_one_that_was_made_ready_is_there_at_once_and_set_once(self, at_work, written):
        address = reverse("report-pdf", args=[written.number])
        assert at_work.get(f"{address}?ready").status_code == 204
        (made,) = [one for one in papers._papers.values() if one.shop == written.shop_id and not one.future.done()]
        made.made(60.0)
        set_before = papers._set_by[-1]
        assert at_work.get(address).content.startswith(b"%PDF")
        packed = zipfile.ZipFile(io.BytesIO(b"".join(at_work.get(reverse("call-zip", args=[written.number])).streaming_content)))
        assert f"call-{written.number}.pdf" in packed.namelist() and papers._set_by[-1] == set_before

    def test_one_process_sets_several_and_a_paper_it_cannot_set_is_said(self, written):
        first = papers.make(written.shop_id, "One", "/", "<p>one", bytes)
        second = papers.make(written.shop_id, "Two", "/", "<p>two", bytes)
        assert first.made(60.0).startswith(b"%PDF") and second.made(60.0).startswith(b"%PDF")
        process = papers._setters[-1]
        process.kill()
        process.wait()
        assert papers.make(written.shop_id, "Three", "/", "<p>three", bytes).made(60.0).startswith(b"%PDF"), "a new one takes its place"

    def test_stopping_one_of_two_that_wait_for_the_same_leaves_the_other(self, written):
        before = threading.Event()
        papers._maker.submit(before.wait, 60.0)
        one, other = (papers.make(written.shop_id, name, "/", "<p>the same", bytes) for name in ("One", "Other"))
        one.stop()
        before.set()
        assert other.made(60.0).startswith(b"%PDF") and papers.find(one.key, written.shop_id) is None
