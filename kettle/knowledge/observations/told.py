"""What is told before anything is looked at: why they called, since when, and who was there last."""

from typing import Final

from kettle.knowledge.observations.make import choice
from kettle.knowledge.observations.model import Observation

# fmt: off
ENTRIES: Final[tuple[Observation, ...]] = (
    choice("complaint", "Called about", "told", "In the customer's words, what made them call", "warm=too warm",
            "freezing_product=freezes the product", "iced=iced up", "water=water on the floor", "does_not_run", "starts_and_stops",
            "noisy", "alarm", "runs_all_the_time", "service=service visit", "first_start", tool="ask", many=True),
    choice("since_when", "Since when", "told", "Ask when it last was right", "today=today, at once", "days=some days",
            "weeks=weeks or more", "never_right", "cold_weather=since it got cold", tool="ask"),
    choice("last_touched", "Last visit changed", "told", "Ask who was there last and what they did; look at the sticker",
            "nothing", "charge=gas in or out", "valve=the valve", "settings", "parts", "defrost=defrost", "melted=ice melted off",
            tool="ask", many=True),
    choice("season", "Air outside is", "told", "Wet or dry weather these weeks", "dry", "humid", tool="ask", minutes=0.5),
)
# fmt: on
