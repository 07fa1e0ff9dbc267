"""Quotes: proposed by what was found and changed, priced by the shop's terms, answered and signed on screen, remembered."""

import pytest
from django.urls import reverse

from web.logbook.actions.do_act import do_act
from web.logbook.actions.name_cause import name_cause
from web.logbook.calls.judging import judge_call
from web.logbook.calls.promises import proposed_for, quote_waits
from web.logbook.models import ChangeStep, Quote, QuoteLine

SIGNED = "M10 10 L40 80 L90 20"


@pytest.fixture
def owner(user):
    user.member.owner = True
    user.member.save()
    return user


def page(client, call, name="quote"):
    return client.get(reverse(name, args=[call.number])).content.decode()


def post(client, address, *args, **typed):
    return client.post(reverse(address, args=args), typed, follow=True).content.decode()


@pytest.fixture
def quoted(at_work, owner, call):
    """A quote of a valve for now and for good, its parts priced."""
    post(at_work, "terms", rate_cents="120", travel_cents="60", markup_pct="50", tax_pct="10", tax_labour="yes")
    name_cause(owner, call, ["txv_underfeeding"])
    post(at_work, "take-quote", call.number)
    for line in QuoteLine.objects.filter(kind__in=("part", "whole")):
        post(at_work, "change-line", call.number, line.pk, quantity="1", price="9,000" if line.kind == "whole" else "40")
    return Quote.objects.get()


def test_what_is_proposed_is_quoted_once_and_priced_by_the_shops_terms(quoted, at_work, call):
    body = page(at_work, call)
    assert "Put right for now" in body and "Put right for good" in body and "Replace the unit" in body
    # For now: 1.5 h x 120 + 60 = 240, tax 24. For good: four parts x 40 x 1.5 = 240, 3.5 h x 120 = 420, 60: 720, tax 72.
    assert "264.00" in body and "792.00" in body
    lines = QuoteLine.objects.count()
    post(at_work, "take-quote", call.number)
    assert QuoteLine.objects.count() == lines and "By what was found and changed" not in page(at_work, call)


def test_a_change_under_way_brings_what_its_steps_need(at_work, call, user):
    ChangeStep.objects.create(call=call, by=user, part="compressor", step="power")
    post(at_work, "take-quote", call.number)
    told = {line.what: line for line in QuoteLine.objects.all()}
    assert {"Compressor", "Acid test", "Dry nitrogen", "Compressor: changed, evacuated, run in", "Travel"} <= set(told)
    assert len(told) == QuoteLine.objects.count() and not [what for what in told if "meter" in what.lower() or "Gauges" in what]
    assert told["Compressor: changed, evacuated, run in"].quantity > 4


def test_a_site_has_a_limit_and_what_goes_over_it_is_marked(quoted, at_work, call):
    assert "is no price" in post(at_work, "quote-limit", call.number, not_to_exceed="cheap")
    post(at_work, "quote-limit", call.number, not_to_exceed="500")
    assert page(at_work, call).count("Over the 500.00") == 2


@pytest.mark.parametrize(("typed", "says"), [
    ({"what": "x", "quantity": "1", "price": ""}, "What: 2 to 120 letters"),
    ({"what": "Fan", "quantity": "none", "price": ""}, "is no quantity"),
    ({"what": "Fan", "quantity": "1", "price": "-4"}, "is no price"), ({"what": "Fan", "quantity": "0", "price": "4"}, "outside 0 to 1000"),
])  # fmt: skip
def test_a_wrong_line_is_said_and_nothing_is_kept(at_work, call, typed, says):
    body = post(at_work, "quote-line", call.number, option="good", kind="part", **typed)
    assert says in body and not QuoteLine.objects.exists() and (typed["what"] == "x" or 'value="Fan"' in body)


@pytest.mark.parametrize(("field", "value", "says"), [
    ("rate_cents", "much", "An hour: “much” is no price"), ("tax_pct", "80", "Tax: 80 % is outside 0 to 60 %"),
    ("markup_pct", "x", "is not a number"),
])  # fmt: skip
def test_wrong_terms_are_said_beside_their_field(at_work, owner, field, value, says):
    body = post(at_work, "terms", **{field: value})
    owner.member.shop.refresh_from_db()
    assert says in body and f'id="{field}-error"' in body and owner.member.shop.rate_cents == 0


