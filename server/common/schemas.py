"""Shapes that every app shares: errors, and what is made of the core's own dataclasses."""

from __future__ import annotations

import dataclasses
import types
import typing
from typing import Any

from rest_framework import serializers


class ErrorSerializer(serializers.Serializer):
    """Every error of the API; limit, low and high in SI, where there are such."""

    code = serializers.CharField()
    field = serializers.CharField(allow_blank=True)
    message = serializers.CharField()
    reason = serializers.CharField(allow_blank=True)
    limit = serializers.FloatField(allow_null=True)
    low = serializers.FloatField(allow_null=True)
    high = serializers.FloatField(allow_null=True)


class PairsField(serializers.ListField):
    """Pairs of numbers."""

    child = serializers.ListField(child=serializers.FloatField(), min_length=2, max_length=2)


class PathsField(serializers.ListField):
    """Lines of [behind the tip, below the surface] points."""

    child = serializers.ListField(
        child=serializers.ListField(child=serializers.FloatField(), min_length=2, max_length=2)
    )


_SIMPLE: dict[Any, type[serializers.Field]] = {
    str: serializers.CharField, float: serializers.FloatField, int: serializers.IntegerField,
    bool: serializers.BooleanField,
}
_MADE: dict[type, type[serializers.Serializer]] = {}


def serializer_of(kind: type) -> type[serializers.Serializer]:
    """Return the serializer of a dataclass of the core, for the schema.

    Written here because the off-the-shelf dataclass serializer does not know tuples of points.
    """
    if kind not in _MADE:
        hints = typing.get_type_hints(kind)
        fields: dict[str, Any] = {
            spec.name: _field(
                hints[spec.name],
                required=spec.default is dataclasses.MISSING,
            )
            for spec in dataclasses.fields(kind)
        }
        _MADE[kind] = type(f"{kind.__name__}Serializer", (serializers.Serializer,), {
            **fields, "__doc__": (kind.__doc__ or "").split("\n\n")[0],
        })
    return _MADE[kind]


def _field(hint: Any, *, required: bool = True, nullable: bool = False) -> serializers.Field:
    origin, args = typing.get_origin(hint), typing.get_args(hint)
    options: dict[str, Any] = {"required": required, "allow_null": nullable}
    if origin in (typing.Union, types.UnionType):
        inner = next(arg for arg in args if arg is not type(None))
        return _field(inner, required=required, nullable=True)
    if origin is typing.Literal:
        return serializers.ChoiceField(choices=list(args), **options)
    if origin is tuple:
        if _is_pair(args[0]):
            return PairsField(**options)
        if _is_of_pairs(args[0]):
            return PathsField(**options)
        return serializers.ListField(child=_field(args[0]), **options)
    if dataclasses.is_dataclass(hint):
        return serializer_of(typing.cast(type, hint))(**options)
    return _SIMPLE[hint](**options)


def _is_pair(hint: Any) -> bool:
    """Whether a type is one point."""
    return typing.get_origin(hint) is tuple and typing.get_args(hint)[-1] is not Ellipsis


def _is_of_pairs(hint: Any) -> bool:
    """Whether a type is points, or tuples of them."""
    while typing.get_origin(hint) is tuple and typing.get_args(hint)[-1] is Ellipsis:
        hint = typing.get_args(hint)[0]
    return typing.get_origin(hint) is tuple
