"""Refrigerant work on a call, and the shop's ledger."""
