package chance

// Address names one random number. The zero value is a valid address.
type Address struct {
	// Luck is the project's luck.
	Luck uint64
	// Track is the track's id, which stays with it when tracks are reordered.
	Track uint32
	// Part is the part's id, which stays with it when parts are reordered.
	Part uint8
	// Lane is the lane's number within the part.
	Lane uint8
	// Purpose is what is being decided.
	Purpose Purpose
	// Sub tells apart decisions of one purpose at one place and count, as of several notes of a step.
	Sub uint8
	// N counts up; Uses says what for each purpose.
	N uint64
}

// Draw returns the number at the address, uniform over [0, 1<<32).
func Draw(a Address) uint32 {
	word, _, _, _ := Draw4(a)
	return word
}

// Draw4 returns four independent numbers at the address, the first of which is Draw's.
func Draw4(a Address) (w0, w1, w2, w3 uint32) {
	place := uint32(a.Sub)<<24 | uint32(a.Part)<<16 | uint32(a.Lane)<<8 | uint32(a.Purpose)
	return philox(uint32(a.N), uint32(a.N>>32), a.Track, place, uint32(a.Luck), uint32(a.Luck>>32))
}

// Below returns a whole number from 0 to n-1, each equally likely but for less than n/(1<<32).
func Below(a Address, n int) int {
	return int(uint64(Draw(a)) * uint64(n) >> 32)
}

// Happens reports whether something with a probability in percent happens at the address.
// 0 or less never happens and 100 or more always does. The share of the 1<<32 numbers
// that happen differs from percent/100 by less than 1/(1<<32).
func Happens(a Address, percent int) bool { return HappensIn(a, percent*100) }

// HappensIn is Happens for a probability in ten-thousandths.
func HappensIn(a Address, tenThousandths int) bool {
	switch {
	case tenThousandths <= 0:
		return false
	case tenThousandths >= 10_000:
		return true
	}
	return uint64(Draw(a))*10_000 < uint64(tenThousandths)<<32
}
