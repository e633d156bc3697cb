# Two commands do all: `make run` serves the app with demo data, `make test` runs every test.
.PHONY: run test dev build types lint format check lock coverage bench advice mutants

run:
	@scripts/run.sh

test:
	@scripts/test.sh

# To work on it: the server reloads, and front end and core are swapped in the browser while it runs.
dev:
	@scripts/dev.sh

build:
	@scripts/install.sh run

# What a machine can say of the code without running it; `make format` mends what can be mended.
lint:
	@scripts/install.sh test
	@.venv/bin/ruff check .
	@PYTHONPATH=core/src:server .venv/bin/lint-imports --no-logo
	@.venv/bin/mypy
	@cd web && npx --no-install eslint . && npx --no-install prettier --check --log-level warn src build && npx --no-install vue-tsc --noEmit

format:
	@.venv/bin/ruff check --fix-only --quiet .
	@cd web && npx --no-install prettier --write --log-level warn src build

# What stands between an edit and a commit: a minute or two, without a browser.
check: lint
	@cd web && npx --no-install vitest run
	@SEQUENCES=80 .venv/bin/python -m pytest tests/core tests/server

# The lock files anew, from requirements*.in and web/package.json.
lock:
	@for name in requirements requirements-dev requirements-mutants; do \
	  .venv/bin/uv pip compile --quiet --generate-hashes --no-header $$name.in -o $$name.txt; done
	@cd web && npm install --package-lock-only --no-audit --no-fund

# The schema and the front end's types, made anew from the server and the core.
types:
	@.venv/bin/python server/manage.py spectacular --format openapi-json --file web/openapi.json
	@cd web && npx --no-install openapi-typescript openapi.json -o src/shared/api/schema.d.ts
	@.venv/bin/python scripts/write_calls.py

# Which lines the tests never run, on both sides: .build/coverage and web/coverage.
coverage:
	@scripts/install.sh test
	@SEQUENCES=80 .venv/bin/python -m pytest --timeout=900 tests/core tests/server --cov=coldwake_core --cov=server --cov-report=term:skip-covered --cov-report=html:.build/coverage
	@cd web && npx --no-install vitest run --coverage

# How fast it is, held against its budgets as ratios to the machine's pace; on a quiet machine.
bench:
	@scripts/install.sh test
	@PYTHONPATH=benchmarks:tests:tests/core .venv/bin/python benchmarks/core_speed.py
	@PYTHONPATH=benchmarks:tests:tests/core .venv/bin/python benchmarks/day_speed.py
	@PYTHONPATH=benchmarks:tests:tests/core .venv/bin/python benchmarks/record_speed.py
	@PYTHONPATH=benchmarks:tests:server:core/src:. .venv/bin/python benchmarks/heard_speed.py
	@PYTHONPATH=benchmarks:server:core/src .venv/bin/python benchmarks/archive_speed.py
	@PYTHONPATH=benchmarks:tests:server:core/src .venv/bin/python benchmarks/review_speed.py
	@PYTHONPATH=benchmarks:tests:tests/browser .venv/bin/python benchmarks/browser_speed.py
	@PYTHONPATH=benchmarks:tests:tests/core:tests/browser .venv/bin/python benchmarks/browser_record.py
	@PYTHONPATH=benchmarks:tests .venv/bin/python benchmarks/alone_speed.py

# The bench of advice on the shipped worlds, into docs/advice.md; half an hour, and it can be stopped.
advice:
	@scripts/install.sh test
	@.venv/bin/python scripts/write_advice.py

# Change the core a little, many times, and see whether its tests notice. It takes half an hour.
mutants:
	@scripts/install.sh test
	@[ -x .build/mutants/bin/cosmic-ray ] || (python3 -m venv .build/mutants && .build/mutants/bin/python -m pip install --quiet --require-hashes --no-deps -r requirements-mutants.txt)
	@.venv/bin/python scripts/mutants.py
