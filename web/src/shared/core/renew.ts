// While the core is being worked on (`make dev`): what was edited and all that builds on it, imported anew.
export const RENEW = `
import gc, json, os, re, sys
gc.disable()
place = "/core-live"
texts = {
    name.removesuffix("/__init__.py").removesuffix(".py").replace("/", "."): (name, text)
    for name, text in json.loads(sources).items()
}
def known(module):
    try:
        return sys.modules[module].__loader__.get_source(module)
    except Exception:
        return None
stale = {module for module, (_, text) in texts.items() if module in sys.modules and known(module) != text}
for name, text in texts.values():
    path = place + "/" + name
    os.makedirs(os.path.dirname(path), exist_ok=True)
    try:
        with open(path) as there:
            same = there.read() == text
    except FileNotFoundError:
        same = False
    if not same:
        with open(path, "w") as target:
            target.write(text)
def imports(module, name, text):
    found = set()
    for dots, source, names in re.findall(r"^from (\\.+)([\\w.]*) import (\\([^)]*\\)|.*)", text, re.M):
        up = len(dots) - (1 if name.endswith("__init__.py") else 0)
        base = module.split(".")
        base = ".".join(base[: len(base) - up] + ([source] if source else []))
        found.add(base)
        found.update(base + "." + part for part in re.findall(r"\\w+", names))
    return found
needs = {module: imports(module, name, text) for module, (name, text) in texts.items()}
stale.add("coldwake_core.bridge")
while True:
    more = {module for module, all_of_it in needs.items() if module not in stale and all_of_it & stale}
    if not more:
        break
    stale |= more
sys.path_importer_cache.clear()
if place not in sys.path:
    sys.path.insert(0, place)
for module in list(sys.modules):
    paths = getattr(sys.modules[module], "__path__", None) if module.split(".")[0] == "coldwake_core" else None
    if paths is not None and place + "/" + module.replace(".", "/") not in list(paths):
        paths.insert(0, place + "/" + module.replace(".", "/"))
for module in stale:
    sys.modules.pop(module, None)
from coldwake_core.bridge import Bridge
bridge = Bridge()
gc.enable()
`
