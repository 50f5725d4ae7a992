package arch

import (
	"go/parser"
	"go/token"
	"io/fs"
	"path"
	"path/filepath"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

const module = "jettyfog/"

// mayImport lists every package of ours and which others of ours it may import. Tests may import
// testkit and memory as well, and stand outside these rules otherwise.
var mayImport = map[string][]string{
	"cmd/jettyfog":            {"internal/core/log", "internal/core/midi", "internal/core/score", "internal/core/smf", "internal/core/stage", "internal/core/take", "internal/core/theory", "internal/device", "internal/health", "internal/input", "internal/live", "internal/osc", "internal/schema", "internal/server", "internal/shelf", "internal/store", "internal/studio", "internal/core/cv", "internal/voltages", "internal/wav", "web"},
	"e2e":                     {},
	"internal/arch":           {},
	"internal/core/button":    {},
	"internal/core/chance":    {},
	"internal/core/follow":    {"internal/core/score"},
	"internal/core/entry":     {"internal/core/play", "internal/core/score", "internal/core/theory"},
	"internal/core/bounds":    {},
	"internal/core/oneof":     {},
	"internal/core/log":       {"internal/core/chance", "internal/core/midi", "internal/core/play", "internal/core/route", "internal/core/score", "internal/core/stage"},
	"internal/core/orders":    {"internal/core/chance", "internal/core/score"},
	"internal/core/period":    {"internal/core/field", "internal/core/chance", "internal/core/orders", "internal/core/score"},
	"internal/core/midi":      {"internal/core/score", "internal/core/theory"},
	"internal/core/cv":        {"internal/core/midi", "internal/core/play", "internal/core/route", "internal/core/score", "internal/core/take", "internal/core/theory"},
	"internal/core/route":     {"internal/core/midi", "internal/core/play", "internal/core/score", "internal/core/theory"},
	"internal/core/play":      {"internal/core/field", "internal/core/stage", "internal/core/wave", "internal/core/chance", "internal/core/midi", "internal/core/orders", "internal/core/score", "internal/core/theory"},
	"internal/core/score":     {"internal/core/bounds", "internal/core/oneof", "internal/core/theory"},
	"internal/core/smf":       {"internal/core/midi", "internal/core/play", "internal/core/route", "internal/core/score", "internal/core/take", "internal/core/theory"},
	"internal/core/field":     {"internal/core/chance", "internal/core/score"},
	"internal/core/take":      {"internal/core/entry", "internal/core/log", "internal/core/midi", "internal/core/oneof", "internal/core/play", "internal/core/route", "internal/core/score", "internal/core/stage", "internal/core/theory"},
	"internal/core/preset":    {"internal/core/bounds", "internal/core/play", "internal/core/score", "internal/core/theory"},
	"internal/core/stage":     {"internal/core/wave", "internal/core/bounds", "internal/core/score", "internal/core/theory"},
	"internal/core/testkit":   {"internal/core/midi", "internal/core/play", "internal/core/score", "internal/core/stage", "internal/core/theory"},
	"internal/core/theory":    {},
	"internal/core/wave":      {"internal/core/chance", "internal/core/score"},
	"internal/device":         {"internal/core/midi", "internal/core/score", "internal/output"},
	"internal/health":         {},
	"internal/input":          {"internal/core/bounds", "internal/core/midi", "internal/core/score", "internal/device"},
	"internal/live":           {"internal/core/wave", "internal/core/button", "internal/core/follow", "internal/core/log", "internal/core/midi", "internal/core/play", "internal/core/route", "internal/core/score", "internal/core/stage", "internal/core/take", "internal/output"},
	"internal/memory":         {"internal/core/cv", "internal/core/preset", "internal/core/score", "internal/core/stage", "internal/core/take", "internal/studio"},
	"internal/osc":            {"internal/core/stage", "internal/core/cv", "internal/core/midi", "internal/core/score", "internal/core/theory", "internal/device", "internal/output"},
	"internal/output":         {"internal/core/midi", "internal/core/play", "internal/core/score"},
	"internal/output/conform": {"internal/core/midi", "internal/core/score", "internal/output"},
	"internal/schema":         {"internal/core/stage", "internal/core/cv", "internal/core/log", "internal/core/preset", "internal/core/score", "internal/core/take", "internal/core/theory", "internal/input", "internal/server", "internal/studio"},
	"internal/server":         {"internal/core/field", "internal/core/wave", "internal/core/bounds", "internal/core/cv", "internal/wav", "internal/core/entry", "internal/core/log", "internal/core/midi", "internal/core/period", "internal/core/play", "internal/core/preset", "internal/core/score", "internal/core/smf", "internal/core/stage", "internal/core/take", "internal/core/theory", "internal/device", "internal/health", "internal/input", "internal/live", "internal/osc", "internal/output", "internal/shelf", "internal/studio", "internal/voltages"},
	"internal/shelf":          {"internal/core/score", "internal/core/take"},
	"internal/store":          {"internal/core/cv", "internal/core/log", "internal/core/midi", "internal/core/play", "internal/core/preset", "internal/core/score", "internal/core/stage", "internal/core/take", "internal/core/theory", "internal/health", "internal/studio"},
	"internal/studio":         {"internal/core/score", "internal/core/stage"},
	"internal/voltages":       {"internal/core/cv", "internal/core/midi", "internal/core/play", "internal/core/score", "internal/output"},
	"internal/wav":            {"internal/core/cv", "internal/core/score"},
	"web":                     {},
}

// forbiddenInCore would let the core see the world, and give other notes in another place or time.
var forbiddenInCore = []string{"time", "os", "net", "net/http", "context", "log", "log/slog", "sync", "sync/atomic", "math/rand", "math/rand/v2"}

// onlyIn names the one package that may use a library.
var onlyIn = map[string]string{
	"gorm.io/":                       "internal/store",
	"github.com/glebarez/sqlite":     "internal/store",
	"github.com/go-chi/chi/":         "internal/server",
	"github.com/coder/websocket":     "internal/server",
	"github.com/alecthomas/kong":     "cmd/jettyfog",
	"github.com/go-json-experiment/": "internal/core/score",
	"github.com/gofrs/flock":         "internal/store",
	"github.com/invopop/jsonschema":  "internal/schema",
	"golang.org/x/sys/":              "internal/device",
	"pgregory.net/rapid":             "internal/core/testkit",
}

func TestImports(t *testing.T) {
	root, err := filepath.Abs("../..")
	require.NoError(t, err)
	seen := map[string]bool{}
	walk := func(file string, entry fs.DirEntry, err error) error {
		if err != nil {
			return err
		}
		if entry.IsDir() {
			if name := entry.Name(); name == "node_modules" || strings.HasPrefix(name, ".") {
				return filepath.SkipDir
			}
			return nil
		}
		if !strings.HasSuffix(file, ".go") {
			return nil
		}
		relative, err := filepath.Rel(root, file)
		if err != nil {
			return err
		}
		here := path.Dir(filepath.ToSlash(relative))
		seen[here] = true
		allowed, listed := mayImport[here]
		require.True(t, listed, "%s is not listed in internal/arch: give the package its line", here)
		if strings.HasSuffix(file, "_test.go") {
			return nil
		}
		for _, imported := range importsOf(t, file) {
			if own, ok := strings.CutPrefix(imported, module); ok {
				require.Contains(t, allowed, own, "%s may not import %s", here, own)
			}
			if strings.HasPrefix(here, "internal/core/") {
				require.NotContains(t, forbiddenInCore, imported, "%s is of the core", here)
			}
			for library, only := range onlyIn {
				if strings.HasPrefix(imported, library) {
					require.Equal(t, only, here, "%s belongs in %s only", library, only)
				}
			}
		}
		return nil
	}
	require.NoError(t, filepath.WalkDir(root, walk))
	for listed := range mayImport {
		require.True(t, seen[listed], "%s is listed and does not exist", listed)
	}
}

func importsOf(t *testing.T, file string) []string {
	parsed, err := parser.ParseFile(token.NewFileSet(), file, nil, parser.ImportsOnly)
	require.NoError(t, err)
	var imports []string
	for _, spec := range parsed.Imports {
		imported, err := strconv.Unquote(spec.Path.Value)
		require.NoError(t, err)
		imports = append(imports, imported)
	}
	return imports
}
