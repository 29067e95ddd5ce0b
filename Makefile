# Metronix. Two commands set everything up: make demo, make test.
SHELL := /bin/bash
.SHELLFLAGS := -euo pipefail -c
.DEFAULT_GOAL := help

BIN := bin/metronix
VERSION := $(shell git describe --always --dirty 2>/dev/null || echo dev)
GO_FILES := $(shell find cmd core internal web -name '*.go' -not -path '*/node_modules/*') go.mod go.sum
WEB_FILES := $(shell find web/src web/public -type f) web/index.html web/package-lock.json web/vite.config.ts
ADDRESS ?= 127.0.0.1:8080
DATA ?= data/demo.db
AIR := go run github.com/air-verse/air@v1.63.0
STATICCHECK := go run honnef.co/go/tools/cmd/staticcheck@v0.8.2

LANES := lane-web lane-go lane-browser

# The checks and tests compile SQLite without optimising it: ten seconds instead of two minutes.
check check-go test $(LANES): export CGO_CFLAGS := -O0

# The tests of a store wait for a disk thousands of times, and on a machine whose disk is slow for nothing else: where memory
# serves files, has room and lets programs start, theirs lie there. make deep and make bench are for the disk.
MEMORY := $(shell grep -q ' /dev/shm [^ ]* [^ ]*noexec' /proc/mounts || { [ -w /dev/shm ] && \
  [ "$$(df --output=avail -k /dev/shm | tail -1)" -gt 6000000 ] && echo /dev/shm; })
test $(LANES): export TMPDIR := $(or $(MEMORY),$(TMPDIR))

.PHONY: help demo dev build release test deep mutants check checks types bench pictures chromium engines clean

help: ## say what can be made
	@grep -hE '^[a-z]+:.*##' Makefile | sed -E 's/:[^#]*## /\t/' | expand -t 12

demo: $(BIN) ## build everything and serve it with a made-up workshop
	@$(BIN) demo --listen $(ADDRESS) --data $(DATA)

# Both halves reload by themselves: the program is built anew when Go changes, the page is patched when the front end does.
dev: web/node_modules/.made ## work on it with hot reload of both halves, at http://localhost:5173
	@mkdir -p data bin
	@trap 'kill 0' EXIT; \
	  $(AIR) --tmp_dir data/air --build.cmd "go build -o bin/metronix-dev ./cmd/metronix" --build.bin bin/metronix-dev \
	    --build.args_bin "demo,--listen,127.0.0.1:8080,--data,data/dev.db" --build.include_ext go,json \
	    --build.exclude_dir web/node_modules,web/src,data,bin,docs,e2e --build.send_interrupt true --build.kill_delay 2s & \
	  cd web && npx vite --strictPort

build: $(BIN) ## build the one program

web/node_modules/.made: web/package-lock.json web/package.json
	@echo '— installing the packages of the front end'
	cd web && npm ci --ignore-scripts --no-audit --no-fund
	@touch $@

# The bench as it goes into the browser, and what Go itself brings for it.
BENCH_FILES := $(shell find cmd/bench core internal -name '*.go' -not -name '*_test.go') go.mod go.sum
web/gen/bench.wasm: $(BENCH_FILES)
	@echo '— the bench for the browser'
	@mkdir -p web/gen
	@GOOS=js GOARCH=wasm go build -trimpath -buildvcs=false -ldflags '-s -w' -o web/gen/new ./cmd/bench
	@cp "$$(go env GOROOT)/lib/wasm/wasm_exec.js" web/gen/
	@if cmp -s web/gen/new $@; then rm web/gen/new; else mv web/gen/new $@; fi

web/dist/index.html: web/node_modules/.made web/gen/bench.wasm $(WEB_FILES)
	@echo '— building the front end'
	cd web && npx vite build --logLevel warn
	@touch $@

$(BIN): web/dist/index.html $(GO_FILES)
	@echo '— building the program (the database takes about two minutes the first time)'
	go build -ldflags '-X main.version=$(VERSION)' -o $@ ./cmd/metronix

