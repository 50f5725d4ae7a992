#!/usr/bin/env bash
# Installs what only the tests need: Chromium, midicsv and a C compiler for the race detector.
set -euo pipefail

declare -A package=([chromium]=chromium [midicsv]=midicsv [gcc]="gcc libc6-dev")
missing=()
for tool in "${!package[@]}"; do
  command -v "$tool" >/dev/null || missing+=(${package[$tool]})
done
((${#missing[@]})) || exit 0

command -v apt-get >/dev/null || { echo "The tests need these Debian packages, and there is no apt-get to install them: ${missing[*]}" >&2; exit 1; }
as_root=()
((EUID == 0)) || as_root=(sudo)
echo "Installing for the tests: ${missing[*]}"
"${as_root[@]}" apt-get update -qq
DEBIAN_FRONTEND=noninteractive "${as_root[@]}" apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null
