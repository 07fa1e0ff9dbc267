"""A call as its screens show it; `Standing` is what they ask."""

from web.round.standing.standing import Standing as Standing
