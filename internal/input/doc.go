// Package input has MIDI devices of the machine on which the program runs be heard, and ships a machine that stands in for another's clock.
//
// Words. A feed is what bytes come from: a device, or what stands in for one. The Keeper knows which devices send, which inputs of the
// project they are, and takes them up again when they are back.
package input
