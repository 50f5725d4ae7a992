// Package device plays MIDI devices of the machine on which the program runs.
//
// Words. A Device is something that takes the bytes of MIDI: a raw MIDI device of the kernel, or a stand-in for one, a FIFO or a
// terminal. A Line is what waits for a device, and the order in which its bytes leave; it knows no clock and no device. A Port runs
// a line on a thread of its own. The Rack knows which devices there are, which outputs they play, and takes them up again when they
// are back.
package device
