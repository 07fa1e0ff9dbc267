"""Measurements of speed, as ratios; no test asserts a time."""
