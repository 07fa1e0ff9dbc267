"""Whole stories through the browser: what was seen is tapped on the picture, what was done on its sheet; judged, proved, written up."""

import re
from datetime import timedelta

import pytest
from django.db.models import F
from django.utils import timezone
from playwright.sync_api import expect

from kettle.judging.course import Done
from kettle.knowledge import anatomy, causes, observations, refrigerants
from tests.browser.conftest import ONE_SCREEN, PHONE, set_in, tap, until
from tests.core.judging.stories import STORIES
from web.logbook.actions.open_call import open_call
from web.logbook.models import Act, Call, IceDrawing, Melt, Reading, Site, Unit, ValveTurn
from web.round.picture import parts_behind

BLEND = refrigerants.get("R-448A")
AN_HOUR = timedelta(hours=1)
DIRECTIONS = {"turned_in": "In, clockwise", "turned_out": "Out, counter-clockwise"}


def note(page, words, meant):
    """Type words as they come and keep what they were taken for with Enter."""
    page.locator("#note-words").fill(words)
    expect(page.locator("#heard .btn.strong")).to_contain_text(meant)
    with page.expect_response(re.compile("/note/")):
        page.locator("#note-words").press("Enter")


def read(page, **figures):
    for key, value in figures.items():
        field = page.locator(f"#work input[name={key}]")
        with page.expect_response(re.compile(f"/entry/{key}/")):
            field.fill(str(value))
            field.press("Enter")


def gauges(sst, sct):
    return {"suction_psig": round(BLEND.dew_psig(sst, 4200), 1), "discharge_psig": round(BLEND.bubble_psig(sct, 4200), 1)}


@PHONE
def test_a_loose_bulb_is_found_clamped_proved_and_written_up(app, screen, accessible):
    page = app
    page.get_by_label("Kind").select_option("walk_in_cooler")
    page.get_by_label("Refrigerant").fill("448")
    page.get_by_role("button", name="R-448A").click()
    page.get_by_role("button", name="Read it now").click()
    call = Call.objects.order_by("-pk").first()
    call.unit.altitude_ft = 4200
    call.unit.save()
    at = page.url.split("/calls/")[0] + f"/calls/{call.number}"

    # Arrive: why they called, and what eyes and hands find, on the picture and as words.
    page.goto(f"{at}/arrive/")
    set_in(page, tap(page, "told"), "complaint", "warm")
    page.get_by_role("button", name="Close", exact=True).click()
    note(page, "fans ok", "Coil fans: running")
    note(page, "shell sweating", "Compressor shell: sweating")
    note(page, "bulb hanging", "Bulb: loose")

    # Read: the flooding coil.
    page.goto(f"{at}/read/")
    read(page, box_temp_f=41, ambient_f=83, **gauges(31, 108), suction_line_evap_f=31.5, suction_line_comp_f=34, liquid_line_f=104)
    expect(page.locator("#card-superheat_evap_f")).to_contain_text("low")
    expect(page.locator("#standing")).to_contain_text("Bulb loose or misplaced")

    # Judge: the part is put right where it is named.
    page.goto(f"{at}/judge/")
    page.locator("#suspect-bulb_fault").get_by_role("button", name="Bulb clamped").click()
    expect(page.locator(".notice")).to_contain_text("Bulb clamped: kept")
    expect(page.locator("#left")).to_contain_text("to prove")
    accessible(page)

    # The clock runs out; what was read before is past, and read again.
    earlier = timezone.now() - timedelta(minutes=40)
    Reading.objects.filter(call=call).update(at=earlier)
    Act.objects.filter(call=call).update(at=earlier + timedelta(minutes=5))
    page.goto(f"{at}/read/")
    expect(page.locator("#card-superheat_evap_f")).to_contain_text("read it again")
    read(page, box_temp_f=37, **gauges(25, 104), suction_line_evap_f=33.5, suction_line_comp_f=47, liquid_line_f=98)
    expect(page.locator("#card-superheat_evap_f")).to_contain_text("ok")
    page.goto(f"{at}/judge/")
    expect(page.locator("#left")).to_contain_text("Nothing left of it")
    expect(page.locator("#suspect-bulb_fault")).to_contain_text("After: bulb clamped")
    page.locator("#suspect-bulb_fault").get_by_role("button", name="This is what it is").click()

    # Everything taken, by stage; the report says found, changed, now.
    page.goto(f"{at}/taken/")
    expect(page.get_by_role("heading", name="After: bulb clamped")).to_be_visible()
    accessible(page)
    page.goto(f"{at}/report/")
    for text in ("Found: Bulb loose or misplaced", "Bulb clamped", "Nothing of it is left by what we see now.", "before", "now"):
        expect(page.locator("body")).to_contain_text(text)
    if screen == "phone":
        assert page.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth") == 0


def an_hour_goes_by(call):
    """Everything on record is an hour older."""
    for model in (Reading, Act, Melt, ValveTurn, IceDrawing):
        model.objects.filter(call=call).update(at=F("at") - AN_HOUR)
    Melt.objects.filter(call=call).update(ended_at=F("ended_at") - AN_HOUR)


