package preset_test

import (
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/preset"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/core/theory"
)

func demoPlace(lane score.LaneName) score.LaneAddress {
	return score.LaneAddress{PartAddress: score.PartAddress{Track: 1}, Lane: lane}
}

// Sixty-two presets ship: each is valid, has words and a name of its own, can be used in the demo and is heard there, and no two of a kind sound alike. None is called after
// anything but our own scenario's things; the words are plain.
func TestShipped(t *testing.T) {
	all := preset.Shipped()
	require.Len(t, all, 62)
	p := testkit.Demo()
	names, sounds := map[string]bool{}, map[string]string{}
	for _, kept := range all {
		require.NoError(t, kept.Validate(), kept.Name)
		require.False(t, names[kept.Name], kept.Name)
		names[kept.Name] = true
		require.True(t, strings.HasSuffix(kept.Words, "."), kept.Name)
		at := demoPlace(score.Velocity)
		if kept.Kind == preset.KitKind {
			at.PartAddress = score.PartAddress{Track: 3, Part: p.Tracks[2].Parts()[0].ID}
		}
		heard, err := kept.Hear(p, at)
		require.NoError(t, err, kept.Name)
		require.NotEmpty(t, heard.Notes, kept.Name)
		form, err := json.Marshal(heard.Notes)
		require.NoError(t, err)
		if kept.Kind != preset.TuningKind {
			require.Empty(t, sounds[string(form)], kept.Name)
		}
		sounds[string(form)] = kept.Name
		data, err := preset.Encode(kept)
		require.NoError(t, err)
		decoded, err := preset.Decode(data)
		require.NoError(t, err)
		require.Equal(t, kept, decoded)
		found, ok := preset.Find(kept.Kind, kept.Name)
		require.True(t, ok)
		require.Equal(t, kept, found)
	}
	_, ok := preset.Find(preset.KitKind, "none")
	require.False(t, ok)
}

// The meters that shipped kits are said to be in are those in which their first part comes round: by hand, in eighths.
func TestMetersOfShippedKits(t *testing.T) {
	const eighth = score.TicksPerQuarter / 2
	for name, eighths := range map[string]score.Tick{
		"Quay at noon": 8, "Halyards in three": 6, "Five bollards": 10, "Seven buoys": 7, "Swell in six": 6, "Nine gulls": 9, "Eleven knots": 11, "Ferry engine": 8,
	} {
		kept, found := preset.Find(preset.KitKind, name)
		require.True(t, found)
		gate := kept.Pattern.Parts[0].Lanes.Gate
		require.Equal(t, eighths*eighth, score.Tick(gate.Length)*gate.Rate.Ticks(), name)
	}
}

// Whatever is kept of a random project can be kept, written as a file, read, and used in another: there it plays what it played, where nothing but the place is other.
func TestWhatIsKeptCanBeUsed(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		track := rapid.SampledFrom(p.Tracks).Draw(t, "of track")
		pattern := rapid.SampledFrom(track.Patterns).Draw(t, "of pattern")
		at := score.LaneAddress{
			PartAddress: score.PartAddress{Track: track.ID, Pattern: pattern.ID, Part: rapid.SampledFrom(pattern.Parts).Draw(t, "of part").ID},
			Lane:        rapid.SampledFrom(score.LaneNames()).Draw(t, "of lane"),
		}
		kind := rapid.SampledFrom(preset.Kinds()).Draw(t, "of kind")
		kept, err := preset.Of(p, kind, "Kept", at, score.Recipe{Lane: score.Velocity, Lowest: 1, Highest: 9})
		if err != nil {
			require.ErrorContains(t, err, "it must be", "what is not there cannot be kept")
			return
		}
		data, err := preset.Encode(kept)
		require.NoError(t, err)
		read, err := preset.Decode(data)
		require.NoError(t, err)
		other, to := testkit.Buoy(), demoPlace(at.Lane)
		if kept.Layer != nil {
			_, err := read.EditFor(other, to)
			require.ErrorContains(t, err, "it must be a field track")
			other.Tracks = append(other.Tracks, score.TrackOf(other, score.FieldKind, "Field", score.Pattern{Name: "A", Parts: []score.Part{score.NewFieldPart()}}))
			to.Track = other.Tracks[1].ID
		}
		edit, err := read.EditFor(other, to)
		require.NoError(t, err)
		used, undo, err := score.Apply(other, edit)
		if kind == preset.TuningKind || kind == preset.ScaleKind || kind == preset.WeightsKind { // which may not go with the other's key or lane
			if err != nil {
				return
			}
		}
		require.NoError(t, err)
		back, _, err := score.Apply(used, undo)
		require.NoError(t, err)
		require.Equal(t, other, back)
		if kept.Layer != nil {
			require.Equal(t, []score.FieldLayer{*kept.Layer}, used.FieldLayers)
			is := used.Tracks[1].Parts()[0].Field.Layer(kept.Layer.Kind)
			is.ID, is.Name = 1, "Kept"
			require.Equal(t, *kept.Layer, is)
		}
		switch kind {
		case preset.PartKind:
			part := used.Tracks[0].Parts()[0]
			part.ID = at.Part
			require.Equal(t, *kept.Part, part)
		case preset.LaneKind:
			require.Equal(t, kept.Lane.Value, *used.Tracks[0].Parts()[0].Lanes.Lane(at.Lane))
		case preset.PatternKind:
			on := used.Tracks[0]
			if track.Kind == score.FieldKind { // it goes with no steps
				on = used.Tracks[len(used.Tracks)-1]
			}
			require.Equal(t, kept.Pattern.Parts, on.Parts())
		case preset.KitKind:
			require.Equal(t, kept.Pattern.Parts, used.Tracks[len(used.Tracks)-1].Parts())
		}
	})
}

