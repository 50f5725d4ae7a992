// Package output is how events leave the program: an Output plays through a Port, whichever kind of thing that is.
//
//	port.Send(events)      // ahead of their times
//	port.Withdraw(events)  // of those, what must not be heard after all
//	port.Release()         // playing has stopped
//
// Words. An event is a channel message with the time of the transport's clock at which it is to be heard. A port takes
// events some time ahead, as long as its kind needs, and lets them out at their times. All kinds pass conform.Check.
package output
