"""What the controls bench adds to the round: a setting as found and as left, on Correct."""

from web.benches.controls.views.settings import setting_context
from web.round.registry import register

register("correct", setting_context, panel="controls/_setting.html")
