#!/usr/bin/env bash
# Install, build, migrate, load the demo and serve everything on one port.
set -euo pipefail
cd "$(dirname "$0")/.."
scripts/install.sh run
export COLDWAKE_DEMO=${COLDWAKE_DEMO:-1} PYTHONUNBUFFERED=1
port=${PORT:-8000}
# Before an upgrade changes the data, a copy of them (var/backups; manage.py restore puts it back).
.venv/bin/python server/manage.py backup --if-upgrading
.venv/bin/python server/manage.py migrate --verbosity 0
.venv/bin/python server/manage.py clearsessions
[ "$COLDWAKE_DEMO" = 1 ] && .venv/bin/python server/manage.py load_demo
echo "Cold Wake: open http://127.0.0.1:$port"
exec .venv/bin/uvicorn config.asgi:application --host "${HOST:-127.0.0.1}" --port "$port" \
  --timeout-graceful-shutdown 2 --log-level warning --no-server-header
