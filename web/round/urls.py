"""Addresses of a call's stops; the first parameter is the call's number."""

from django.urls import path

from web.round.views import entries, judge, noting, parts, promises, site, stops

urlpatterns = [
    path("follow-ups/add/", promises.add, name="promise"),
    path("", stops.call_home, name="call"),
    path("entry/<str:key>/", entries.enter, name="enter"),
    path("undo/", entries.undo, name="undo"),
    path("standing/<slug:stop>/", stops.standing, name="standing"),
    path("parts/", parts.parts, name="parts"),
    path("parts/<slug:code>/", parts.part, name="part"),
    path("done/", parts.done, name="done"),
    path("looked/", parts.looked, name="looked"),
    path("spot/", parts.spot, name="spot"),
    path("taken/", parts.taken, name="taken"),
    path("heard/", noting.heard, name="heard"),
    path("note/", noting.note, name="note"),
    path("words/", site.words, name="words"),
    path("check-in/", site.check_in_view, name="check-in"),
    path("sibling/<int:pk>/", site.sibling, name="sibling"),
    path("photos/", site.add_photo, name="add-photo"),
    path("photos/<int:pk>/", site.photo, name="photo"),
    path("photos/<int:pk>/small/", site.thumbnail, name="thumbnail"),
    path("override/", judge.override, name="override"),
    path("found/", judge.found, name="found"),
    path("explanation/", judge.explanation, name="explanation"),
    path("take-back/<str:what>/<int:pk>/", entries.take_back, name="take-back"),
    path("leaving/", stops.answer, name="answer-doubt"),
    path("close/", stops.close, name="close"),
    path("<slug:stop>/", stops.stop, name="stop"),
]
