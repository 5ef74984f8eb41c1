#!/usr/bin/env bash
# Installs, builds, seeds and serves the demo. Keeps the data of an existing database.
source "$(dirname "$0")/prepare.sh"
install_packages
build
npx tsx src/cli/main.ts seed
NODE_ENV=production exec node --import tsx src/server/main.ts
