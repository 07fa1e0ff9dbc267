"""Addresses of the yard. Those under `yard/` of a practice call belong to its work."""

from django.urls import path

from web.yard.views import debriefed, home, lessons, scenarios, teaching, work

urlpatterns = [
    path("", home.yard, name="yard"),
    path("begin/", home.new, name="begin-practice"),
    path("join/", home.join_in, name="join-practice"),
    path("lessons/", lessons.lessons, name="lessons"),
    path("lessons/<slug:code>/", lessons.lesson, name="lesson"),
    path("how/<slug:code>/", lessons.how_it_works, name="how-it-works"),
    path("scenarios/", scenarios.scenarios, name="scenarios"),
    path("scenarios/new/", scenarios.write, name="write-scenario"),
    path("scenarios/read-in/", scenarios.read_in, name="read-in-scenario"),
    path("scenarios/schema.json", scenarios.schema, name="scenario-schema"),
    path("scenarios/from/<int:number>/", scenarios.from_call, name="scenario-from-call"),
    path("scenarios/<int:pk>/", scenarios.begin_one, name="begin-scenario"),
    path("scenarios/<int:pk>/file.json", scenarios.as_file, name="scenario-file"),
    path("scenarios/<int:pk>/away/", scenarios.put_away_one, name="put-away-scenario"),
    path("teach/<int:pk>/", teaching.watch, name="teach"),
    path("teach/<int:pk>/live/", teaching.live, name="teach-live"),
    path("teach/<int:pk>/<slug:what>/", teaching.do, name="teach-do"),
    # Inside a practice call: under /practice/7/yard/.
    path("pass/", work.pass_time, name="yard-pass"),
    path("thermostat/", work.thermostat, name="yard-thermostat"),
    path("face/", work.face, name="yard-face"),
    path("setting/", work.read_setting, name="yard-setting"),
    path("hint/", work.hint, name="yard-hint"),
    path("say/", work.say, name="yard-say"),
    path("reply/", work.reply, name="yard-reply"),
    path("name/", work.name, name="yard-name"),
    path("probes/", work.probes, name="yard-probes"),
    path("watch/", work.watch, name="yard-watch"),
    path("bar/", work.bar, name="yard-bar"),
    path("progress/", work.show_progress, name="yard-progress"),
    path("debrief/", debriefed.debriefed, name="yard-debrief"),
    path("replay/", debriefed.replay, name="yard-replay"),
]
