"""A call as a case file, whole: everything that happened on it, in version 2."""

from kettle import case
from web.logbook.calls.record import record_of


def case_text(call):
    """The call as the text of a case file."""
    record = record_of(call)
    spec = call.unit.spec()
    fields = {name: getattr(spec, name) for name in case.CaseUnit.model_fields if name not in ("bands", "name")}
    fields["refrigerant"] = record.unit.refrigerant.name
    bands = {quantity: list(band) for quantity, band in spec.bands.items()}
    unit = {"name": spec.name[: case.LONGEST_NAME], **fields} | ({"bands": bands} if bands else {})
    return case.write_call(case.data_of(record, unit))
