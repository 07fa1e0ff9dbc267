"""Courses of readings over time, read by rule."""
