"""A physical model of a refrigerated box and its circuit, fast enough to ask while a technician waits.

`sizing` makes a plant of a kind, `faults` says what each cause changes in it, `run` steps it through time, `reading` tells
what a technician would read at the end. Every quantity is an array over variants, so that many run at the cost of one.
Units: °F, psia, Btu, Btu/h, lb, h.
"""
