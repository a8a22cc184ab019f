# Yenzo: `make demo` shows it, `make test` proves it.
PORT ?= 8480
PYTHON := .venv/bin/python
SHELL := /bin/bash

.PHONY: help setup setup-test demo check test sweep template lint bench fuzz chaos lock clean schemas screenshots tables words

help: ## list the targets
	@grep -hE '^[a-z-]+:.*##' $(MAKEFILE_LIST) | sed -E 's/:.*## /\t/' | expand -t 14

setup: ## install what the application needs (Debian packages, virtual environment)
	@scripts/setup.sh runtime

setup-test: # everything of setup, and Chromium and the outside tools that tests measure with
	@scripts/setup.sh test

demo: setup ## start the workshop with demo data; PORT=8480; NAME=second for another; TLS=1 for https; Ctrl-C stops everything
	@exec $(PYTHON) scripts/run_demo.py --port $(PORT) --name $(or $(NAME),demo) $(if $(TLS),--tls)

check: setup-test ## while working: lint, types, the core, and the tests that your change can touch (SINCE=commit)
	@$(MAKE) --no-print-directory lint
	@$(PYTHON) scripts/cluster.py run test -- $(PYTHON) -m pytest -n 2 --dist loadscope --reuse-db \
		tests/core $$($(PYTHON) scripts/touched.py $(SINCE))

test: setup-test ## the proof: lint, types, and each kind of thing once, every story, all about money, files and rights
	@$(MAKE) --no-print-directory --jobs 2 --output-sync=target lint $(if $(ARGS),,template)
	@$(PYTHON) scripts/cluster.py run test -- $(PYTHON) -m pytest -n 2 --dist loadscope $(ARGS)

sweep: setup-test template ## in breadth, for MINUTES=20: pages by size, laws, random documents, Unicode, chaos, races, outside truth
	@SWEEP_MINUTES=$(or $(MINUTES),20) $(PYTHON) scripts/cluster.py run test -- $(PYTHON) -m pytest -n 2 --dist loadscope \
		--no-loadscope-reorder

template: setup-test # load the demo once for all stories, unless it is there for this code
	@$(PYTHON) scripts/cluster.py run test -- $(PYTHON) -m demo.template

lint: setup-test ## formatting, types, imports
	@.venv/bin/ruff check . && .venv/bin/ruff format --check .
	@YENZO_MODE=practice .venv/bin/mypy
	@.venv/bin/lint-imports

bench: setup-test ## measure the budgets and print a table
	@$(PYTHON) scripts/cluster.py run test -- $(PYTHON) -m bench $(ARGS)

fuzz: setup-test ## long runs: 10,000 random documents (ARGS="COUNT FIRST-SEED"), packs under 20 hash seeds, preflight and plates against outside truth
	@$(PYTHON) -m tests.fuzzing $(or $(ARGS),10000)
	@$(PYTHON) -m tests.repeating 20
	@$(PYTHON) -m tests.pressing 300
	@$(PYTHON) -m tests.separating 60

chaos: setup-test ## let customers order while everything breaks (ARGS="MINUTES SEED")
	@$(PYTHON) -m tests.chaos.run $(ARGS)

schemas: setup ## write the published JSON Schemas to docs/schemas
	@for name in setup entries manifest; do $(PYTHON) -m yenzo.core schema $$name > docs/schemas/$$name.json; done

tables: setup ## draw the tables of the database anew in docs/data.md
	@$(PYTHON) scripts/tables.py

screenshots: setup-test ## take the pictures of docs/screenshots from a running demo
	@$(PYTHON) scripts/screenshots.py

words: setup ## take new sentences into the catalogues, and list what has no translation
	@$(PYTHON) scripts/words.py update && $(PYTHON) scripts/words.py missing

lock: ## resolve requirements/*.in into the pinned, hashed *.txt
	@for name in boot app dev; do .venv/boot/bin/uv pip compile --quiet --generate-hashes --no-header --no-annotate \
		--python-version 3.11 --only-binary :all: requirements/$$name.in -o requirements/$$name.txt; done

clean: ## stop the clusters and remove everything that was generated (demo data included)
	@/usr/bin/python3 scripts/cluster.py destroy demo; /usr/bin/python3 scripts/cluster.py destroy test
	@rm -rf .run .venv .pytest_cache .mypy_cache .ruff_cache .hypothesis .import_linter_cache
