"""A physical model of a refrigerated box and its circuit, fast enough to ask while a technician waits.

`sizing` makes a plant of a kind, `faults` says what each cause changes in it, `run` steps it through time, `reading` tells
what a technician would read at the end. A plant is a table of figures with a row for each variant; the functions of a step
are written for one row and compiled, so that a hundred days take a second or two. Units: °F, psia, Btu, Btu/h, lb, h.
"""
