"""The forms of every page, as a browser would send them."""

from html.parser import HTMLParser

STOPS = ("arrive", "melt", "read", "sets", "probes", "programs", "watch", "controller", "power", "judge", "correct", "valve", "charge",
         "controls", "prove", "hand-over", "quote", "refrigerant", "taken", "ice")  # fmt: skip
PAGES = ("/", "/me/", "/shop/", "/van/", "/refrigerant/", "/units/1/", "/units/1/plate/", "/units/1/bands/", "/units/1/trends/", "/record/")
# They end the session, or wait for a device; their actions are those of other forms.
LEFT_OUT = ("/logout/",)
FIGURE = "31"


class Forms(HTMLParser):
    """The forms of a page that are posted: address and what a browser would send of each field."""

    def __init__(self):
        super().__init__()
        self.found, self.form, self.choice = [], None, None

    def handle_starttag(self, tag, attrs):
        a = dict(attrs)
        if tag == "form":
            to = a.get("hx-post") or (a.get("action", "") if a.get("method", "").lower() == "post" else None)
            self.form = None if to is None else (to, {})
            if self.form:
                self.found.append(self.form)
        elif self.form is None or not a.get("name"):
            if tag == "option" and self.choice and (a.get("value") and (self.choice not in self.form[1] or "selected" in a)):
                self.form[1][self.choice] = a["value"]
        elif tag == "select":
            self.choice = a["name"]
        elif tag in ("input", "textarea", "button"):
            kind = a.get("type", "text")
            if kind in ("radio", "checkbox") and "checked" not in a and a["name"] in self.form[1]:
                return
            if kind != "file":
                self.form[1][a["name"]] = a.get("value") or FIGURE

    def handle_endtag(self, tag):
        if tag == "form":
            self.form = None
        elif tag == "select":
            self.choice = None


def forms_of(client, pages):
    """Every form of some pages: where it stands, where it goes, and what is sent of each field."""
    for page in pages:
        answer = client.get(page)
        if answer.status_code == 200:
            told = Forms()
            told.feed(answer.content.decode())
            yield from ((page, to or page, typed) for to, typed in told.found if (to or page) not in LEFT_OUT)


def pages_of(number):
    """The pages of the shop, and of a call by its number."""
    return [*PAGES, *(f"/calls/{number}/{stop}/" for stop in STOPS)]