def answers(word, **others):
    return {f"line-{line.pk}": others.get(line.option, word) for line in QuoteLine.objects.all()}


def test_the_customer_answers_each_line_signs_and_it_is_remembered(quoted, at_work, call, unit):
    assert quote_waits(call) and "quote" in {one.code for one, _ in proposed_for(call)}
    body = post(at_work, "decide-quote", call.number, name="", signature="")
    assert "lines have no answer yet" in body and "Name: 2 to 80 letters" in body and "sign with a finger" in body
    told = answers("declined", good="accepted")
    body = post(at_work, "decide-quote", call.number, name="R. Quill, kitchen", signature="<svg onload=x>", **told)
    assert "sign with a finger" in body and 'value="R. Quill, kitchen"' in body and body.count("checked") == len(told)
    assert not QuoteLine.objects.exclude(answer="").exists()
    body = post(at_work, "decide-quote", call.number, name="R. Quill, kitchen", signature=SIGNED, **told)
    assert "Answered" in body and "792.00</b> accepted" in body and not quote_waits(call)
    unit_page = at_work.get(reverse("unit", args=[unit.pk])).content.decode()
    assert "Quoted and declined" in unit_page and "Valve run in, out and back" in unit_page and "R. Quill" in unit_page
    # Terms that change later do not change what was signed; a line that changes is asked again.
    post(at_work, "terms", rate_cents="200", travel_cents="60", markup_pct="50", tax_pct="10", tax_labour="yes")
    assert "792.00</b> accepted" in page(at_work, call)
    post(at_work, "change-line", call.number, QuoteLine.objects.filter(option="good", kind="part").first().pk, quantity="2", price="40")
    assert "Changed since it was answered" in page(at_work, call) and quote_waits(call)


def test_a_quote_that_waits_is_a_doubt_at_the_close(quoted, at_work, call):
    body = at_work.get(reverse("stop", args=[call.number, "hand-over"])).content.decode()
    assert "The quote waits for an answer" in body
    post(at_work, "close", call.number)
    call.refresh_from_db()
    assert call.is_open


def test_the_quote_is_a_pdf(quoted, at_work, call):
    answer = at_work.get(reverse("quote-pdf", args=[call.number]))
    assert answer["Content-Type"] == "application/pdf" and answer.content.startswith(b"%PDF") and len(answer.content) < 500_000


def test_nothing_is_proposed_for_what_was_done(at_work, call, user):
    name_cause(user, call, ["evap_fan_failed"])
    do_act(user, call, judge_call(call), "evap_fan.replaced")
    assert "By what was found and changed" not in page(at_work, call)


def test_a_quote_of_another_shop_is_out_of_reach(client, stranger, quoted, call):
    line = QuoteLine.objects.first()
    client.force_login(stranger)
    for name in ("quote", "decide-quote", "quote-pdf"):
        assert client.get(reverse(name, args=[call.number])).status_code == 404
    for name, more in (("take-quote", []), ("quote-line", []), ("change-line", [line.pk]), ("quote-limit", []), ("decide-quote", [])):
        assert client.post(reverse(name, args=[call.number, *more])).status_code == 404
    assert client.post(reverse("terms")).status_code in (302, 403, 404)


def test_a_shop_that_quotes_first_is_told_so_before_the_stem_and_the_stem_says_its_own(at_work, owner, call, starved):
    body = at_work.get(reverse("stop", args=[call.number, "correct"])).content.decode()
    assert "Quote first" not in body
    owner.member.shop.work_school = "quote"
    owner.member.shop.save()
    told = at_work.get(reverse("stop", args=[call.number, "correct"])).content.decode()
    assert "Not quoted yet: this shop has parts and circuit approved first." in told
    # The other panels stand as they were, behind it.
    assert told.index("Quote first") < told.index("Expansion valve") and told.count("Before the stem") == body.count("Before the stem")
    assert "Before the stem: ." not in told
