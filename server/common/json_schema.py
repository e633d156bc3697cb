"""JSON Schema (2020-12) of the core's dataclasses, by the same types as they are decoded by."""

from __future__ import annotations

import dataclasses
import types
import typing
from typing import Any, Literal, Union

_SIMPLE: dict[Any, dict[str, Any]] = {
    str: {"type": "string"}, float: {"type": "number"}, int: {"type": "integer"},
    bool: {"type": "boolean"},
}


def schema_of(kind: Any, defs: dict[str, Any]) -> dict[str, Any]:
    """Return the schema of a type; dataclasses go into ``defs`` and are referred to.

    Ranges are not in it: what can be is judged when it is read, with a message that names it.
    """
    origin, args = typing.get_origin(kind), typing.get_args(kind)
    if origin in (Union, types.UnionType):
        return {"anyOf": [
            {"type": "null"} if arg is type(None) else schema_of(arg, defs) for arg in args
        ]}
    if origin is Literal:
        return {"enum": list(args)}
    if origin is tuple:
        item, *more = args
        if Ellipsis in more:
            return {"type": "array", "items": schema_of(item, defs)}
        return {
            "type": "array", "prefixItems": [schema_of(one, defs) for one in args],
            "items": False, "minItems": len(args),
        }
    if dataclasses.is_dataclass(kind):
        return _of_dataclass(typing.cast(type, kind), defs)
    return dict(_SIMPLE[kind])


def _of_dataclass(kind: type, defs: dict[str, Any]) -> dict[str, Any]:
    if kind.__name__ not in defs:
        defs[kind.__name__] = {}  # it may hold itself
        hints, specs = typing.get_type_hints(kind), dataclasses.fields(kind)
        defs[kind.__name__] = {
            "type": "object", "description": (kind.__doc__ or "").split("\n")[0],
            "properties": {spec.name: schema_of(hints[spec.name], defs) for spec in specs},
            "required": [
                spec.name for spec in specs
                if spec.default is dataclasses.MISSING
                and spec.default_factory is dataclasses.MISSING
            ],
            "additionalProperties": False,
        }
    return {"$ref": f"#/$defs/{kind.__name__}"}
