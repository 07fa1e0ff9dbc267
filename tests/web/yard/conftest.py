"""A learner at work on a practice call: the same pages as of a real call, under an address of their own."""

import pytest

from kettle.yard.lessons import LESSONS
from tests.web.conftest import make_person
from web.logbook.calls import told_again
from web.yard.actions.begin import begin, join
from web.yard.models import Practice
from web.yard.rigs import rig_of


@pytest.fixture(autouse=True)
def told_again_as_in_use(settings):
    """What is told is kept for a moment, as in use: here rows are written by the application alone."""
    settings.TOLD_KEPT_S = 15.0
    told_again.forget()


class AtPractice:
    """A practice call and whoever works on it, by the addresses a browser uses."""

    def __init__(self, client, practice):
        self.client, self.practice = client, practice
        self.base = f"/practice/{practice.pk}"
        self.at = f"{self.base}/calls/{practice.call.number}"

    @property
    def call(self):
        return self.practice.call

    @property
    def core(self):
        return rig_of(Practice.objects.get(pk=self.practice.pk))

    def get(self, path="", **query):
        return self.client.get(f"{self.at}/{path}", query)

    def page(self, path=""):
        return self.get(path).content.decode()

    def post(self, path, follow=True, **typed):
        return self.client.post(f"{self.at}/{path}", typed, follow=follow, HTTP_REFERER=f"http://testserver{self.at}/read/")

    def yard(self, path, follow=True, **typed):
        return self.client.post(f"{self.base}/yard/{path}", typed, follow=follow, HTTP_REFERER=f"http://testserver{self.at}/read/")

    def take(self, key, **typed):
        return self.client.post(f"{self.at}/entry/{key}/", {key: "taken", "stop": "read", **typed}, HTTP_HX_REQUEST="true")

    def value(self, key):
        found = self.call.readings.filter(key=key, undone_at=None).last()
        return None if found is None else found.value

    def steps(self):
        return list(self.practice.steps.values_list("what", "of", "undone"))

    def act(self, code, **typed):
        return self.post("done/", act=code, **typed)


@pytest.fixture
def practise(at_work, user):
    """Begin a lesson's call: practise("fan-dead")."""

    def begun(code="fan-dead", **named):
        one = LESSONS[code]
        return AtPractice(at_work, begin(user, one.draw, lesson=one.code, **named))

    return begun


@pytest.fixture
def teacher(db, user):
    return make_person(user.member.shop.name, "maud")


@pytest.fixture
def teaching(client, practise, teacher):
    """A practice call, and a client of who teaches on it."""
    from tests.web.conftest import Reader

    at = practise("pole-open")
    join(teacher, at.practice.key, "instructor")
    other = Reader()
    other.force_login(teacher)
    return at, other
