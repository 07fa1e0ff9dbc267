"""What was asked of a bench holds for the visit: figures that are wishes and sums, not records."""

LONGEST = 20


def remembered(request, key, names):
    """What is asked by address, and for some names what was asked last under a key where it says nothing of them."""
    asked, known = request.GET.copy(), request.session.get(key, {})
    told = {name: asked[name][:LONGEST] for name in names if name in asked}
    if told:
        request.session[key] = known | told
    for name, value in known.items():
        asked.setdefault(name, value)
    return asked
