#!/usr/bin/env bash
# Install, build, migrate, load the demo and serve everything on one port.
set -euo pipefail
cd "$(dirname "$0")/.."
scripts/install.sh run
port=${PORT:-8000}
export PYTHONUNBUFFERED=1
if [ "${HTTPS:-}" = 1 ]; then
  # For the phones on the own network: no demo login there unless it is asked for.
  export COLDWAKE_DEMO=${COLDWAKE_DEMO:-0} COLDWAKE_HTTPS=${HTTPS_PORT:-8443}
else
  export COLDWAKE_DEMO=${COLDWAKE_DEMO:-1}
fi
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
# The demo's boats sail on sockets of their own, and whatever was set up is listened to.
if [ "$COLDWAKE_DEMO" = 1 ]; then
  boat_port=${BOAT_PORT:-$((port + 2))} river_port=${RIVER_PORT:-$((port + 3))}
  PYTHONPATH=core/src .venv/bin/python -m standins.boat --chart demo/charts/sallow_tarn.json \
    --features demo/waters/sallow_tarn.json --depth 14 --port "$boat_port" --with-parent &
  PYTHONPATH=core/src .venv/bin/python -m standins.boat --chart demo/charts/lower_skerrel.json \
    --features demo/waters/lower_skerrel.json --depth 5 --turn 20 --speed 1.79 --current 0.54 --flows 180 \
    --fish 2 --port "$river_port" --with-parent &
  .venv/bin/python server/manage.py load_boat --port "$boat_port" --river-port "$river_port"
fi
.venv/bin/python server/manage.py listen --with-parent &
serve=(.venv/bin/uvicorn config.asgi:application --timeout-graceful-shutdown 2 --log-level warning --no-server-header)
if [ "${HTTPS:-}" != 1 ]; then
  echo "Cold Wake: open http://127.0.0.1:$port"
  exec "${serve[@]}" --host "${HOST:-127.0.0.1}" --port "$port"
fi
names=$(.venv/bin/python server/manage.py make_certificates)
export COLDWAKE_HOSTS=${COLDWAKE_HOSTS:-$names}
tls=${COLDWAKE_VAR:-var}/tls here=${names##*,}
# Without a lock only the page that says how to trust this machine.
"${serve[@]}" --host "${HOST:-0.0.0.0}" --port "$port" & plain=$!
"${serve[@]}" --host "${HOST:-0.0.0.0}" --port "$COLDWAKE_HTTPS" \
  --ssl-certfile "$tls/server.crt" --ssl-keyfile "$tls/server.key" & locked=$!
trap 'kill $plain $locked 2>/dev/null' EXIT INT TERM
echo "Cold Wake on this network: each phone opens http://$here:$port/trust/ once, then https://$here:$COLDWAKE_HTTPS"
wait -n
