#!/usr/bin/env bash
# Makes the pictures anew that others are measured by; it takes hours: npm run references -- 1024 bench/references kitchen
source "$(dirname "$0")/prepare.sh"
install_packages
npm run -s kernel
npx esbuild bench/references/make.ts --bundle --platform=node --format=esm --packages=external --alias:@=./src --outfile=tmp/references.mjs --log-level=error
node tmp/references.mjs "$@"
