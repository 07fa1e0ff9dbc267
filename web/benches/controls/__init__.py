"""The controls bench: settings as found and as left, the case controller."""
