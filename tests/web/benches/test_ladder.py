import pytest
from django.urls import reverse


def look(client, **asked):
    return client.get(reverse("ladder"), asked)


def test_a_pressure_gives_dew_bubble_mid_point_and_glide(at_work):
    body = look(at_work, refrigerant="R-448A", pressure="31").content.decode()
    for text in ("7.9 °F", "−3.4 °F", "Mid-point", "Glide", "CoolProp"):
        assert text in body, text
    assert "Glide" not in look(at_work, refrigerant="R-134a", pressure="31").content.decode()


def test_a_temperature_is_looked_up_on_the_line_asked(at_work):
    dew = look(at_work, refrigerant="R-448A", temperature="20", line="dew").context["asked"].looked
    bubble = look(at_work, refrigerant="R-448A", temperature="20", line="bubble").context["asked"].looked
    assert dew.dew_f == pytest.approx(20) and bubble.bubble_f == pytest.approx(20)
    assert bubble.psig > dew.psig


def test_altitude_and_vacuum(at_work):
    low = look(at_work, refrigerant="R-404A", pressure="5 inHg").context["asked"].looked
    high = look(at_work, refrigerant="R-404A", pressure="5 inHg", altitude_ft="5000").context["asked"].looked
    assert low.psig == pytest.approx(-2.456, abs=0.001)
    assert high.dew_f < low.dew_f
    assert "(5.0 inHg)" in look(at_work, refrigerant="R-404A", pressure="5 inHg").content.decode()


@pytest.mark.parametrize(
    ("asked", "says"),
    [
        ({"pressure": "9000"}, "outside the R-404A table"),
        ({"pressure": "warm"}, "is not a number"),
        ({"temperature": "400", "moved": "temperature"}, "outside the R-404A table, −80 to 150 °F"),
        ({"altitude_ft": "99999"}, "outside −1500 to 20000 ft"),
        ({"refrigerant": "R-999"}, "is not known"),
        ({"moved": "pressure_at", "pressure_at": "much"}, "not a number"),
        ({"moved": "temperature_at", "temperature_at": "nan"}, "outside"),
    ],
)
def test_what_cannot_be_looked_up_is_said_and_the_ladder_stays(at_work, asked, says):
    response = look(at_work, **asked)
    assert response.status_code == 200
    assert says in response.content.decode()


def test_a_moved_handle_answers_with_the_drawing_alone(at_work):
    asked = {"refrigerant": "R-404A", "moved": "pressure_at", "pressure_at": "20.5"}
    body = at_work.get(reverse("ladder"), asked, HTTP_HX_REQUEST="true").content.decode()
    assert body.lstrip().startswith('<div id="ladder-drawn"')
    assert 'data-temperature="20.5"' in body


def test_an_estimated_blend_says_so(at_work):
    assert "R22 with R124" in look(at_work, refrigerant="R-409A").content.decode()


def test_the_card_holds_the_chosen_refrigerants(at_work):
    body = at_work.get(reverse("ladder-card"), {"r": ["R-404A", "R-448A", "R-290"], "step": "5"}).content.decode()
    assert "0.1 inHg" in body and "94.2" in body
    assert body.count("<th>bubble</th>") == 2
    assert "outside −1500" in at_work.get(reverse("ladder-card"), {"altitude_ft": "-9000"}).content.decode()


def test_the_ladder_is_for_those_who_are_logged_in(client):
    assert client.get(reverse("ladder")).status_code == 302
