"""The write-up of a call as it stands: what the core says of its record, and where somebody worded a sentence, those words."""

from kettle.benches.report.worded import Clause, shown


def sentences_of(call, standing):
    """The sentences of a call's write-up in their order."""
    worded = {one.key: (one.section, one.drafted, one.text) for one in call.wordings.all()}
    return shown([Clause(one.section, one.text, one.refs) for one in standing.told.sentences], worded)
