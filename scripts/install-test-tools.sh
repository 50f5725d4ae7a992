#!/usr/bin/env bash
# Installs what only the tests need: Chromium, a C compiler for the race detector, and programs and a library of others that read what
# comes out: midicsv, sox, liblo-tools and python3-mido.
set -euo pipefail

declare -A package=([chromium]=chromium [midicsv]=midicsv [sox]=sox [oscdump]=liblo-tools [gcc]="gcc libc6-dev")
missing=()
for tool in "${!package[@]}"; do
  command -v "$tool" >/dev/null || missing+=(${package[$tool]})
done
/usr/bin/python3 -c "import mido" 2>/dev/null || missing+=(python3-mido)
((${#missing[@]})) || exit 0

command -v apt-get >/dev/null || { echo "The tests need these Debian packages, and there is no apt-get to install them: ${missing[*]}" >&2; exit 1; }
as_root=()
((EUID == 0)) || as_root=(sudo)
echo "Installing for the tests: ${missing[*]}"
"${as_root[@]}" apt-get update -qq
DEBIAN_FRONTEND=noninteractive "${as_root[@]}" apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null
