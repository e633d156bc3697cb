// While the core is being worked on (`make dev`): its sources as they now stand, imported anew.
export const RENEW = `
import gc, json, os, sys
gc.disable()
place = "/core-live"
for name, text in json.loads(sources).items():
    path = place + "/" + name
    os.makedirs(os.path.dirname(path), exist_ok=True)
    try:
        with open(path) as known:
            same = known.read() == text
    except FileNotFoundError:
        same = False
    if not same:
        with open(path, "w") as target:
            target.write(text)
if place not in sys.path:
    sys.path.insert(0, place)
sys.path_importer_cache.clear()
for name in [name for name in sys.modules if name.split(".")[0] == "coldwake_core"]:
    del sys.modules[name]
from coldwake_core.bridge import Bridge
bridge = Bridge()
gc.enable()
`
