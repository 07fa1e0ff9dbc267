"""The stops of a call."""
