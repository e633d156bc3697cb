# Two commands do all: `make run` serves the app with demo data, `make test` runs every test.
.PHONY: run test build types

run:
	@scripts/run.sh

test:
	@scripts/test.sh

build:
	@scripts/install.sh run

# The schema and the front end's types, made anew from the server and the core.
types:
	@.venv/bin/python server/manage.py spectacular --format openapi-json --file web/openapi.json
	@cd web && npx --no-install openapi-typescript openapi.json -o src/shared/api/schema.d.ts
