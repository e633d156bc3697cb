#!/usr/bin/env bash
# Work on it: the server reloads, the front end is swapped while it runs, and so is the core in the browser.
set -euo pipefail
cd "$(dirname "$0")/.."
scripts/install.sh test
export COLDWAKE_DEMO=1 PYTHONUNBUFFERED=1 PORT=${PORT:-8000} WEB_PORT=${WEB_PORT:-5173}
.venv/bin/python server/manage.py migrate --verbosity 0
.venv/bin/python server/manage.py load_demo
trap 'kill 0' EXIT
# The page is of the build that the server knows: no new version to take over.
COLDWAKE_BUILD=$(cat web/dist/version.txt)
export COLDWAKE_BUILD
.venv/bin/uvicorn config.asgi:application --port "$PORT" --reload --reload-dir server --reload-dir core/src \
  --timeout-graceful-shutdown 1 --log-level warning &
echo "Cold Wake, to be worked on: open http://localhost:$WEB_PORT"
(cd web && npx --no-install vite --clearScreen false)
