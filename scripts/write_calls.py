"""Write the front end's types of the core's calls from the bridge's signatures.

Run by `make types`, after web/openapi.json: a type that the server's schema knows is named after
it, any other is spelt out. A test fails when the file is stale.
"""

from __future__ import annotations

import dataclasses
import inspect
import json
import sys
import types
from pathlib import Path
from typing import Annotated, Any, Literal, Union, get_args, get_origin, get_type_hints

ROOT = Path(__file__).resolve().parent.parent
sys.path.insert(0, str(ROOT / "core/src"))

from coldwake_core.bridge import CALLS, Answers  # noqa: E402

PLACE = ROOT / "web/src/shared/core/calls.ts"
PLAIN = {float: "number", int: "number", str: "string", bool: "boolean", type(None): "null"}
HEAD = """// Written by scripts/write_calls.py from the core's bridge (`make types`): do not edit.
import type { components } from '@/shared/api/schema'

type Schemas = components['schemas']

/** What the core answers: its arguments and its result, by the name of the call. */
export interface CoreCalls {
"""


def written(hint: Any, known: set[str]) -> str:
    """Return a type of the core in TypeScript."""
    if get_origin(hint) is Annotated:
        return f"Schemas['{get_args(hint)[1]}']"
    if hint in PLAIN:
        return PLAIN[hint]
    origin, args = get_origin(hint), get_args(hint)
    if origin is Literal:
        return " | ".join(f"'{arg}'" for arg in args)
    if origin in (Union, types.UnionType):
        return " | ".join(written(arg, known) for arg in args)
    if origin in (tuple, list):
        inner = written(args[0], known)
        return f"({inner})[]" if " | " in inner else f"{inner}[]"
    if dataclasses.is_dataclass(hint) and hint.__name__ in known:
        return f"Schemas['{hint.__name__}']"
    if dataclasses.is_dataclass(hint):
        hints = get_type_hints(hint)
        fields = (f"{f.name}: {written(hints[f.name], known)}" for f in dataclasses.fields(hint))
        return "{ " + "; ".join(fields) + " }"
    raise SystemExit(f"{hint!r} has no form in TypeScript")


def calls() -> str:
    """Return the text of the file."""
    schema = json.loads((ROOT / "web/openapi.json").read_text("utf-8"))
    known = set(schema["components"]["schemas"])
    rows = []
    for name in CALLS:
        method = getattr(Answers, name)
        hints = get_type_hints(method, include_extras=True)
        taken = [arg for arg in inspect.signature(method).parameters.values() if arg.name != "self"]
        args = [
            f"{arg.name}{'' if arg.default is arg.empty else '?'}: "
            f"{written(hints[arg.name], known)}"
            for arg in taken
        ]
        asked = "{ " + "; ".join(args) + " }" if args else "Record<string, never>"
        rows.append(
            f"  /** {inspect.getdoc(method)} */\n"
            f"  {name}: {{ args: {asked}; result: {written(hints['return'], known)} }}\n"
        )
    return HEAD + "".join(rows) + "}\n"


if __name__ == "__main__":
    PLACE.write_text(calls(), "utf-8")