chromium:
	@if ! command -v chromium-headless-shell >/dev/null || ! command -v certutil >/dev/null; then \
	  echo '— installing Chromium without a window, its fonts and what tells it whom to trust from Debian packages, for the browser tests'; \
	  apt-get update && DEBIAN_FRONTEND=noninteractive apt-get install -y --no-install-recommends chromium-headless-shell fonts-liberation libnss3-tools; \
	fi

engines:
	@if ! command -v firefox-esr WebKitWebDriver Xvfb >/dev/null || ! ls /usr/lib/*/webkit2gtk-4.1/MiniBrowser >/dev/null 2>&1; then \
	  echo '— installing two other browser engines and a screen without a monitor from Debian packages'; \
	  apt-get update && DEBIAN_FRONTEND=noninteractive apt-get install -y --no-install-recommends firefox-esr webkit2gtk-driver xvfb; \
	fi

check: check-go check-web ## formatting, linting and types of both languages
	@$(call timed,staticcheck,$(STATICCHECK) ./...)
	@$(call timed,the OpenAPI document,REDOCLY_TELEMETRY=off npx --yes @redocly/cli@2.77.0 lint --format=summary internal/api/openapi.json)

check-go: web/dist/index.html
	@bad=$$(gofmt -l cmd core internal e2e web/*.go); if [ -n "$$bad" ]; then echo "not gofmt'ed: $$bad"; exit 1; fi
	@$(call timed,go vet,go vet ./...)
	@$(call timed,the weight of the bench,$(WEIGH))

BENCH_MOST := 1700000
BROTLI := const { brotliCompressSync: pack, constants: c } = require("zlib"); \
  console.log(pack(require("fs").readFileSync("web/gen/bench.wasm"), { params: { [c.BROTLI_PARAM_QUALITY]: 9 } }).length)
WEIGH := size=$$(node -e '$(BROTLI)') && echo "  $$size bytes under Brotli, of at most $(BENCH_MOST)" && [ $$size -le $(BENCH_MOST) ]

check-web: web/node_modules/.made web/gen/bench.wasm
	@$(call timed,eslint,cd web && npx eslint .)
	@$(call timed,prettier,cd web && npx prettier --check --log-level warn .)
	@$(call timed,vue-tsc,cd web && npx vue-tsc --noEmit -p tsconfig.json)
	@echo '— the types made from the OpenAPI document'
	@cd web && npx openapi-typescript ../internal/api/openapi.json -o ../data/schema.gen.ts >/dev/null && \
	  diff -q ../data/schema.gen.ts src/shared/api/schema.gen.ts

# Three lanes side by side: what one waits for, another uses. Each says what took how long; the last line sums up.
test: chromium web/dist/index.html ## everything: checks, Go tests with the race detector, front-end tests, browser tests
	@rm -rf data/times; mkdir -p data/times
	@begun=$$SECONDS; $(MAKE) --no-print-directory -j3 --output-sync=target $(LANES); \
	  echo '— where the time went, in seconds, three lanes side by side:'; \
	  cat data/times/* | sort -rn | awk '{printf "%s  ", $$0} END {print ""}'; \
	  echo "— everything passed in $$((SECONDS - begun)) s"

.PHONY: $(LANES) check-go check-web
lane-web: check-web
	@$(call timed,front-end tests,cd web && npx vitest run)

# The core does one thing at a time (internal/archtest holds it to that), pictures of fifty megapixels are unpacked, the
# memory of large workshops is measured, hundreds of simulated workshops are run and hundreds of archives read, the imports of all
# packages looked at: all that without the race detector, which makes it ten times slower. Of the server and the store it gets the tests
# that do several things at once; make deep gives it all of them.
HEAVY := metronix/internal/photo metronix/internal/large metronix/internal/demo metronix/internal/keeping metronix/internal/archtest
SERVED := internal/api internal/store
AT_ONCE = ^($$(grep -lE 'go func|sync\.[MRW]|errgroup|\.Go\(' $(SERVED:%=%/*_test.go) | xargs grep -L '^//go:build !race' | \
  xargs grep -hoE '^func Test[A-Za-z]+' | cut -c 6- | sort -u | paste -sd'|'))$$
lane-go: check-go
	@$(call timed,what does several things at once with the race detector,some="$(AT_ONCE)"; [ "$$some" != "^()$$" ] && nice -n 5 go test -race -timeout 40m -run "$$some" $(SERVED:%=./%))
	@$(call timed,other Go tests with the race detector,nice -n 5 go test -race -timeout 40m $$(go list ./cmd/... ./internal/... ./web/... | grep -vxF $(HEAVY:%=-e %) $(SERVED:%=-e metronix/%)))
	@$(call timed,the rest of the server and the store,nice -n 5 go test -timeout 40m -skip "$(AT_ONCE)" $(SERVED:%=./%))
	@$(call timed,tests of the core and of pictures and of many jobs,$(MARKED) ./core/... $(HEAVY))
	@$(call timed,docs/checks.md,go run ./internal/checks/page -compare $(FOUND) docs/checks.md)

# The tests in the browser wait more than they reckon, so more of them run at once than there are cores; they leave the
# first place to the lane that does one thing after another.
lane-browser:
	@$(call timed,browser tests,nice -n 5 go test -count=1 -timeout 40m -parallel 6 ./e2e)

# timed runs a command and writes down how long it took: its name, the command.
define timed
echo '— $(1)'; mkdir -p data/times; at=$$SECONDS; ( $(2) ); \
  echo "$$((SECONDS - at)) $(1)" > "data/times/$$(echo '$(1)' | tr ' /' '__')"
endef

# The values from outside that the tests of the rules check are written down by them, and a page is made of that.
FOUND := data/checks
MARKED := rm -rf $(FOUND) && mkdir -p $(FOUND) && METRONIX_CHECKS=$(CURDIR)/$(FOUND) go test -count=1 -timeout 40m

checks: export CGO_CFLAGS := -O0
checks: ## make docs/checks.md anew
	$(MARKED) -run AgainstTheOutside ./core/... >/dev/null && go run ./internal/checks/page $(FOUND) docs/checks.md

FUZZ := core/measure:FuzzParseLength internal/report:FuzzReadGaugeCSV internal/probe:FuzzParseLine internal/instrument:FuzzTakeLine internal/store:FuzzStoredHappening \
  internal/compute:FuzzRun internal/wire:FuzzCheckSheet internal/wire:FuzzHappeningKeepsWhatItSays internal/api:FuzzRequests internal/seal:FuzzRead
INPUTS ?= 1000000
SEEDS ?= 100000

# What makes programs for other machines, and starts them here: Debian's compilers, and qemu and wine for the tests.
RELEASE_TOOLS := gcc-mingw-w64-x86-64 gcc-aarch64-linux-gnu libc6-dev-arm64-cross qemu-user wine64 openssl zip unzip
RELEASE ?= 0.$(shell git rev-list --count HEAD 2>/dev/null || echo 0)

release: web/dist/index.html ## what a workshop installs: Debian packages, a Windows program and plain archives, in data/release, each started once
	@for p in $(RELEASE_TOOLS); do dpkg -s $$p >/dev/null 2>&1 || missing="$$missing $$p"; done; \
	  [ -z "$$missing" ] || { echo "— installing$$missing"; apt-get update -q && apt-get install -yq --no-install-recommends $$missing; }
	packaging/release.sh $(RELEASE) data/release
	METRONIX_RELEASE=$(CURDIR)/data/release go test -count=1 -v ./packaging

deep: export CGO_CFLAGS := -O0
deep: web/dist/index.html chromium engines ## the long tests: every engine, sequence, state and size; rounds of kills, full disks, backups; random jobs; fuzzing (hours)
	@echo '— random jobs against a simulated engine'
	METRONIX_DEEP=1 go test -count=1 -timeout 60m -v ./core/walks
	go test -count=1 -timeout 60m ./core/job -run Nonsense -rapid.checks 20000
	@echo '— the store under kills, full disks and backups'
	METRONIX_DEEP=1 go test -count=1 -timeout 60m ./internal/store
	go test -race -count=1 -timeout 60m $(SERVED:%=./%)
	@echo '— simulated screens, network, disk and program'
	@mkdir -p data; go test -c -o data/simulated.test ./internal/api; cd internal/api; for ((n=0; n<$(SEEDS); n+=1000)); do \
	  METRONIX_SEED=$$n-$$((n+999)) ../../data/simulated.test -test.timeout 60m -test.run Simulated | tail -n 30 && echo "$$((n+1000)) runs" || exit 1; done
	@echo '— a workshop with 100,000 jobs'
	METRONIX_DEEP=1 go test -count=1 -timeout 120m -v ./internal/large
	@echo '— the built program in a real browser'
	METRONIX_DEEP=1 go test -count=1 -timeout 180m -v ./e2e -run 'TestNothingLiesOverAControl|TestKilled|TestTwoPrograms|TestOtherBrowserEngines|TestTheModuleSays|TestTwelve|TestEveryPage|TestAWholeJobOver|TestWholeJob|TestRounds|TestPressedTwice|TestPictures'
	@for f in $(FUZZ); do echo "— $(INPUTS) inputs for $${f#*:}"; \
	  go test ./$${f%:*} -run '^$$' -fuzz "^$${f#*:}$$" -fuzztime $(INPUTS)x -fuzzminimizetime 10x | tail -n 2; done

# Each change of the code of a package is tried against that package's own tests, in a checkout without node_modules. The
# random walks are a package of their own, and so are never run. DIFF=main tries what differs from a branch alone.
GREMLINS := go run github.com/go-gremlins/gremlins/cmd/gremlins@v0.6.0
MUTATED ?= $(filter-out core/walks,$(patsubst %/,%,$(wildcard core/*/))) internal/wire

