#!/usr/bin/env bash
# Installs, builds, seeds and serves the demo. Keeps the data of an existing database.
source "$(dirname "$0")/prepare.sh"
install_packages
build
npx tsx src/cli/main.ts seed
host=${HOST:-127.0.0.1}
port=${PORT:-3210}
echo "Enstegon: http://$host:$port"
exec npx next start --hostname "$host" --port "$port"
