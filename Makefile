# Two commands do everything: `make run` and `make test`. The rest is for those who build.

SHELL := /bin/bash
.DEFAULT_GOAL := help

PAGE_SOURCES := $(shell find web/src web/public -type f 2>/dev/null) web/index.html web/vite.config.ts web/package.json web/tsconfig.json
PORT ?= 4710

.PHONY: help run test bench dev lint fmt types screenshots web browser clean

help:
	@echo "make run          build what is missing and start the app with demo data"
	@echo "make test         install what the tests need, build, and run everything"
	@echo "make bench        measure, figures go to docs/PERFORMANCE.md by hand"
	@echo "make types        remake web/openapi.json, the client's types and schemas/"
	@echo "make screenshots  retake docs/screenshots from the demo data"
	@echo "make dev          server and page with reload on change"

# --- the page -------------------------------------------------------------------------------------

web/node_modules/.package-lock.json: web/package-lock.json web/package.json
	cd web && npm ci --no-audit --no-fund
	@touch $@

web/dist/index.html: web/node_modules/.package-lock.json $(PAGE_SOURCES)
	cd web && npm run build
	@touch $@

web: web/dist/index.html

# --- run ------------------------------------------------------------------------------------------

run: web
	@echo "Building the server; the first time takes some minutes."
	cargo build --release --locked -p server --bin bright-spoon
	./target/release/bright-spoon serve --demo --port $(PORT)

dev: web
	@trap 'kill 0' EXIT; \
	cargo run -p server --bin bright-spoon -- serve --demo & \
	(cd web && npm run dev) & wait

# --- test -----------------------------------------------------------------------------------------

browser:
	./scripts/install-browser

test: browser web lint
	cd web && npm run --silent test
	cargo test --workspace --locked

lint: web
	cargo fmt --all --check
	cargo clippy --workspace --all-targets --locked -- -D warnings
	cd web && npm run lint && npm run format:check

fmt:
	cargo fmt --all
	cd web && npm run format

# --- made files -----------------------------------------------------------------------------------

types: web/node_modules/.package-lock.json
	@mkdir -p web/dist schemas
	cargo build -p server --bin bright-spoon
	./target/debug/bright-spoon openapi > web/openapi.json
	for format in formula-1 ingredient-1 pantry-1 stack-1 order-1 kitchen-1 batch-1 log-1; do \
	  ./target/debug/bright-spoon schema $$format > schemas/$$format.json; done
	cd web && npm run --silent types

screenshots: browser web
	cargo run -p e2e --bin screenshots -- docs/screenshots

bench: browser web
	cargo bench -p pastry --bench core
	cargo bench -p store --bench log
	cargo bench -p server --bench http
	cargo bench -p server --bench live
	cargo bench -p e2e --bench pour

clean:
	cargo clean
	rm -rf web/dist web/node_modules
