"""Two people over one form: what each changed is kept, and what both changed is shown before either is lost."""

from kettle.knowledge.errors import FieldErrors


def changed(typed, was, standing, who=None):
    """Return what somebody changed (field -> typed) of what stands, by what the form showed (`was`).

    A field left as it was shown is left as it stands now. FieldErrors names each field that another changed meanwhile to something
    else, and `who` did; what stands now has to be seen first. A form that does not say what it showed changes what it holds.
    """
    told = f"{who} changed this" if who else "This was changed"
    changes, conflicts = {}, {}
    for name, text in typed.items():
        before = was.get(name)
        if before is not None and _same(text, before):
            continue
        if _same(text, standing[name]):
            continue
        if before is not None and not _same(standing[name], before):
            conflicts[name] = f"{told} meanwhile to “{standing[name][:200]}”. Keep again to put yours in its place"
        changes[name] = text
    if conflicts:
        raise FieldErrors(conflicts)
    return changes


def shown_by(posted):
    """What a form showed when it was opened: its hidden fields was-…"""
    return {name.removeprefix("was-"): text for name, text in posted.items() if name.startswith("was-")}


def _same(one, other):
    """Whether two texts are the same to a person: browsers send line ends of their own."""
    return one.replace("\r\n", "\n").strip() == other.replace("\r\n", "\n").strip()
