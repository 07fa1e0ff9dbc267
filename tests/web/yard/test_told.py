"""What is told of a practice call: help by degrees, hints, the debrief, the replay; and who teaches on it."""

import re

import pytest

from kettle.yard.lessons import LESSONS
from tests.web.conftest import make_person
from web.yard.actions.begin import join
from web.yard.models import Practice


def test_covered_nothing_likely_is_shown_until_it_was_said(practise):
    at = practise("fan-dead", help_by="covered")
    at.take("evap_fans")
    for path in ("read/", "judge/", "power/"):
        page = at.page(path)
        assert "What do you think?" in page and "Coil fan failed</span>" not in page and "Settles most, soonest" not in page, path
    assert "In the circuit" not in at.page("power/") and "Checks that would settle it" not in at.page("judge/")
    for path in ("report/", "explanation/", "customer/", "case.json"):
        answer = at.get(path)
        assert answer.status_code == 302 and answer.url.endswith("/judge/"), path
    at.yard("say/", cause="evap_fan_failed", key="evap_fan_supply_v", value="230")
    page = at.page("read/")
    assert "What do you think?" not in page and "Coil fan failed" in page
    at.take("evap_fan_supply_v")
    assert "What do you think?" in at.page("read/"), "after the next look it is said anew"


@pytest.mark.parametrize(("typed", "says"), [
    ({"cause": "tea"}, "What is it?"), ({"key": "tea"}, "What do you ask next?"), ({"key": "water_in_f"}, "What do you ask next?"),
    ({"value": "much"}, "What will it show?"), ({"value": "9000"}, "What will it show?"),
])  # fmt: skip
def test_what_was_not_said_wholly_uncovers_nothing(practise, typed, says):
    at = practise("fan-dead", help_by="covered")
    answer = at.yard("say/", **{"cause": "evap_fan_failed", "key": "evap_fan_supply_v", "value": "230", **typed})
    assert says in answer.content.decode() and "What do you think?" in at.page("read/")
    assert at.practice.steps.count() == 0


def test_without_help_it_stays_covered_until_it_is_named(practise):
    at = practise("fan-dead", help_by="none")
    assert "stays covered until you have named it" in at.page("read/") and "/yard/hint/" not in at.page("read/")
    assert "worked without help" in at.yard("hint/").content.decode() and at.practice.steps.count() == 0
    at.yard("name/", cause="evap_fan_failed")
    assert "stays covered" not in at.page("judge/")


def test_a_hint_goes_further_each_time_it_is_asked_for(practise):
    at = practise("fan-dead")
    told = [at.yard("hint/").content.decode() for _ in range(4)]
    assert "Hint 1 of 3: look at the" in told[0] and "Hint 2 of 3" in told[1] and "Hint 3 of 3" in told[2] and "Hint 3 of 3" in told[3]
    at.take("evap_fans")
    assert "Hint 1 of 3" in at.yard("hint/").content.decode(), "another thing begins anew"


def test_the_debrief_says_what_it_was_what_was_wrong_and_what_it_cost(practise):
    at = practise("fan-dead", help_by="covered")
    assert at.client.get(f"{at.base}/yard/debrief/").status_code == 302
    at.yard("say/", cause="undercharge", key="evap_fans", value="running")
    at.take("evap_fans")
    at.act("evap_fan.replaced")
    at.take("evap_fan_supply_v")
    at.take("power_locked_out", power_locked_out="yes")
    at.act("drier.replaced", reason="to see")
    page = at.yard("name/", cause="undercharge").content.decode()
    assert "It was something else" in page and "<b>Coil fan failed</b>" in page and "<b>Charge low, a leak</b>" in page
    assert "did not hold" in page and "For nothing: Drier replaced" in page and "Fan replaced" in page and "lock it out first" in page
    assert 'expected <b class="fig">running</b>, came <b class="fig">stopped</b>' in page
    assert "Take: coil fans" in page and "○ Name it as what it is" in page and "● Take: volts at the fan" in page
    told = Practice.objects.get(pk=at.practice.pk).told
    assert told["skills"]["causes"] == {"evap_fan_failed": 0} and told["skills"]["skills"]["safe"] == 0
    assert told["shortest"]["codes"] == ["evap_fan_failed"] and told["shortest"]["path"]
    again = at.client.get(f"{at.base}/yard/debrief/").content.decode()
    assert "It was something else" in again
    for refused in (at.take("box_temp_f"), at.yard("pass/", minutes="5"), at.yard("name/", cause="undercharge")):
        assert refused.status_code in (200, 204)
    assert at.value("box_temp_f") is None and Practice.objects.get(pk=at.practice.pk).named == ["undercharge"]


