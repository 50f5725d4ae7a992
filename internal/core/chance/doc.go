// Package chance turns the luck of a project into random numbers.
//
// A random number here has an address and no state: the same luck, track, lane, purpose and count
// always give the same number, on every machine and in whatever order the numbers are asked for.
// That is why a forecast is right, why a stretch of music can be cut anywhere, and why an edit in
// one track cannot change another.
//
//	a := chance.Address{Luck: 48213, Track: 1, Lane: 0, Purpose: chance.Sound, N: 7}
//	sounds := chance.Happens(a, 40) // true for 40 of 100 addresses
//
// The generator is Philox4x32-10: J. Salmon, M. Moraes, R. Dror, D. Shaw, "Parallel Random Numbers:
// As Easy as 1, 2, 3", SC'11. Only integers are used, so no processor can round differently.
package chance
