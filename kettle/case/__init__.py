"""The case file: one unit and what was observed on it (version 1), or a whole call (version 2), as an open, versioned JSON format.

`read` and `read_call` take text or bytes and answer with a case or a record, or one `InputError`; nothing is half-read. The JSON Schema is
generated from the same models by `schema`.
"""

from kettle.case.answers import answer, answer_of
from kettle.case.files import read, read_call, schema, write, write_call
from kettle.case.shared import FORMAT, LARGEST_BYTES, LONGEST_NAME, MOST_ACTS, MOST_OBSERVATIONS, CaseUnit
from kettle.case.version1 import VERSION, Case, CaseAct, CaseObservation, simulated
from kettle.case.version2 import data_of

__all__ = [
    "FORMAT", "LARGEST_BYTES", "LONGEST_NAME", "MOST_ACTS", "MOST_OBSERVATIONS", "VERSION", "Case", "CaseAct", "CaseObservation",
    "CaseUnit", "answer", "answer_of", "data_of", "read", "read_call", "schema", "simulated", "write", "write_call",
]  # fmt: skip
