package chance

import "math/bits"

// Multipliers and key increments of Philox4x32, from table 2 and section 3.3 of the SC'11 paper.
const (
	multiplier0 = 0xD2511F53
	multiplier1 = 0xCD9E8D57
	weyl0       = 0x9E3779B9 // the golden ratio
	weyl1       = 0xBB67AE85 // the square root of three, less one
	rounds      = 10
)

// philox enciphers a 128-bit counter with a 64-bit key by ten rounds of Philox4x32.
// It works on scalars because arrays cost half as much again.
func philox(c0, c1, c2, c3, k0, k1 uint32) (uint32, uint32, uint32, uint32) {
	for range rounds {
		high0, low0 := bits.Mul32(multiplier0, c0)
		high1, low1 := bits.Mul32(multiplier1, c2)
		c0, c1, c2, c3 = high1^c1^k0, low1, high0^c3^k1, low0
		k0 += weyl0
		k1 += weyl1
	}
	return c0, c1, c2, c3
}
