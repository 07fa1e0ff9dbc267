"""Wireless probes: their protocol and what their live values are worth."""
