"""Addresses of a call's quote; the first parameter is the call's number."""

from django.urls import path

from web.benches.quote.views import quote, van

urlpatterns = [
    path("quote/", quote.quote, name="quote"),
    path("quote/take/", quote.take, name="take-quote"),
    path("quote/line/", quote.line, name="quote-line"),
    path("quote/line/<int:pk>/", quote.line, name="change-line"),
    path("quote/photos/", quote.photos, name="quote-photos"),
    path("quote/limit/", quote.limit, name="quote-limit"),
    path("quote/decide/", quote.decide, name="decide-quote"),
    path("parts-used/", van.use, name="use-part"),
    path("parts-used/<int:pk>/undo/", van.take_back, name="undo-part"),
]
