package smf

// Divisions that Jettyfog writes.
const (
	// DefaultDivision is what most programs like best.
	DefaultDivision = 960
	// ExactDivision is the resolution of the core: nothing is rounded.
	ExactDivision = 20160
)

// MaxDivision is the largest number of ticks a quarter note that the header has room for.
const MaxDivision = 1<<15 - 1

// File is the contents of a Standard MIDI File.
type File struct {
	// Format is 0 for one track that holds all, 1 for several that play together, 2 for several that are
	// pieces of their own. Only 0 and 1 are written.
	Format int
	// Division is the number of ticks in a quarter note, 1 to MaxDivision; or in a frame, 1 to 255.
	Division int
	// Frames is 0, or how many SMPTE frames there are in a second: 24, 25, 29 for 30/1.001, or 30. Files with
	// frames are only read.
	Frames int
	// Tracks are the track chunks: exactly one in format 0.
	Tracks []Track
}

// Track is the events of a track chunk, ordered by tick. The end of track is not among them.
type Track struct {
	Events []Event
	// End is the tick of the end of track; a track never ends before its last event.
	End uint32
}

// Event is a channel message or a meta event at a tick.
type Event struct {
	Tick uint32
	// Data is a whole channel message with its status byte, or a meta event or a system exclusive message
	// from its FF or F0 byte on, its length included.
	Data []byte
}
