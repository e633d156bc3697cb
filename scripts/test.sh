#!/usr/bin/env bash
# Install what the tests need and run them all: lint, types, core, server, front end, browser.
set -euo pipefail
cd "$(dirname "$0")/.."
if [ ! -x /usr/bin/chromium ]; then
  as_root=""; [ "$(id -u)" = 0 ] || as_root=sudo
  $as_root apt-get update -qq
  $as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends chromium > /dev/null
fi
scripts/install.sh test
COLDWAKE_VAR=$(mktemp -d); export COLDWAKE_VAR
trap 'rm -rf "$COLDWAKE_VAR"' EXIT
# The same examples at every run; `make check` looks at new ones.
export CI="${CI:-1}"
step() { printf '\n== %s\n' "$1"; }
step "Lint (Python)";        .venv/bin/ruff check .
step "Rooms";                PYTHONPATH=core/src:server .venv/bin/lint-imports --no-logo
step "Types (Python)";       .venv/bin/mypy
step "Lint (front end)";     (cd web && npx --no-install eslint . && npx --no-install prettier --check --log-level warn src build)
step "Types (front end)";    (cd web && npx --no-install vue-tsc --noEmit)
step "Front-end unit tests"; (cd web && npx --no-install vitest run)
step "Core, server and browser tests"
.venv/bin/python -m pytest "$@"
