package chance

// Purpose says what a random number decides, so that two decisions at one place are independent.
// The numbers are part of what a listener hears: never renumber one.
type Purpose uint8

const (
	// Sound decides whether a gate step sounds.
	Sound Purpose = 1
)

// Address names one random number. The zero value is a valid address.
type Address struct {
	// Luck is the project's luck.
	Luck uint64
	// Track is the track's id, which stays with it when tracks are reordered.
	Track uint32
	// Part is the part's place in its track: 0 in a melodic track.
	Part uint8
	// Lane is the lane's number within the part.
	Lane uint8
	// Purpose is what is being decided.
	Purpose Purpose
	// N counts the lane's moves since playing started.
	N uint64
}

// Draw returns the number at the address, uniform over [0, 1<<32).
func Draw(a Address) uint32 {
	place := uint32(a.Part)<<16 | uint32(a.Lane)<<8 | uint32(a.Purpose)
	word, _, _, _ := philox(uint32(a.N), uint32(a.N>>32), a.Track, place, uint32(a.Luck), uint32(a.Luck>>32))
	return word
}

// Happens reports whether something with a probability in percent happens at the address.
// 0 or less never happens and 100 or more always does. The share of the 1<<32 numbers
// that happen differs from percent/100 by less than 1/(1<<32).
func Happens(a Address, percent int) bool {
	switch {
	case percent <= 0:
		return false
	case percent >= 100:
		return true
	}
	return uint64(Draw(a))*100 < uint64(percent)<<32
}
