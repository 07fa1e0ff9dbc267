"""The probes: live values taken into a set."""
