# Jettyfog. Two commands do everything: `make demo` and `make test`.
SHELL := /bin/bash
.SHELLFLAGS := -eu -o pipefail -c
.DEFAULT_GOAL := build

export CGO_ENABLED := 0
# One set of flags for all, so that building, testing and linting share what is compiled.
export GOFLAGS := -trimpath
# Property tests draw the same cases in each run of `make test`, so that a change is what makes it fail; `make soak` draws others.
export RAPID_SEED ?= 1
VERSION := $(shell git describe --tags --always --dirty 2>/dev/null || echo development)
BINARY := bin/jettyfog
PAGE := web/dist/index.html
MODULES := web/node_modules/.package-lock.json
STATICCHECK := go tool -modfile=tools.mod staticcheck
TYPES := web/src/lib/api/generated.ts
BANNER := // Made from the Go types by \`make generate\`. Do not edit.

.PHONY: arm64 build demo serve test compile check unit race soak e2e bench fmt lint lint-go lint-web generate screenshots tools test-tools clean

## build: build the whole program into bin/jettyfog
build: $(BINARY)

## demo: set up, build, and serve the demo
demo: build
	$(BINARY) demo

## serve: set up, build, and serve your own project
serve: build
	$(BINARY) serve

## test: set up, build, and run every check and test
test: test-tools
	@$(MAKE) --no-print-directory -j2 -O compile $(PAGE)
	@$(MAKE) --no-print-directory -j2 -O check lint-go lint-web unit race
	@$(MAKE) --no-print-directory e2e

tools:
	@scripts/need.sh go "install Go 1.26 or later, https://go.dev/dl"
	@scripts/need.sh node "install Node.js 20 or later, https://nodejs.org"
	@scripts/need.sh npm "install npm, it comes with Node.js"

test-tools: tools
	@scripts/install-test-tools.sh

$(MODULES): web/package-lock.json | tools
	npm --prefix web ci --no-audit --no-fund
	@touch $@

$(PAGE): $(MODULES) $(shell find web/src web/public -type f 2>/dev/null) web/index.html web/vite.config.ts web/svelte.config.js web/tsconfig.json
	npm --prefix web run --silent build
	@touch web/dist/.gitkeep

$(BINARY): $(PAGE) $(shell find cmd internal web/embed.go -name '*.go' 2>/dev/null) go.mod go.sum
	go build -ldflags '-s -w -X main.version=$(VERSION)' -o $@ ./cmd/jettyfog

# compile: fetch and compile what needs no page, while that is being built
compile: tools
	go build ./internal/...

## check: formatting of Go, and that generated files are up to date
check: build
	@test -z "$$(gofmt -l $$(git ls-files -co --exclude-standard '*.go'))" || { echo 'run make fmt: Go files are not formatted'; exit 1; }
	@$(MAKE) --no-print-directory types > bin/generated.ts
	@diff -u $(TYPES) bin/generated.ts || { echo 'run make generate: $(TYPES) is out of date'; exit 1; }

## lint: linters and type checks of Go and of the page
lint: lint-go lint-web

lint-go: $(PAGE)
	go vet -tags soak ./...
	$(STATICCHECK) ./...

lint-web: $(MODULES)
	npm --prefix web run --silent lint
	npm --prefix web run --silent check

## unit: tests of Go and of the page, without a browser
unit: test-tools $(PAGE)
	go test ./cmd/... ./internal/...
	npm --prefix web test --silent

## race: tests of everything that runs concurrently, under the race detector
race: $(PAGE)
	CGO_ENABLED=1 go test -race -short ./internal/device ./internal/live ./internal/studio ./internal/server

## soak: new draws of the property tests, 2,000 a test, and ten minutes of random presses in the page
soak: test-tools build
	RAPID_SEED=0 RAPID_CHECKS=2000 go test -count=1 -timeout 4h ./internal/...
	JETTYFOG_SEED=$$RANDOM go test -tags soak -count=1 -v -timeout 20m -run TestRandomPresses ./e2e

## e2e: journeys through the real interface in headless Chromium
e2e: test-tools build
	go test -count=1 -timeout 30m ./e2e/...

## bench: benchmarks, each beside a floor measured in the same run
bench: test-tools build
	go test -run '^$$' -bench . -benchmem ./internal/core/... ./internal/device ./internal/live ./internal/wav
	go test -run '^$$' -bench . -benchtime 1x ./e2e

## arm64: compare waves with those of another machine, under qemu-user (Debian's package)
arm64:
	GOARCH=arm64 CGO_ENABLED=0 go test -exec qemu-aarch64 ./internal/core/wave ./internal/core/chance

## fmt: format all files
fmt: $(MODULES)
	gofmt -w $$(git ls-files -co --exclude-standard '*.go')
	npm --prefix web run --silent fmt

.PHONY: types
types: $(BINARY) $(MODULES)
	@$(BINARY) schema --wire | (cd web && npx --no-install json2ts --ignoreMinAndMaxItems --bannerComment "$(BANNER)")
	@$(BINARY) schema --wire | node web/scripts/bounds.mjs

## generate: make the page's TypeScript types from the Go types
generate: build
	@$(MAKE) --no-print-directory types > bin/generated.ts
	mv bin/generated.ts $(TYPES)

## screenshots: take the pictures in docs/screenshots from the demo
screenshots: test-tools build
	JETTYFOG_SCREENSHOTS=$(CURDIR)/docs/screenshots go test -count=1 -run TestScreenshots ./e2e/...

clean:
	rm -rf bin web/node_modules web/dist/assets web/dist/index.html web/dist/icon.svg
