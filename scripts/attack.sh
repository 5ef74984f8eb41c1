#!/usr/bin/env bash
# Attacks a built server: kills, malformed input, bombs, strangers, full and damaged disks. One table of what came of it.
source "$(dirname "$0")/prepare.sh"
install_packages
build
exec npx tsx attack/main.ts "$@"
