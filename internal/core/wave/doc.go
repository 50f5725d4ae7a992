// Package wave is how macros, faders and modulators go: curves that share out a travel, and the shapes of modulators.
//
// All is whole numbers, so that it is the same on every machine: One is 1, and a wave goes from −One to One.
package wave