def test_named_right_and_put_right_it_holds_a_week(practise):
    at = practise("dirty-condenser")
    for key in ("condenser_coil", "ambient_f"):
        at.take(key)
    at.take("power_locked_out", power_locked_out="yes")
    at.act("condenser.cleaned")
    page = at.yard("name/", cause="condenser_dirty").content.decode()
    assert "That is what it was" in page and "A week later it holds." in page and "Nothing had to be stopped." in page
    assert 'data-shown="yes"' in page and 'data-lesson="dirty-condenser"' in page


def test_a_part_of_it_is_a_part_of_it(practise):
    at = practise("dirty-and-short")
    page = at.yard("name/", cause="condenser_dirty").content.decode()
    assert "Part of it" in page and "A week later" not in page, "nothing was done"
    three = practise("fan-dead")
    assert (
        "Name at most 3"
        in three.client.post(
            f"{three.base}/yard/name/", {"cause": ["undercharge", "overcharge", "no_call", "door_seal"]}, follow=True
        ).content.decode()
    )
    assert Practice.objects.get(pk=three.practice.pk).named is None


def test_each_step_is_replayed_with_the_standing_as_it_then_was(practise):
    at = practise("fan-dead")
    assert at.client.get(f"{at.base}/yard/replay/").status_code == 404, "nothing is told before it is over"
    for key in ("box_temp_f", "evap_fans", "evap_fan_supply_v"):
        at.take(key)
    at.yard("name/", cause="evap_fan_failed")
    first, second, third = (at.client.get(f"{at.base}/yard/replay/", {"step": n}).content.decode() for n in (1, 2, 3))
    assert "Step 1 of 3" in first and "Box air: " in first and "You went on with: <b>Coil fans: stopped</b>" in first
    chance = lambda page: int((re.findall(r"<span>Coil fan failed</span>\s*<span class=.fig.>(\d+) %", page) or ["0"])[0])  # noqa: E731
    assert chance(first) < 30 < chance(second) and "Coil fan failed" in third and "Volts at the fan: " in third
    assert "Step 1 of 3" in at.client.get(f"{at.base}/yard/replay/", {"step": "900"}).content.decode()


def test_who_teaches_sees_asks_hints_holds_time_and_puts_a_fault_in(teaching):
    at, teacher = teaching
    to = lambda what, **typed: teacher.post(f"/yard/teach/{at.practice.pk}/{what}/", typed, follow=True).content.decode()  # noqa: E731
    page = teacher.get(f"/yard/teach/{at.practice.pk}/").content.decode()
    assert "Contactor pole burnt open" in page and "Nothing done yet." in page
    at.take("compressor")
    stamp = page.partition("seen=")[2].partition('"')[0]
    live = teacher.get(f"/yard/teach/{at.practice.pk}/live/", {"seen": stamp})
    assert "Compressor: <b>humming" in live.content.decode()
    new = live.content.decode().partition("seen=")[2].partition('"')[0]
    assert teacher.get(f"/yard/teach/{at.practice.pk}/live/", {"seen": new}).status_code == 204
    to("ask", part="contactor", words="What do you expect here?")
    assert "asks at contactor: What do you expect here?" in at.page("read/")
    at.yard("reply/", words="volts over one pole")
    assert "asks at contactor" not in at.page("read/") and "volts over one pole" in to("hint", words="Look at what hums")
    to("hold")
    assert "Time is held" in at.page("read/")
    held = Practice.objects.get(pk=at.practice.pk).minutes
    at.yard("pass/", minutes="15")
    at.yard("thermostat/", which="down")
    at.take("box_temp_f")
    assert "stat_turned_down" not in at.core.rig.own
    assert Practice.objects.get(pk=at.practice.pk).minutes == held and at.value("box_temp_f") is None
    to("go-on")
    at.yard("pass/", minutes="15")
    assert Practice.objects.get(pk=at.practice.pk).minutes == held + 15.0
    assert "cannot be on this unit" in to("fault", cause="cap_tube_restricted") and "already" in to("fault", cause="contactor_pole_open")
    to("fault", cause="condenser_dirty")
    at.take("condenser_coil")
    assert at.value("condenser_coil") == "blocked"
    step = at.practice.steps.get(what="asked", of="compressor")
    assert "◐ well done" in to("mark", step=str(step.pk), how="good") and "Choose a step" in to("mark", step="9999999", how="good")
    at.yard("name/", cause="contactor_pole_open")
    assert Practice.objects.get(pk=at.practice.pk).told["was"] == ["contactor_pole_open", "condenser_dirty"]
    assert "it was named" in to("ask", words="and now?")


