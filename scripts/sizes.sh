#!/usr/bin/env bash
# Prints what the browser loads first and what the server holds in memory, each
# beside its goal. Run by `make bench` after a build.
set -euo pipefail
cd "$(dirname "$0")/.."
first() { (cd ui/dist/app && cat $(grep -o "assets/[^\"]*\.$1" index.html)) | gzip -9 | wc -c; }
all() { cat ui/dist/app/assets/*."$1" | gzip -9 | wc -c; }
printf 'script at first load   %6d bytes gzipped (goal: under 150000)\n' "$(first js)"
printf 'script of all screens  %6d bytes gzipped\n' "$(all js)"
printf 'CSS                    %6d bytes gzipped (goal: under 60000)\n' "$(all css)"
out=$(mktemp)
bin/yokeswap demo --listen 127.0.0.1:0 >"$out" 2>/dev/null &
pid=$!
trap 'kill $pid 2>/dev/null; rm -f "$out"' EXIT
for _ in $(seq 100); do grep -q http "$out" && break; sleep 0.05; done
url=$(grep -o 'http://[^/ ]*' "$out")
for path in /api/board /api/shelf /api/quads/wallower /api/quads/quern/bench /api/board /api/quads/damsel; do curl -fsS "$url$path" >/dev/null; done
printf 'resident with the demo %6d KiB (goal: under 65536)\n' "$(ps -o rss= -p $pid)"
