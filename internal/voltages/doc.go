// Package voltages plays outputs of voltages: what the transport sends and how its time goes on becomes segments of voltage on times of its
// clock, which a page that has a DC-coupled interface, or the rack that stands in for one, renders as samples.
//
// A Keeper has a Player for each output of voltages of the project that plays. What a player shows is whole from a moment on, so that a page
// may lose any of it: the next makes it good.
package voltages
