"""Shops and their people."""
