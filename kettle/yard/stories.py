"""What is said before anybody looks: who calls, and what was done before. Invented, by why somebody calls."""

from typing import Final

# Who calls, by words the kind's code begins with; the first that fits.
CALLERS: Final[dict[str, tuple[str, ...]]] = {
    "walk_in": ("The kitchen of an inn calls before lunch", "A butcher calls while he opens", "The cook of a school calls"),
    "reach_in": ("A bakery calls in the morning rush", "The bar of a theatre calls in the interval", "A canteen calls after the weekend"),
    "prep_rail": ("A sandwich counter calls at eleven", "A pizza kitchen calls before the evening"),
    "display": ("A village grocery calls at closing time", "A farm shop calls on a market day"),
    "bottle": ("A kiosk by the lake calls", "A filling station calls at night"),
    "provision": ("The galley of a ferry calls from the pier", "The steward of a supply ship calls"),
}
# Why they call, by the word of *Called about*; {set} is where the thermostat stands.
COMPLAINTS: Final[dict[str, tuple[str, ...]]] = {
    "warm": ("“It does not get down to {set} any more.”", "“The stock is too warm, and it should be {set}.”",
             "“It was all right last week, and now it is warm.”"),
    "freezing_product": ("“It freezes what should only be cold.”", "“It goes far below {set}, the thermostat does nothing.”"),
    "iced": ("“There is ice all over the back.”", "“It blows hardly any air, and behind the grille it is white.”"),
    "water": ("“There is water on the floor, every morning.”",),
    "does_not_run": ("“It does not run at all.”", "“It is dead quiet, and getting warm.”"),
    "starts_and_stops": ("“It starts and stops all the time, one can hear it from the counter.”",),
}  # fmt: skip
# What an act that was done before is told as, by part; somebody was there.
BEFORE: Final[dict[str, str]] = {
    "valve": "“Somebody was here last week and turned on the valve.”",
    "charge": "“Somebody was here last week and put gas in.”",
}
