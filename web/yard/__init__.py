"""The practice yard: calls on simulated units with hidden faults, worked through the screens of a real call, on a shop of their own."""
