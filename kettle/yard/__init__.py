"""The yard: practice on simulated units whose faults are hidden, drawn by a number, so that two people can take the same one.

`drawn` draws a unit, its faults and its story; `practice` is the work on it, each thing asked and done with its minutes; `follow` works
one off by holds and next checks alone; `debrief` tells afterwards what it was and how it went; `spoken` answers typed lines.
"""

from kettle.yard.drawn import Draw as Draw
from kettle.yard.drawn import draw as draw
from kettle.yard.practice import Practice as Practice
from kettle.yard.practice import begin as begin
