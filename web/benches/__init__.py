"""The benches: tools that work out one thing by themselves, outside a call."""
