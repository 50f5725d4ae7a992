package theory

// LowestPercussion and HighestPercussion bound the keys of the percussion key map of General MIDI Level 1.
const (
	LowestPercussion  = 35
	HighestPercussion = 81
)

// percussion names the keys from LowestPercussion up, after the percussion key map of General MIDI Level 1
// (MIDI Manufacturers Association, 1991).
var percussion = [...]string{
	"Acoustic Bass Drum", "Bass Drum 1", "Side Stick", "Acoustic Snare", "Hand Clap", "Electric Snare",
	"Low Floor Tom", "Closed Hi-Hat", "High Floor Tom", "Pedal Hi-Hat", "Low Tom", "Open Hi-Hat",
	"Low-Mid Tom", "Hi-Mid Tom", "Crash Cymbal 1", "High Tom", "Ride Cymbal 1", "Chinese Cymbal",
	"Ride Bell", "Tambourine", "Splash Cymbal", "Cowbell", "Crash Cymbal 2", "Vibraslap",
	"Ride Cymbal 2", "Hi Bongo", "Low Bongo", "Mute Hi Conga", "Open Hi Conga", "Low Conga",
	"High Timbale", "Low Timbale", "High Agogo", "Low Agogo", "Cabasa", "Maracas",
	"Short Whistle", "Long Whistle", "Short Guiro", "Long Guiro", "Claves", "Hi Wood Block",
	"Low Wood Block", "Mute Cuica", "Open Cuica", "Mute Triangle", "Open Triangle",
}

// PercussionName returns what General MIDI plays at a key of a kit; ok is false outside its key map.
func PercussionName(note int) (name string, ok bool) {
	if note < LowestPercussion || note > HighestPercussion {
		return "", false
	}
	return percussion[note-LowestPercussion], true
}
