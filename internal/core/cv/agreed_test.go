package cv

import (
	"encoding/json"
	"flag"
	"os"
	"testing"

	"github.com/stretchr/testify/require"
)

var update = flag.Bool("update", false, "write the samples on which the page has to agree")

// agreed is a line as pages are told of it, and its samples at 48 kHz as shares of 10 V.
type agreed struct {
	Segments []agreedSegment `json:"segments"`
	Samples  []float32       `json:"samples"`
}

type agreedSegment struct {
	At    int64   `json:"at"`
	Takes int64   `json:"takes"`
	Start float64 `json:"start"`
	End   float64 `json:"end"`
	Bend  float64 `json:"bend"`
}

// The page renders the same samples as files have, which its own test checks against what stands in testdata.
func TestAgreedWithThePage(t *testing.T) {
	lines := []Line{Steady(0, 0), Steady(0, 1)}
	lines[0].to(333_333, 5, 0, 0)
	lines[0].to(1_000_000, 0, 0, 0) // at a sample's very moment
	lines[0].to(1_500_001, 4.2, 700_000, 0)
	lines[0].to(1_900_000, -3, 100_000, 0)
	lines[1].to(250_000, 4, 2_000_000, exponential)
	lines[1].to(1_750_000, 1.5, 500_000, exponential)
	calibration, err := Calibrate([]VoltageReading{{Asked: -20_000, Read: -20_500}, {Asked: 0, Read: 120}, {Asked: 20_000, Read: 19_000}})
	require.NoError(t, err)
	var all struct {
		Lines       []agreed    `json:"lines"`
		Calibration Calibration `json:"calibration"`
		Corrected   []Corrected `json:"corrected"`
	}
	for _, wanted := range []float64{-5, -2.05, -1, 0.012, 0.5, 1.9, 4} {
		all.Calibration, all.Corrected = calibration, append(all.Corrected, Corrected{wanted, calibration.Sent(wanted)})
	}
	for _, line := range lines {
		a := agreed{Samples: make([]float32, 144)}
		line.Samples(0, 48_000, 0, 10, a.Samples, 1)
		for i, s := range line {
			segment := agreedSegment{At: s.From, Start: s.Start, End: s.End, Bend: s.Bend}
			if i+1 < len(line) {
				segment.Takes = s.To - s.From
			}
			a.Segments = append(a.Segments, segment)
		}
		all.Lines = append(all.Lines, a)
	}
	data, err := json.Marshal(all)
	require.NoError(t, err)
	const file = "testdata/agreed.json"
	if *update {
		require.NoError(t, os.MkdirAll("testdata", 0o755))
		require.NoError(t, os.WriteFile(file, append(data, '\n'), 0o600))
	}
	want, err := os.ReadFile(file)
	require.NoError(t, err)
	require.Equal(t, string(want), string(data)+"\n")
}
