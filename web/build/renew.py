"""While the core is worked on (`make dev`): an edit and all that builds on it, imported anew.

Runs in the browser's Python. What an edit leaves alone stays imported: starting the whole core
again takes seconds, and most edits touch a corner of it. Sources are told as {path within the
source tree: text}. Only such modules of Python's library are used as the core uses: the browser
has no others.
"""

import gc
import importlib
import os
import re
import sys
from types import ModuleType

Sources = dict[str, str]

IMPORT = re.compile(r"^from (\.+)([\w.]*) import (\([^)]*\)|.*)", re.MULTILINE)


def module_of(path: str) -> str:
    """Name the module that a path within the source tree holds."""
    return path.removesuffix("/__init__.py").removesuffix(".py").replace("/", ".")


def imports_of(path: str, text: str) -> set[str]:
    """Name what a module imports of its own package: modules, and names that may be modules."""
    found = set()
    for dots, source, names in IMPORT.findall(text):
        up = len(dots) - (1 if path.endswith("__init__.py") else 0)
        parts = module_of(path).split(".")
        base = ".".join(parts[: len(parts) - up] + ([source] if source else []))
        found.add(base)
        found.update(f"{base}.{name}" for name in re.findall(r"\w+", names))
    return found


def building_on(edited: set[str], sources: Sources) -> set[str]:
    """Name what was edited with all that imports it, however far away."""
    needs = {module_of(path): imports_of(path, text) for path, text in sources.items()}
    stale = set(edited)
    while more := {name for name, needed in needs.items() if name not in stale and needed & stale}:
        stale |= more
    return stale


class Workbench:
    """The sources that are imported now, and the place where edited ones are laid."""

    def __init__(self, package: str, imported: Sources, place: str) -> None:
        self.package = package
        self.imported = imported
        self.place = place
        self.laid: Sources = {}

    def take(self, sources: Sources) -> bool:
        """Import anew what differs from what is imported; an edit that fails leaves all as it was.

        Returns False where nothing differs.
        """
        edited = {
            module_of(path)
            for path in sources.keys() | self.imported.keys()
            if sources.get(path) != self.imported.get(path)
        }
        if not edited:
            return False
        stale = building_on(edited, sources)
        standing = {name: module for name, module in sys.modules.items() if self._ours(name)}
        for path, text in sources.items():
            name = module_of(path)
            if (name in stale or name not in standing) and self.laid.get(path) != text:
                there = os.path.join(self.place, path)
                os.makedirs(os.path.dirname(there), exist_ok=True)
                with open(there, "w", encoding="utf-8") as laid:
                    laid.write(text)
                self.laid[path] = text
        for path in self.laid.keys() - sources.keys():
            os.remove(os.path.join(self.place, path))
            del self.laid[path]
        self._look_here_first()
        for name in stale & standing.keys():
            del sys.modules[name]
            # "from package import module" takes what the package names before it looks for a file.
            parent, _, last = name.rpartition(".")
            if parent in standing:
                vars(standing[parent]).pop(last, None)
        collects, writes_none = gc.isenabled(), sys.dont_write_bytecode
        gc.disable()
        # Two edits within a second may be of one length: compiled files could not tell them apart.
        sys.dont_write_bytecode = True
        try:
            for name in sorted(stale & standing.keys() & {module_of(path) for path in sources}):
                importlib.import_module(name)
        except BaseException:
            self._stand_again(standing)
            raise
        finally:
            sys.dont_write_bytecode = writes_none
            if collects:
                gc.enable()
        self.imported = dict(sources)
        return True

    def _ours(self, name: str) -> bool:
        return name.split(".")[0] == self.package

    def _look_here_first(self) -> None:
        """Put the laid tree before wherever the packages were imported from."""
        if self.place not in sys.path:
            sys.path.insert(0, self.place)
        for name, module in list(sys.modules.items()):
            if self._ours(name) and hasattr(module, "__path__"):
                here = os.path.join(self.place, *name.split("."))
                if here not in module.__path__:
                    module.__path__.insert(0, here)
        # What importlib.invalidate_caches() does, but for what the browser has no module of.
        sys.path_importer_cache.clear()

    def _stand_again(self, standing: dict[str, ModuleType]) -> None:
        """Undo a failed import: a package names its modules too, so both must say the same."""
        for name in [name for name in sys.modules if self._ours(name)]:
            del sys.modules[name]
        sys.modules.update(standing)
        for name, module in standing.items():
            parent, _, last = name.rpartition(".")
            if parent in standing:
                setattr(standing[parent], last, module)
