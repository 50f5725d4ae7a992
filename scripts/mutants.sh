#!/bin/sh
# Seeds faults in packages, one at a time, runs the tests of the package against each, and says which no test notices:
#   scripts/mutants.sh ./internal/core/route ./internal/core/orders
# Without packages it takes those whose tests are quick; all of the core takes hours.
set -eu
cd "$(dirname "$0")/.."
[ $# -gt 0 ] || set -- ./internal/core/orders ./internal/core/route ./internal/core/oneof
for package; do
	echo "== $package"
	go tool -modfile=tools.mod gremlins unleash "$package" --timeout-coefficient 20 --workers 2 |
		grep -E "LIVED|NOT COVERED|TIMED OUT|Killed|Timed out|efficacy|coverage:"
done
