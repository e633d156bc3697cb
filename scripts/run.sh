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
# The forecast's stand-in, on a port of its own; it goes when the app goes.
if [ -z "${COLDWAKE_FORECAST:-}" ] && [ "$COLDWAKE_DEMO" = 1 ]; then
  forecast_port=${FORECAST_PORT:-$((port + 1))}
  .venv/bin/python -m standins.forecast --port "$forecast_port" --with-parent &
  export COLDWAKE_FORECAST=http://127.0.0.1:$forecast_port
fi
echo "Cold Wake: open http://127.0.0.1:$port"
exec .venv/bin/uvicorn config.asgi:application --host "${HOST:-127.0.0.1}" --port "$port" \
  --timeout-graceful-shutdown 2 --log-level warning --no-server-header
