"""Benches: one package for each kind of work at the unit, its tables, its computing, and what it tells the judgement."""
