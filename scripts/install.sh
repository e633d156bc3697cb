#!/usr/bin/env bash
# Install what is missing and build what is stale. Argument: "run", or "test" for the tests' tools too.
set -euo pipefail
cd "$(dirname "$0")/.."
kind=${1:-run}
requirements=requirements.txt
[ "$kind" = test ] && requirements=requirements-dev.txt

python3 -c 'import sys; sys.exit(sys.version_info < (3, 11))' || { echo "Python 3.11 or newer is needed." >&2; exit 1; }
node -e 'process.exit(+(process.versions.node.split(".")[0] < 20))' || { echo "Node 20 or newer is needed." >&2; exit 1; }

[ -x .venv/bin/python ] || python3 -m venv .venv
mkdir -p .build
stamp=.build/$requirements
npm_pid=""
if ! cmp -s web/package-lock.json .build/package-lock.json || [ ! -d web/node_modules ]; then
  (cd web && npm ci --silent --no-audit --no-fund) & npm_pid=$!
fi
if ! cmp -s "$requirements" "$stamp" || ! .venv/bin/python -c 'import django, coldwake_core' 2>/dev/null; then
  # The lock names every package there is to have: nothing is left for pip to resolve, or to find newer.
  .venv/bin/python -m pip install --quiet --disable-pip-version-check --require-hashes --no-deps -r "$requirements"
  # The core and the server are imported from where they stand.
  .venv/bin/python - <<'P'
import pathlib, site
here = pathlib.Path.cwd()
pathlib.Path(site.getsitepackages()[0], "coldwake.pth").write_text(f"{here/'core/src'}\n{here/'server'}\n")
P
  cp "$requirements" "$stamp"
fi

if [ -n "$npm_pid" ]; then
  wait "$npm_pid"
  cp web/package-lock.json .build/package-lock.json
fi

# Build the front end when a source of it, or of the core it carries, has changed.
sources=$( (cd web && find src public build index.html vite.config.ts package-lock.json -type f -print0; cd .. && find core/src -name '*.py' -print0 | sed -z 's|^|../|') | sort -z | (cd web && xargs -0 sha256sum) | sha256sum)
if [ "$sources" != "$(cat .build/web 2>/dev/null || true)" ] || [ ! -f web/dist/index.html ]; then
  (cd web && COLDWAKE_BUILD=${sources:0:12} npm run --silent build -- --logLevel error)
  echo "$sources" > .build/web
fi
