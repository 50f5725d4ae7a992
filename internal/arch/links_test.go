package arch

import (
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

// link finds where a link of a page leads to, without its place on that page.
var link = regexp.MustCompile(`\]\(([^)#]+)(?:#[^)]*)?\)`)

// Every link and picture of the README and of the pages under docs leads to a file of the project, and every page of the manual is linked from its
// first one.
func TestLinksLeadSomewhere(t *testing.T) {
	root := filepath.Join("..", "..")
	pages, err := filepath.Glob(filepath.Join(root, "docs", "*", "*.md"))
	require.NoError(t, err)
	for _, page := range append(pages, filepath.Join(root, "README.md"), filepath.Join(root, "docs", "how-to-add.md")) {
		text, err := os.ReadFile(page)
		require.NoError(t, err)
		for _, found := range link.FindAllStringSubmatch(string(text), -1) {
			if strings.Contains(found[1], "://") {
				continue
			}
			require.FileExists(t, filepath.Join(filepath.Dir(page), found[1]), "linked from %s", page)
		}
	}
	contents, err := os.ReadFile(filepath.Join(root, "docs", "manual", "README.md"))
	require.NoError(t, err)
	for _, page := range pages {
		if name := filepath.Base(page); name != "README.md" {
			require.Contains(t, string(contents), "]("+name+")")
		}
	}
}
