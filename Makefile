# Two commands do all: `make run` serves the app with demo data, `make test` runs every test.
.PHONY: run test build

run:
	@scripts/run.sh

test:
	@scripts/test.sh

build:
	@scripts/install.sh run
