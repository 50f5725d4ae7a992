#!/bin/sh
# Seeds faults in packages, one at a time, runs the tests of the package against each, and says which no test notices:
#   scripts/mutants.sh ./internal/core/route ./internal/core/orders
# Without packages it takes those whose tests are quick; all of the core takes hours. To learn the share that is noticed in
# less time, seed only in a sample of the lines, the same ones each time, say one in ten:
#   ONE_IN=10 scripts/mutants.sh ./internal/core/play
# It works on the last commit, in a copy, so that one can go on working beside it.
set -eu
cd "$(dirname "$0")/.."
[ $# -gt 0 ] || set -- ./internal/core/orders ./internal/core/route ./internal/core/oneof
copy=$(mktemp -d)
trap 'rm -rf "$copy"' EXIT
git clone -q . "$copy"
[ ! -d web/dist ] || cp -r web/dist "$copy/web/"
cd "$copy"
if [ "${ONE_IN:-1}" -gt 1 ]; then
	# The seeder can be told to keep to what changed since a commit: so one is made in which the sample is missing. It looks
	# for the names of files as they are in the package, and takes changes that touch for one.
	commit() { git -c user.name=mutants -c user.email=mutants@localhost commit -qam "$1"; }
	git ls-files "internal/*.go" | while read -r file; do
		awk -v n="$ONE_IN" 'BEGIN { srand(7) } { if (int(rand() * n) > 0) print }' "$file" >"$file.part"
		mv "$file.part" "$file"
	done
	commit "Without the sample"
	git checkout -q HEAD~1 -- .
	commit "With it"
	git config diff.relative true
	git config diff.context 0
	sample="--diff HEAD~1"
fi
go build -modfile=tools.mod -o gremlins github.com/go-gremlins/gremlins/cmd/gremlins
for package; do
	echo "== $package"
	# shellcheck disable=SC2086 # two words, or none
	(cd "$package" && "$copy/gremlins" unleash "$PWD" --timeout-coefficient "${TIMES:-20}" --workers "${WORKERS:-2}" ${sample:-}) |
		grep -E "LIVED|NOT COVERED|TIMED OUT|Killed|Timed out|efficacy|coverage:"
done