def test_who_teaches_does_not_work_on_it_and_who_works_does_not_teach(teaching):
    at, teacher = teaching
    address = f"{at.at}/entry/box_temp_f/"
    teacher.post(address, {"box_temp_f": "taken", "stop": "read"}, HTTP_HX_REQUEST="true")
    assert at.value("box_temp_f") is None and teacher.get(f"{at.at}/read/").status_code == 200
    assert at.client.get(f"/yard/teach/{at.practice.pk}/").status_code == 404
    assert at.client.post(f"/yard/teach/{at.practice.pk}/fault/", {"cause": "no_call"}).status_code == 404
    assert (
        "Who works on it names it"
        in teacher.post(
            f"{at.base}/yard/name/", {"cause": "no_call"}, follow=True, HTTP_REFERER=f"http://testserver{at.at}/read/"
        ).content.decode()
    )


def test_progress_is_shown_to_who_teaches_only_when_it_is_sent(teaching):
    at, teacher = teaching
    at.yard("name/", cause="contactor_pole_open")
    page = at.client.get(f"{at.base}/yard/debrief/").content.decode()
    assert "Show Maud my progress" in page and "on this device only" in page
    assert "found it" not in teacher.get(f"/yard/teach/{at.practice.pk}/").content.decode()
    at.yard("progress/", words="found it 3 of 4")
    assert "found it 3 of 4" in teacher.get(f"/yard/teach/{at.practice.pk}/").content.decode()


@pytest.mark.parametrize(("key", "role", "says"), [("XXXXX", "partner", "no practice call"), ("", "partner", "no practice call")])
def test_a_word_that_is_none_is_said(at_work, key, role, says):
    assert says in at_work.post("/yard/join/", {"key": key, "role": role}).content.decode()


def test_nobody_joins_from_another_shop_nor_ones_own(practise, stranger, user):
    from kettle.knowledge.errors import InputError

    at = practise("fan-dead")
    ivo = make_person(user.member.shop.name, "ivo")
    for who, role, says in ((stranger, "partner", "no practice call"), (user, "partner", "your own"), (ivo, "x", "Choose")):
        with pytest.raises(InputError, match=says):
            join(who, at.practice.key, role)
    assert at.practice.joined.count() == 0


def test_the_lessons_are_listed_begun_and_explained(at_work):
    page = at_work.get("/yard/lessons/").content.decode()
    assert all(one.title.replace("'", "&#x27;") in page for one in LESSONS.values())
    one = at_work.get("/yard/lessons/fan-dead/").content.decode()
    assert "Take: volts at the fan" in one and "/yard/how/no_air/" in one
    begun = at_work.post("/yard/lessons/fan-dead/", {"help": "none"}, follow=True)
    assert "PRACTICE" in begun.content.decode() and Practice.objects.get().help == "none" and Practice.objects.get().lesson == "fan-dead"
    assert at_work.get("/yard/lessons/tea/").status_code == at_work.get("/yard/how/tea/").status_code == 404
    how = at_work.get("/yard/how/defrost/").content.decode()
    assert '"frames"' in how and "Ice on the coil" in how and "data-play" in how


def test_how_it_works_is_reached_from_a_part_of_a_real_call(at_work, call):
    assert "/yard/how/valve/" in at_work.get(f"/calls/{call.number}/parts/valve/").content.decode()
    assert "/yard/how/" not in at_work.get(f"/calls/{call.number}/parts/told/").content.decode().split("part-page")[1]
