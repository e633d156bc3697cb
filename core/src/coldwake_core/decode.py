"""From untrusted JSON to dataclasses: each field named, typed and checked, nothing extra let in."""

from __future__ import annotations

import dataclasses
import types
import typing
from collections.abc import Mapping
from typing import Any, Final, Literal, TypeVar, Union

from .checks import require_choice, require_number, require_text
from .errors import InvalidInputError

T = TypeVar("T")

_LONGEST_LIST = 500


def decode(kind: type[T], data: object, *, field: str = "") -> T:
    """Return a dataclass made from JSON data.

    Parameters
    ----------
    kind : type
        A dataclass whose fields are str, int, float, bool, Literal, tuple[X, ...], other such
        dataclasses, or any of these or None. A method ``check`` is called when it has one.
    data : object
        What came in.
    field : str
        Dotted name of the place, for messages.

    Returns
    -------
    instance of ``kind``

    Raises
    ------
    InvalidInputError
        If a field is missing, unknown or not of its type; the message names it.
    """
    if not isinstance(data, Mapping):
        raise InvalidInputError(field or "payload", data, "an object with named fields")
    hints = _hints(kind)
    for name in data:
        if name not in hints:
            raise InvalidInputError(
                _join(field, str(name)[:60]), data[name],
                "left out: the known fields are " + (", ".join(hints) or "none"),
            )
    values = {}
    for name, hint in hints.items():
        where = f"{field}.{name}" if field else name
        if name in data:
            values[name] = _value(hint, data[name], where)
        elif name in _NEEDED[kind]:
            raise InvalidInputError(where, None, "given", reason="missing")
    made = kind(**values)
    check = getattr(made, "check", None)
    if check is not None:
        try:
            check()
        except InvalidInputError as error:
            error.field = _join(field, error.field)
            raise
    return made


_HINTS: dict[Any, dict[str, Any]] = {}
_NEEDED: dict[Any, frozenset[str]] = {}
"""Types of a dataclass's fields, and which have no default: looked up once, for a record of years
is read field by field."""


def _hints(kind: Any) -> dict[str, Any]:
    if kind not in _HINTS:
        hints, specs = typing.get_type_hints(kind), dataclasses.fields(kind)
        _NEEDED[kind] = frozenset(
            spec.name for spec in specs
            if spec.default is dataclasses.MISSING and spec.default_factory is dataclasses.MISSING
        )
        _HINTS[kind] = {spec.name: hints[spec.name] for spec in specs}
    return _HINTS[kind]


def _join(field: str, name: str) -> str:
    return f"{field}.{name}" if field else name


def _value(hint: Any, value: object, field: str) -> Any:
    # The plain types first: most of a record is numbers.
    if hint is float:
        return require_number(field, value)
    if hint is str:
        return require_text(field, value, empty=True)
    origin = typing.get_origin(hint)
    if origin in (Union, types.UnionType):
        options = typing.get_args(hint)
        if value is None and type(None) in options:
            return None
        return _value(next(o for o in options if o is not type(None)), value, field)
    if origin is Literal:
        return require_choice(field, value, typing.get_args(hint))
    if origin is tuple:
        if not isinstance(value, list | tuple) or len(value) > _LONGEST_LIST:
            raise InvalidInputError(field, value, f"a list of at most {_LONGEST_LIST}")
        item, *more = typing.get_args(hint)
        if Ellipsis not in more and len(value) != 1 + len(more):
            raise InvalidInputError(field, value, f"a list of {1 + len(more)}")
        return tuple(_value(item, v, f"{field}[{i}]") for i, v in enumerate(value))
    if dataclasses.is_dataclass(hint):
        return decode(typing.cast(type, hint), value, field=field)
    if hint is bool:
        if not isinstance(value, bool):
            raise InvalidInputError(field, value, "true or false")
        return value
    if hint is int:
        number = require_number(field, value)
        if number != int(number):
            raise InvalidInputError(field, value, "a whole number")
        return int(number)
    raise TypeError(f"{field}: {hint!r} is no type that JSON can be decoded to")


_PLAIN: Final = frozenset({float, str, int, bool, type(None)})


def encode(value: Any) -> Any:
    """Return the JSON form of dataclasses, tuples and plain values.

    Parameters
    ----------
    value : Any
        A dataclass, or what may stand in its fields.

    Returns
    -------
    dict, list, str, float, int, bool or None
    """
    kind = type(value)
    if kind in _PLAIN or isinstance(value, float | str | int):
        return value
    if isinstance(value, tuple | list):
        return [item if type(item) in _PLAIN else encode(item) for item in value]
    if isinstance(value, Mapping):
        return {key: encode(item) for key, item in value.items()}
    # Most of what is sent are the numbers and words of dataclasses: they are not asked twice.
    return {
        name: item if type(item := getattr(value, name)) in _PLAIN else encode(item)
        for name in _hints(kind)
    }