def look(page, at, stage):
    """Tap each part of which something is seen, and say it."""
    page.goto(f"{at}/arrive/")
    open_now, sheet, walk = "", None, list(anatomy.PARTS)
    # In the order of a walk; what needs the power off comes last, between locking it out and letting it on again.
    dead = [key for key in stage if "lock_out" in observations.get(key).holds]
    order = [(key, stage[key]) for key in sorted(stage, key=lambda key: (key in dead, walk.index(anatomy.part_of(key).code)))]
    if dead and "power_locked_out" not in stage:
        order.insert(len(order) - len(dead), ("power_locked_out", "yes"))
        order.append(("power_locked_out", "no"))
    for key, value in order:
        if value == []:
            continue
        part = parts_behind(anatomy.part_of(key).code)[0]
        if part != open_now:
            if open_now:
                page.get_by_role("button", name="Close", exact=True).click()
            sheet, open_now = tap(page, part), part
        set_in(page, sheet, key, value)
        assert sheet.locator(".error").all_inner_texts() == [], key


def melt(page, at):
    """Melt by the first way there is: what comes first ticked, the after-map painted bare, all clear."""
    page.goto(f"{at}/melt/")
    for tick in page.locator(".tick").all():
        wanted = tick.locator("label", has_text=re.compile("^\\s*(Power locked out|Boards|works|Latch blocked)"))
        if wanted.count():
            with page.expect_response(re.compile("/entry/")):
                wanted.click()
            page.wait_for_load_state()
    expect(page.locator("#melt-first")).to_contain_text("Ready")
    page.get_by_role("button", name="Start").first.click()
    page.locator(".brushes").get_by_text("bare", exact=True).click()
    for name in ("Whole face", "Rest is bare", "Keep as after-map", "All clear"):
        page.get_by_role("button", name=name).click()
    expect(page.locator(".proved")).to_contain_text("All clear")
    page.goto(f"{at}/arrive/")
    set_in(page, tap(page, "supply"), "power_locked_out", "no")


def do(page, at, call, user, part, did, value):
    """Do something where it is done: on Melt, at the stem, or on the sheet of the part."""
    if part == "coil":
        melt(page, at)
    elif did in DIRECTIONS:
        page.goto(f"{at}/correct/")
        page.get_by_text(DIRECTIONS[did], exact=True).click()
        page.get_by_label("Turns of the stem").fill(str(value))
        turned = call.valveturns.count()
        page.get_by_role("button", name="Record the turn").click()
        until(page, lambda: call.valveturns.count() > turned or page.locator("#reason").count())
        if page.locator("#reason").count():
            page.locator("#reason").fill("to see what it does")
            page.get_by_text(DIRECTIONS[did], exact=True).click()
            page.get_by_role("button", name="Record it with this reason").click()
            until(page, lambda: call.valveturns.count() > turned)
    elif part == "program":
        Act.objects.create(call=call, by=user, part=part, did=did)
    else:
        page.goto(f"{at}/arrive/")
        sheet = tap(page, parts_behind(part)[0])
        form = sheet.locator(f"form:has(> input[name=act][value='{part}.{did}'])")
        if value:
            form.locator("input[name=amount]").fill(f"{value:g} oz")
        done = call.acts.count()
        form.get_by_role("button").click()
        until(page, lambda: call.acts.count() > done or page.locator("form.act.open #reason").count())
        if page.locator("form.act.open #reason").count():
            page.locator("form.act.open #reason").fill("told to")
            page.locator("form.act.open").get_by_role("button").click()
            until(page, lambda: call.acts.count() > done)
    page.wait_for_load_state()
    expect(page.locator("body")).not_to_contain_text("Server Error")


def covering():
    """Stories that together do every kind of thing that any of them does, those that tap the most parts first.

    All of them are entered without a browser (tests/web/round/test_stories.py), and every part opens its sheet (test_parts.py).
    """
    taps = {name: len({anatomy.part_of(key).code for stage in stages for key in stage}) for name, (_, stages, _, _, _) in STORIES.items()}
    reach = {name: reached(STORIES[name][2]) for name in sorted(STORIES, key=taps.get, reverse=True)}
    left, chosen = set().union(*reach.values()), []
    while left:
        chosen.append(max(reach, key=lambda name: len(reach[name] & left)))
        left -= reach[chosen[-1]]
    return chosen


def reached(done):
    """Where what a story does is done: on Melt, at the stem, in the program, on a sheet."""
    return {"stem" if did in DIRECTIONS else part if part in ("coil", "program") else "sheet" for part, did, _ in done}


@ONE_SCREEN
@pytest.mark.parametrize("name", covering())
def test_a_story_from_arrive_to_report(app, live_server, django_user_model, name):
    plate, stages, done, cause, left = STORIES[name]
    user = django_user_model.objects.get(username="wren")
    site = Site.objects.create(shop=user.member.shop, name="Story", altitude_ft=0)
    call = open_call(user, Unit.objects.create(shop=user.member.shop, site=site, name="Told", **plate), "")
    at = f"{live_server.url}/calls/{call.number}"
    for place, stage in enumerate(stages):
        if place:
            an_hour_goes_by(call)
            do(app, at, call, user, *done[place - 1])
            an_hour_goes_by(call)
        look(app, at, stage)
    app.goto(f"{at}/judge/")
    expect(app.locator("#standing .suspect").first).to_contain_text(causes.get(cause).label)
    if left:
        expect(app.locator("#left")).to_contain_text(causes.get(next(iter(left))).label)
    app.goto(f"{at}/report/")
    for part, did, value in done:
        expect(app.locator(".report")).to_contain_text(Done(part, did, value).act.label)
    expect(app.locator(".report")).to_contain_text("As it stands")
    nothing = app.get_by_text("Nothing of it is left by what we see now.")
    expect(nothing).to_have_count(0 if left else 1)
