# Two commands do all: `make run` serves the app with demo data, `make test` runs every test.
.PHONY: run test build types bench mutants

run:
	@scripts/run.sh

test:
	@scripts/test.sh

build:
	@scripts/install.sh run

# How fast it is, held against its budgets as ratios to the machine's pace; on a quiet machine.
bench:
	@scripts/install.sh test
	@PYTHONPATH=benchmarks:tests:tests/core .venv/bin/python benchmarks/core_speed.py
	@PYTHONPATH=benchmarks:tests .venv/bin/python benchmarks/browser_speed.py

# The schema and the front end's types, made anew from the server and the core.
types:
	@.venv/bin/python server/manage.py spectacular --format openapi-json --file web/openapi.json
	@cd web && npx --no-install openapi-typescript openapi.json -o src/shared/api/schema.d.ts

# Change the core a little, many times, and see whether its tests notice. It takes half an hour.
mutants:
	@scripts/install.sh test
	@[ -x .build/mutants/bin/cosmic-ray ] || (python3 -m venv .build/mutants && .build/mutants/bin/python -m pip install --quiet --require-hashes -r requirements-mutants.txt)
	@.venv/bin/python scripts/mutants.py
