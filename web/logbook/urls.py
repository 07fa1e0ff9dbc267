"""Addresses of the logbook."""

from django.urls import path

from web.logbook.models import Device
from web.logbook.views import board, calls, case_files, me, promises, searching, shop, stickers, units

PERSON_CHANGES = ("close", "reopen", "password", "live", "no-live")

urlpatterns = [
    path("", board.board, name="board"),
    path("search/", searching.search_all, name="search"),
    path("me/", me.me, name="me"),
    path("me/password/", me.password, name="password"),
    path("me/schools/", me.schools, name="schools"),
    path("me/by-feel/", me.by_feel, name="by-feel"),
    path("shop/", shop.shop, name="shop"),
    path("shop/log/", shop.log, name="log"),
    path("shop/leaks/", shop.leak_limit, name="leak-limit"),
    path("shop/terms/", shop.terms, name="terms"),
    path("shop/people/", shop.add_person, name="add-person"),
    *(path(f"shop/people/<int:pk>/{what}/", shop.change_person, {"what": what}, name=f"{what}-person") for what in PERSON_CHANGES),
    path("shop/devices/", shop.add_device, name="add-device"),
    path("shop/devices/<int:pk>/remove/", shop.remove_device, name="remove-device"),
    *(path(f"calls/<int:number>/{kind}/choose/", shop.choose_device, {"kind": kind}, name=f"choose-{kind}") for kind, _ in Device.KINDS),
    path("units/new/", units.edit_unit, name="new-unit"),
    path("units/<int:pk>/", units.unit_page, name="unit"),
    path("units/<int:pk>/plate/", units.edit_unit, name="edit-unit"),
    path("units/<int:pk>/plate.jpg", units.plate_photo, name="plate-photo"),
    path("units/refrigerants/", units.matching_refrigerants, name="refrigerants"),
    path("units/altitude/", units.site_altitude, name="site-altitude"),
    path("units/<int:pk>/sticker/", stickers.sticker, name="sticker"),
    path("s/<uuid:key>/", stickers.scanned, name="scanned"),
    path("me/feed/", stickers.feed, name="feed"),
    path("feed/<uuid:key>.ics", stickers.feed_of, name="feed-of"),
    path("units/<int:pk>/bands/", units.unit_bands, name="unit-bands"),
    path("calls/new/", calls.new_call, name="new-call"),
    path("quick-look/", calls.quick_look, name="quick-look"),
    path("calls/<int:number>/keep/", calls.keep, name="keep"),
    path("follow-ups/<int:pk>/done/", promises.done, name="promise-done"),
    path("follow-ups/<int:pk>/let-go/", promises.let_go, name="promise-let-go"),
    path("follow-ups/<int:pk>.ics", promises.calendar, name="promise-calendar"),
    path("case/", case_files.preview_case, name="preview-case"),
    path("case/open/", case_files.import_case, name="import-case"),
    path("case/schema.json", case_files.schema, name="case-schema"),
    path("calls/<int:number>/case.json", case_files.export_case, name="export-case"),
]