// Conditions about tracks are not kept, as other projects have other tracks; a pattern goes behind the one that is written and plays; weights are kept within the
// bounds of the lane that gets them.
func TestHowPresetsAreUsed(t *testing.T) {
	p := testkit.Demo()
	part := &p.Tracks[0].Parts()[0]
	part.Details = map[int]score.StepDetail{2: {Condition: "track 2 sounded and pass 1 of 2"}, 3: {Condition: "track 3 sounded"}}
	kept, err := preset.Of(p, preset.PatternKind, "Bells", demoPlace(score.Pitch), score.Recipe{})
	require.NoError(t, err)
	require.Equal(t, map[int]score.StepDetail{2: {Condition: "pass 1 of 2"}}, kept.Pattern.Parts[0].Details)
	edit, err := kept.EditFor(p, demoPlace(score.Pitch))
	require.NoError(t, err)
	used, _, err := score.Apply(p, edit)
	require.NoError(t, err)
	require.Len(t, used.Tracks[0].Patterns, 2)
	require.Equal(t, "Bells", used.Tracks[0].Pattern(used.Tracks[0].Playing).Name)
	onKit := demoPlace(score.Pitch)
	onKit.PartAddress = score.PartAddress{Track: 3, Part: p.Tracks[2].Parts()[0].ID}
	edit, err = kept.EditFor(p, onKit)
	require.NoError(t, err)
	used, _, err = score.Apply(p, edit)
	require.NoError(t, err)
	require.Equal(t, []any{4, "Bells", score.Melodic}, []any{len(used.Tracks), used.Tracks[3].Name, used.Tracks[3].Kind})

	loud, _ := preset.Find(preset.WeightsKind, "Loud or barely")
	edit, err = loud.EditFor(p, demoPlace(score.Probability))
	require.NoError(t, err)
	used, _, err = score.Apply(p, edit)
	require.NoError(t, err)
	require.Equal(t, 100, used.Tracks[0].Parts()[0].Lanes.Probability.Weights[0].Highest)
	_, err = loud.EditFor(p, demoPlace(score.Gate))
	require.EqualError(t, err, "lane is gate; it must be another than the gate lane, which takes no weights: select one")

	rolls, _ := preset.Find(preset.RollKind, "Gusts")
	heard, err := rolls.Hear(p, demoPlace(score.Pitch))
	require.NoError(t, err)
	require.NotEqual(t, len(play.Render(p, 0, heard.End, nil)), 0)
	_, err = rolls.Hear(p, score.LaneAddress{PartAddress: score.PartAddress{Track: 77}})
	require.ErrorIs(t, err, score.ErrUnknownTrack)
}

// Files that are none, of another kind, or of two things at once are refused in a sentence.
func TestPresetsThatAreRefused(t *testing.T) {
	for file, want := range map[string]string{
		`{`: "not valid JSON",
		`{"format":"jettyfog project","version":1,"preset":{"kind":"roll","name":"a"}}`:                                        "not a preset file",
		`{"format":"jettyfog preset","version":1,"preset":{"kind":"roll","name":"a"}}`:                                         "preset is not of its kind; it must be just a roll",
		`{"format":"jettyfog preset","version":1,"preset":{"kind":"tune","name":"a"}}`:                                         `kind is "tune"; it must be one of`,
		`{"format":"jettyfog preset","version":1,"preset":{"kind":"scale","name":"","scale":{"scale":"major"}}}`:               "name",
		`{"format":"jettyfog preset","version":1,"preset":{"kind":"scale","name":"a","scale":{"scale":"none"}}}`:               "key.scale",
		`{"format":"jettyfog preset","version":1,"preset":{"kind":"lane","name":"a","lane":{"name":"depth","value":{}}}}`:      "lane.value.length is 0",
		`{"format":"jettyfog preset","version":1,"preset":{"kind":"weights","name":"a","weights":{"lane":"gate","lines":[]}}}`: "lines",
	} {
		_, err := preset.Decode([]byte(file))
		require.ErrorContains(t, err, want, file)
	}
	for _, kind := range []preset.Kind{preset.KitKind, preset.LaneKind, preset.WeightsKind, "tune"} {
		_, err := preset.Of(testkit.Buoy(), kind, "a", demoPlace(score.Mod3), score.Recipe{})
		require.Error(t, err, kind)
	}
	waves, _ := preset.Find(preset.LaneKind, "Waves")
	waves.Lane.Name = "depth"
	require.ErrorContains(t, waves.Validate(), "lane.name")
	p := testkit.Buoy()
	p.Key = theory.Key{Scale: theory.Chromatic, Tuning: &theory.Tuning{Name: "Ten", Pitches: []string{"120.", "240.", "360.", "480.", "600.", "720.", "840.", "960.", "1080.", "2/1"}}}
	foghorn, _ := preset.Find(preset.ScaleKind, "Foghorn fifths")
	_, err := foghorn.Hear(p, demoPlace(score.Pitch))
	require.ErrorContains(t, err, "key.notes")
}
