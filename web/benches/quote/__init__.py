"""Quotes: proposed, priced, answered on screen by the customer."""
