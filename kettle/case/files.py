"""Case files read, written and described: either version."""

import json
from typing import Any

from kettle.call.kinds import KINDS
from kettle.call.record import Record
from kettle.case import version1, version2
from kettle.case.shared import FORMAT, loads
from kettle.case.version1 import Case
from kettle.knowledge import observations
from kettle.knowledge.errors import InputError


def read(source: str | bytes) -> Case:
    """Return the case of a JSON text of version 1.

    Raises InputError with one line that says what is wrong, and where, for anything that is not a sound case file.
    """
    data = loads(source)
    if data.get("version") != version1.VERSION:
        raise InputError(f"version {json.dumps(data.get('version'))[:20]} of the case format is not known; known is {version1.VERSION}")
    return version1.validated(data)


def read_call(source: str | bytes) -> Record:
    """Return the record of a JSON text of either version; InputError as in `read`."""
    data = loads(source)
    if data.get("version") == version2.VERSION:
        return version2.record_of(data)
    if data.get("version") == version1.VERSION:
        return version1.record_of(version1.validated(data))
    known = f"{version1.VERSION} and {version2.VERSION}"
    raise InputError(f"version {json.dumps(data.get('version'))[:20]} of the case format is not known; known are {known}")


def write(case: Case) -> str:
    """Return a case of version 1 as JSON text, without the fields nobody gave."""
    return json.dumps(case.model_dump(mode="json", exclude_none=True), indent=2, ensure_ascii=False) + "\n"


def write_call(data: dict[str, Any]) -> str:
    """Return the object of a call file (`version2.data_of`) as JSON text."""
    return json.dumps(data, indent=2, ensure_ascii=False) + "\n"


def schema(version: int = version1.VERSION) -> dict[str, Any]:
    """Return the JSON Schema of the case file in a version; InputError for one there is none of."""
    if version == version1.VERSION:
        made = _schema_1()
    elif version == version2.VERSION:
        made = _schema_2()
    else:
        raise InputError(f"version {version} of the case format is not known; known are {version1.VERSION} and {version2.VERSION}")
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", "$id": f"{FORMAT}/{version}", **made}


def _schema_1() -> dict[str, Any]:
    made = Case.model_json_schema()
    listed = made["properties"]["observations"]
    plain = {
        entry.key: {"type": "number", "minimum": entry.low, "maximum": entry.high}
        if entry.is_number
        else {"type": "array", "items": {"enum": [code for code, _ in entry.choices]}}
        if entry.many
        else {"enum": [code for code, _ in entry.choices]}
        for entry in observations.REGISTRY.values()
    }
    made["properties"]["observations"] = {"anyOf": [listed, {"type": "object", "properties": plain, "additionalProperties": False}]}
    return made


def _schema_2() -> dict[str, Any]:
    made = version2.CallFile.model_json_schema()
    definitions = made.setdefault("$defs", {})
    names = []
    for code, kind in KINDS.items():
        own = kind.carries.model_json_schema(ref_template="#/$defs/{model}")
        definitions |= own.pop("$defs", {})
        common = {
            "kind": {"const": code},
            "at": {"type": "string", "format": "date-time"},
            "on": {"type": ["string", "integer"]},
            "undone": {"type": "boolean"},
        }
        own["properties"] = common | own.get("properties", {})
        own["required"] = ["kind", *own.get("required", [])]
        name = f"event_{code}"
        definitions[name] = own
        names.append({"$ref": f"#/$defs/{name}"})
    made["properties"]["events"] = {"type": "array", "maxItems": version2.MOST_EVENTS, "items": {"oneOf": names}}
    return made
