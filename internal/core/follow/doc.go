// Package follow makes a steady time of the pulses of another machine's clock, which come unevenly, and says which tempo brings
// playing there.
//
//	f := follow.New(24)
//	f.Pulse(at) // as each comes
//	line, known := f.Line()
//	tempo, changes := follow.Steer(line, position, at, now)
//
// Words. A pulse is one of so many a quarter note, and counted. A line says which position the other machine has at which time: a
// straight line through the pulses of two bars, by least squares. Times are nanoseconds, positions ticks. Numbers with decimals only
// serve to get a tempo, which is whole and what a log has.
package follow
