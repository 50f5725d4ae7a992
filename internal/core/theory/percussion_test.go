package theory_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"gitlab.com/gomidi/midi/v2/gm"

	"jettyfog/internal/core/theory"
)

// The key map of General MIDI against that of a MIDI library from the registry, key by key.
func TestPercussionMatchesTheReference(t *testing.T) {
	keys := map[string]gm.DrumKey{
		"Acoustic Bass Drum": gm.DrumKey_AcousticBassDrum, "Bass Drum 1": gm.DrumKey_BassDrum1, "Side Stick": gm.DrumKey_SideStick,
		"Acoustic Snare": gm.DrumKey_AcousticSnare, "Hand Clap": gm.DrumKey_HandClap, "Electric Snare": gm.DrumKey_ElectricSnare,
		"Low Floor Tom": gm.DrumKey_LowFloorTom, "Closed Hi-Hat": gm.DrumKey_ClosedHiHat, "High Floor Tom": gm.DrumKey_HighFloorTom,
		"Pedal Hi-Hat": gm.DrumKey_PedalHiHat, "Low Tom": gm.DrumKey_LowTom, "Open Hi-Hat": gm.DrumKey_OpenHiHat,
		"Low-Mid Tom": gm.DrumKey_LowMidTom, "Hi-Mid Tom": gm.DrumKey_HiMidTom, "Crash Cymbal 1": gm.DrumKey_CrashCymbal1,
		"High Tom": gm.DrumKey_HighTom, "Ride Cymbal 1": gm.DrumKey_RideCymbal1, "Chinese Cymbal": gm.DrumKey_ChineseCymbal,
		"Ride Bell": gm.DrumKey_RideBell, "Tambourine": gm.DrumKey_Tambourine, "Splash Cymbal": gm.DrumKey_SplashCymbal,
		"Cowbell": gm.DrumKey_Cowbell, "Crash Cymbal 2": gm.DrumKey_CrashCymbal2, "Vibraslap": gm.DrumKey_Vibraslap,
		"Ride Cymbal 2": gm.DrumKey_RideCymbal2, "Hi Bongo": gm.DrumKey_HiBongo, "Low Bongo": gm.DrumKey_LowBongo,
		"Mute Hi Conga": gm.DrumKey_MuteHiConga, "Open Hi Conga": gm.DrumKey_OpenHiConga, "Low Conga": gm.DrumKey_LowConga,
		"High Timbale": gm.DrumKey_HighTimbale, "Low Timbale": gm.DrumKey_LowTimbale, "High Agogo": gm.DrumKey_HighAgogo,
		"Low Agogo": gm.DrumKey_LowAgogo, "Cabasa": gm.DrumKey_Cabasa, "Maracas": gm.DrumKey_Maracas,
		"Short Whistle": gm.DrumKey_ShortWhistle, "Long Whistle": gm.DrumKey_LongWhistle, "Short Guiro": gm.DrumKey_ShortGuiro,
		"Long Guiro": gm.DrumKey_LongGuiro, "Claves": gm.DrumKey_Claves, "Hi Wood Block": gm.DrumKey_HiWoodBlock,
		"Low Wood Block": gm.DrumKey_LowWoodBlock, "Mute Cuica": gm.DrumKey_MuteCuica, "Open Cuica": gm.DrumKey_OpenCuica,
		"Mute Triangle": gm.DrumKey_MuteTriangle, "Open Triangle": gm.DrumKey_OpenTriangle,
	}
	require.Len(t, keys, theory.HighestPercussion-theory.LowestPercussion+1)
	for note := range 128 {
		name, ok := theory.PercussionName(note)
		require.Equal(t, note >= 35 && note <= 81, ok)
		if ok {
			require.Equal(t, note, int(keys[name].Key()), name)
		}
	}
}
