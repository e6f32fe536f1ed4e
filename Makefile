# Yoke Swap. `make demo` and `make test` each do all they need on a machine
# with Go and Node; no C compiler is needed.
SHELL := /bin/bash
.ONESHELL:
.SHELLFLAGS := -eu -o pipefail -c
.DEFAULT_GOAL := help

VERSION ?= $(shell git describe --tags --always --dirty 2>/dev/null || echo dev)
GOBUILD = CGO_ENABLED=0 go build -trimpath -ldflags "-s -w -X main.version=$(VERSION)"
# Vet has run before; without what a debugger reads the tests are linked faster,
# and with room for garbage they take a seventh less time.
GOTEST = GOGC=400 GOMEMLIMIT=3GiB go test -vet=off -ldflags=-w
AT_ONCE = $$(grep -rlE 'sync\.|\.Go\(' --include=*.go --exclude=*_test.go core | xargs -n1 dirname | sort -u | sed 's|^|./|')
UI_SOURCES := $(shell find ui -path ui/dist -prune -o -type f -print)
CHROMIUM := /usr/bin/chromium-headless-shell

.PHONY: help demo test test-core test-interface test-nets build release tools chromium references bench soak load screenshots types dev check mutants

help:
	@echo "make demo         build everything and serve the demo"
	@echo "make test         build everything and run all checks"
	@echo "make build        build bin/yokeswap"
	@echo "make dev          serve the demo, and both halves anew with each change"
	@echo "make check        the quick checks of PKG, as ./core/gates/power; all where none is named"
	@echo "make mutants      change lines of the core one by one and see a test fail (half an hour)"
	@echo "make release      build release/ for Linux, Windows and macOS"
	@echo "make soak         run the nets over far more builds (hours)"
	@echo "make bench        run the benchmarks and print the sizes"
	@echo "make load         run the program with large fleets and print how it holds up"
	@echo "make screenshots  take docs/screenshots anew"

tools:
	@command -v go >/dev/null || { echo "Go is missing: install Go 1.26 or later (go.dev/dl)."; exit 1; }
	go version | grep -Eq 'go(1\.(2[6-9]|[3-9][0-9])|[2-9])' || { echo "Go 1.26 or later is needed, found: $$(go version)"; exit 1; }
	command -v node >/dev/null || { echo "Node is missing: install Node 20 or later with npm."; exit 1; }
	command -v npm >/dev/null || { echo "npm is missing: it comes with Node 20 or later."; exit 1; }
	node -e 'process.exit(parseInt(process.versions.node) >= 20 ? 0 : 1)' || { echo "Node 20 or later is needed, found: $$(node --version)"; exit 1; }

node_modules/.installed: package-lock.json
	@$(MAKE) --no-print-directory tools
	echo "== installing npm packages from the lock file"
	npm ci --no-audit --no-fund --loglevel=error
	touch $@

ui/dist/app/index.html: node_modules/.installed $(UI_SOURCES)
	@echo "== building the interface"
	npm run --silent build
	node scripts/notices.mjs

build: tools ui/dist/app/index.html
	@echo "== building bin/yokeswap"
	$(GOBUILD) -o bin/yokeswap ./cmd/yokeswap

demo: build
	@exec bin/yokeswap demo $(DEMO_FLAGS)

types: node_modules/.installed
	@go run ./cmd/yokeswap openapi > ui/openapi.json
	npm run --silent types

chromium: # Debian's, and without a screen
	@if [ ! -x $(CHROMIUM) ]; then
		command -v apt-get >/dev/null || { echo "Chromium is missing: install it as $(CHROMIUM)."; exit 1; }
		echo "== installing Debian's headless Chromium"
		apt-get update -qq && apt-get install -y -qq --no-install-recommends chromium-headless-shell >/dev/null
	fi

references: chromium # what the checks are held against, from Debian
	@if command -v ngspice >/dev/null && command -v units >/dev/null && command -v nec2c >/dev/null && command -v admesh >/dev/null && command -v openscad >/dev/null && command -v glpsol >/dev/null && [ -d /usr/share/kicad/footprints ]; then exit 0; fi
	echo "== installing Debian's ngspice, units, nec2c, admesh, openscad, glpk-utils and kicad-footprints"
	if ! command -v apt-get >/dev/null || ! { apt-get update -qq && apt-get install -y -qq --no-install-recommends ngspice units nec2c admesh openscad glpk-utils kicad-footprints >/dev/null; }; then
		echo "They cannot be installed: the checks against them are left out."
	fi

