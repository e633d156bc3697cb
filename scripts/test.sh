#!/usr/bin/env bash
# Install what the tests need and run them all: lint, types, core, server, front end, browser.
set -euo pipefail
cd "$(dirname "$0")/.."
# The shell without windows takes three quarters of the whole browser's time; that one does as well.
if [ ! -x /usr/bin/chromium-headless-shell ]; then
  as_root=""; [ "$(id -u)" = 0 ] || as_root=sudo
  apt_install() { $as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "$@" > /dev/null; }
  { $as_root apt-get update -qq && apt_install chromium-headless-shell; } || [ -x /usr/bin/chromium ] || apt_install chromium
fi
scripts/install.sh test
COLDWAKE_VAR=$(mktemp -d); export COLDWAKE_VAR
trap 'rm -rf "$COLDWAKE_VAR"' EXIT
# The same examples at every run; `make check` looks at new ones.
export CI="${CI:-1}"
step() { printf '\n== %s\n' "$1"; }
python_checks() {
  step "Lint (Python)";  .venv/bin/ruff check .
  step "Rooms";          PYTHONPATH=core/src:server .venv/bin/lint-imports --no-logo
  step "Types (Python)"; .venv/bin/mypy
}
web_checks() {
  cd web
  step "Lint (front end)";  npx --no-install eslint .
  npx --no-install prettier --check --log-level warn src build
  step "Types (front end)"; npx --no-install vue-tsc --noEmit
}
# Each keeps one core busy: side by side.
(set -e; python_checks) > "$COLDWAKE_VAR/python.log" 2>&1 & python_pid=$!
(set -e; web_checks) > "$COLDWAKE_VAR/web.log" 2>&1 & web_pid=$!
failed=0
wait $python_pid || failed=1; cat "$COLDWAKE_VAR/python.log"
wait $web_pid || failed=1; cat "$COLDWAKE_VAR/web.log"
[ $failed = 0 ] || { echo "A check failed: see above." >&2; exit 1; }
step "Front-end unit tests"; (cd web && npx --no-install vitest run)
step "Core, server and browser tests"
.venv/bin/python -m pytest "$@"
