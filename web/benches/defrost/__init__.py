"""The defrost bench: programs, plans, defrosts watched."""
