"""Judging: from what was observed on a unit to quantities, verdicts, holds, suspects and the next check."""