mutants: export CGO_CFLAGS := -O0
mutants: ## what the tests of the core do not notice: MUTATED=core/wear for one package, DIFF=main for a change (hours)
	@rm -rf data/mutants data/mutated; mkdir -p data/mutants; git clone -q . data/mutated
	@for p in $(MUTATED); do echo "— $$p"; ( cd data/mutated && $(GREMLINS) unleash --workers 1 --timeout-coefficient 10 \
	  $(if $(DIFF),--diff $(DIFF)) -o "$(CURDIR)/data/mutants/$${p//\//_}.json" "./$$p" >"$(CURDIR)/data/mutants/$${p//\//_}.txt" 2>&1 ) || \
	  tail -n 5 "data/mutants/$${p//\//_}.txt"; done
	@rm -rf data/mutated; go run ./internal/checks/mutants data/mutants

types: web/node_modules/.made ## make the OpenAPI document and the front end's types anew
	go test ./internal/api -run TestDocument -update
	go test ./internal/wire -run TestTheFrontEndsTestsKnowEveryGear -update
	cd web && npx openapi-typescript ../internal/api/openapi.json -o src/shared/api/schema.gen.ts

bench: web/dist/index.html chromium ## the figures of docs/performance.md
	go test -run '^$$' -bench . -benchmem ./core/...
	go test -run '^$$' -bench . -benchmem ./internal/compute ./internal/store ./internal/photo
	go test -run '^$$' -bench . -benchtime 3s ./internal/api
	go test -run '^$$' -bench . ./e2e

pictures: web/dist/index.html chromium ## take docs/screenshots anew from the demo
	go test -count=1 ./e2e -run TestPictures -pictures ../docs/screenshots

clean: ## remove what was built
	rm -rf bin data web/node_modules web/gen
	find web/dist -mindepth 1 ! -name .gitkeep -delete
