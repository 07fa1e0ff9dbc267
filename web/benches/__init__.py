"""Benches: one application for each kind of work at the unit; each has the same rooms (docs/architecture.md)."""
