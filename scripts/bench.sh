#!/usr/bin/env bash
# Speed as ratios within one run. Words choose what is measured: npm run bench -- clipping
source "$(dirname "$0")/prepare.sh"
install_packages
find_chromium
build
npx esbuild bench/bench.ts --bundle --platform=node --format=esm --packages=external --alias:@=./src --outfile=tmp/bench.mjs --log-level=error
npx esbuild bench/pass.worker.ts --bundle --platform=node --format=esm --packages=external --alias:@=./src --outfile=tmp/pass.worker.mjs --log-level=error
node tmp/bench.mjs "$@"