# All of it compiles one way, as the program does: each package once.
test: export CGO_ENABLED = 0
test: export GOFLAGS += -trimpath
test: # three parts side by side, each part's words together when it ends
	@echo "== all checks: the first words come after some minutes"
	$(MAKE) --no-print-directory -j2 --output-sync=target build references
	$(MAKE) --no-print-directory -j3 --output-sync=target test-core test-interface test-nets

test-core:
	@echo "== Go: format, vet, staticcheck"
	test -z "$$(gofmt -l cmd console core demo docs format internal msp sim store trade ui web)" || { echo "not gofmt'd:"; gofmt -l cmd console core demo docs format internal msp sim store trade ui web; exit 1; }
	go vet ./...
	go build -o bin/staticcheck honnef.co/go/tools/cmd/staticcheck # go tool compiles it anew
	bin/staticcheck ./...
	echo "== Go: what of the core does several things at once"
	if command -v gcc >/dev/null; then CGO_ENABLED=1 $(GOTEST) -race -short $(AT_ONCE); else echo "no C compiler: it runs without -race below"; fi

test-nets:
	@echo "== Go: all packages"
	$(GOTEST) -p 4 ./...

test-interface:
	@echo "== API types in step"
	go run ./cmd/yokeswap openapi | cmp - ui/openapi.json || { echo "ui/openapi.json is behind the API: run make types"; exit 1; }
	npx openapi-typescript ui/openapi.json -o bin/schema.d.ts >/dev/null && cmp bin/schema.d.ts ui/src/api/schema.d.ts || { echo "ui/src/api/schema.d.ts is behind: run make types"; exit 1; }
	echo "== interface: types and unit tests"
	npm run --silent check
	npm run --silent lint
	npm run --silent unit
	echo "== interface: in the browser"
	npm run --silent e2e

dev: node_modules/.installed # http://127.0.0.1:5180
	@node scripts/dev.mjs

PKG ?= ./...
check: # under 20 s for one package: no outside programs, no browser
	@test -z "$$(gofmt -l $$(go list -f '{{.Dir}}' $(PKG)))" || { gofmt -l $$(go list -f '{{.Dir}}' $(PKG)); exit 1; }
	go vet $(PKG)
	go tool staticcheck $(PKG)
	go test -short $(PKG)

mutants: # 300 changes of the core, each judged by its package's tests and those of swap
	@go run ./internal/mutants

soak: build # the nets in their longer form: 5,000 builds pressed, 1,000 with a fact taken away
	@SOAK=1000 go test ./core/plans/swap -run Missing -timeout 4h -v
	SOAK=5000 go test ./web -run EveryPatch -timeout 12h -v
	SOAK=500 go test ./web -run "Whatever|Thousands|AWholePlan" -timeout 4h -v
	SOAK=20000 go test ./core -run NothingStops -timeout 2h
	SOAK=1 go test ./core/plans/decide -run "EveryFit|Generated|Drawn" -v -timeout 1h

bench: build
	@go test -run "^$$" -bench . -benchmem ./core/plans/swap ./core/gates/power ./core/gates/pins ./core/gates/antenna ./core/gates/channels ./core/gates/osd ./core/plans/route ./core/plans/ask ./core/plans/assign ./core/plans/decide ./core/work/day ./msp ./sim ./store ./cmd/yokeswap
	scripts/sizes.sh
	node scripts/repaint.mjs
	node scripts/scroll.mjs

load: build # the whole program with 200, 1,000, 5,000 and 10,000 quads, beside its goals
	@go run ./internal/load

screenshots: build chromium
	@node e2e/screenshots.mjs

release: tools ui/dist/app/index.html
	@mkdir -p release
	for target in linux/amd64 linux/arm64 windows/amd64 windows/arm64 darwin/amd64 darwin/arm64; do
		os=$${target%/*} arch=$${target#*/} suffix=
		[ $$os = windows ] && suffix=.exe
		echo "== release/yokeswap-$$os-$$arch$$suffix"
		GOOS=$$os GOARCH=$$arch $(GOBUILD) -o release/yokeswap-$$os-$$arch$$suffix ./cmd/yokeswap
	done
