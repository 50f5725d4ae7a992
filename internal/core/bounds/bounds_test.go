package bounds_test

import (
	"strconv"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/bounds"
)

type cell struct {
	Chance int    `json:"chance" jsonschema:"minimum=0,maximum=100"`
	Next   *cell  `json:"next,omitempty"`
	Free   int    `json:"free"`
	Named  string `json:"named" jsonschema:"minLength=1,maxLength=3"`
}

type grid struct {
	Address
	Exactly []int          `json:"exactly" jsonschema:"minItems=2,maxItems=2"`
	Cells   []cell         `json:"cells,omitempty" jsonschema:"maxItems=3"`
	By      map[int]cell   `json:"by,omitempty"`
	Depth   *int           `json:"depth,omitempty" jsonschema:"minimum=-3,maximum=3"`
	Key     uint8          `json:"key" jsonschema:"maximum=127"`
	Left    int            `json:"left,omitempty" jsonschema:"minimum=2,maximum=4"`
	Own     int            `json:"own" bounds:"own" jsonschema:"minimum=5,maximum=6"`
	Other   map[string]int `json:"other,omitempty"`
	hidden  int            `jsonschema:"maximum=1"`
}

// Address is embedded.
type Address struct {
	Part int `json:"part" jsonschema:"minimum=0,maximum=255"`
}

func TestWhatIsOutOfItsBounds(t *testing.T) {
	four, zero := 4, 0
	whole := func(change func(*grid)) *grid {
		g := &grid{Exactly: []int{1, 2}, hidden: 9}
		change(g)
		return g
	}
	for want, change := range map[string]func(*grid){
		"": func(g *grid) { g.Depth, g.Own, g.Key = &zero, 99, 127 },
		"the number of exactly is 1; it must be 2":       func(g *grid) { g.Exactly = g.Exactly[:1] },
		"the number of cells is 4; it must be at most 3": func(g *grid) { g.Cells = make([]cell, 4) },
		"cells[1].chance is 101; it must be 0 to 100":    func(g *grid) { g.Cells = []cell{{}, {Chance: 101}} },
		"cells[0].next.next.chance is -1; it must be":    func(g *grid) { g.Cells = []cell{{Next: &cell{Next: &cell{Chance: -1}}}} },
		"by.7.chance is 200; it must be 0 to 100":        func(g *grid) { g.By = map[int]cell{7: {Chance: 200}} },
		"depth is 4; it must be -3 to 3":                 func(g *grid) { g.Depth = &four },
		"key is 128; it must be at most 127":             func(g *grid) { g.Key = 128 },
		"left is 1; it must be 2 to 4":                   func(g *grid) { g.Left = 1 },
		"part is 256; it must be 0 to 255":               func(g *grid) { g.Part = 256 },
	} {
		v, broken := bounds.For[grid]().Check(whole(change))
		require.Equal(t, want != "", broken, want)
		if broken {
			require.Contains(t, v.Field+" is "+strconv.FormatInt(v.Got, 10)+"; it must be "+v.Allowed(), want)
		}
	}
}

func TestBoundsOfAField(t *testing.T) {
	least, most := bounds.For[cell]().Of("chance")
	require.Equal(t, [2]int{0, 100}, [2]int{least, most})
	require.Panics(t, func() { bounds.For[cell]().Of("free") })
}
