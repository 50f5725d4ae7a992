// Package osc sends what tracks play to programs that understand OSC 1.0 (Open Sound Control 1.0, M. Wright, 2002; from memory), as UDP
// packets, each a bundle of all that is at one moment with that moment as its time tag.
//
// A track of the id n sends
//
//	/track/n/note      ii   key and velocity, 0 to 127; velocity 0 ends the note
//	/track/n/pitch     ff   the frequency in hertz, and the voltage at a volt an octave with middle C at 0 V
//	/track/n/velocity  f    0 to 1
//	/track/n/gate      i    1 while any note sounds, else 0
//	/track/n/mod/m     f    mod lane m, from 1: 0 to 1
//
// and time itself
//
//	/run   i   1 where playing begins, 0 where it stops
//	/bar   i   the bar of the song that begins, from 1
//	/beat  i   the beat of the bar that begins, from 1
//
// What comes in, from programs of this machine, is what an instrument that is plugged in would play: a Listener hears /note (key, velocity),
// /cc (controller, value), /program (from 1), /pressure and /bend (-8192 to 8191), each with a channel behind if it is not 1.
package osc
