"""Note it: typed words as facts and acts."""

from kettle.benches.noting.hear import LONGEST as LONGEST
from kettle.benches.noting.hear import Heard as Heard
from kettle.benches.noting.hear import Piece as Piece
from kettle.benches.noting.hear import hear as hear
