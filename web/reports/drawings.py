"""The drawings of a report as images that need nothing around them, as a file wants them."""

from django.template.loader import render_to_string

from web.logbook.photos.pictures import image_of
from web.reports.pdf import as_image, bench_style, drawing_style


def pane_drawn(picture, pane):
    """One pane of a unit's picture as a drawing that needs nothing around it."""
    return render_to_string("round/picture/_pane.svg", {"picture": picture, "pane": pane, "printed": True, "alone": True})


def _image(template, context):
    return as_image(render_to_string(template, context | {"printed": True}), drawing_style())


def drawn(template, shown):
    """What some drawings show, each with the drawing itself."""
    return [one | {"drawing": render_to_string(template, one | {"printed": True})} for one in shown]


def printed(context):
    """A report's context with every drawing and photo of it as an image."""
    pictures = [
        (title, [as_image(pane_drawn(picture, pane), drawing_style()) for pane in panes]) for title, picture, panes in context["pictures"]
    ]
    painted = [one for _, *pair in context["ice_pairs"] for one in pair if one]
    return context | {
        "filed": True,
        "drawing_image": _image("round/_circuit.svg", context),
        "picture_images": pictures,
        "ice_images": [(_image("ice/_ice_map.svg", {"painted": one}), one) for one in painted],
        "coils": [(*row, _image("round/_circuit.svg", {"standing": row[1]})) for *row, _ in context["coils"]],
        "dials": [one | {"image": as_image(one["drawing"], bench_style())} for one in context["dials"]],
        "wirings": [one | {"image": as_image(one["drawing"], bench_style())} for one in context["wirings"]],
        "photos": [(image_of(photo), photo) for _, photo in context["photos"]],
    }
