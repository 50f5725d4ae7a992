package chance

// Purpose says what a random number decides, so that two decisions at one place are independent.
// The numbers are part of what a listener hears: never renumber one.
type Purpose uint8

// The purposes; Uses says of each what it decides and how its addresses are numbered.
const (
	Sound         Purpose = 1
	Step          Purpose = 2
	Applies       Purpose = 3
	Spread        Purpose = 4
	Strike        Purpose = 5
	Shift         Purpose = 6
	RollApplies   Purpose = 7
	Roll          Purpose = 8
	Weigh         Purpose = 9
	EvolveApplies Purpose = 10
	Evolve        Purpose = 11
	Follow        Purpose = 12
	ShiftBy       Purpose = 13
	Duration      Purpose = 14
	Count         Purpose = 15
	Chain         Purpose = 16
	Modulate      Purpose = 17
	ChordNote     Purpose = 18
	RoleRule      Purpose = 19
	Fork          Purpose = 20
	Letter        Purpose = 21
	Meeting       Purpose = 22
	RollField     Purpose = 23
)

// Use is what random numbers of a purpose are for.
type Use struct {
	Purpose Purpose
	// Decides completes "the number decides …".
	Decides string
	// Lane is that of the addresses: the name of a lane, or "its own" where each lane has its own numbers.
	Lane string
	// N is what N counts.
	N string
}

// Uses lists all uses of random numbers. Sub is 0 in all of them but Modulate, RoleRule, Fork, Letter and Meeting, and Applies, Spread, Weigh and Roll, where it is which of the notes of a step
// is drawn for by itself, from 0.
func Uses() []Use {
	const own, gate, moves = "its own", "gate", "moves of the gate lane, or of the lane itself if it is not linked"
	return []Use{
		{Sound, "whether a gate step sounds", gate, "moves of the gate lane"},
		{Step, "where a lane goes on to", own, "moves of the lane"},
		{Applies, "whether a spread applies", own, moves},
		{Spread, "how much a spread adds", own, moves},
		{Strike, "whether a ratchet hit sounds", "ratchet", "128 times the moves of the gate lane, and the hit; with the highest bit set beyond the 128th"},
		{Shift, "how far jitter shifts a note", "nudge", "moves of the gate lane"},
		{RollApplies, "whether a roll writes a step", own, "the step"},
		{Roll, "what a roll writes", own, "the step"},
		{Weigh, "which line of a table of weights is drawn, and what of its range", own, moves},
		{EvolveApplies, "whether evolving writes a step anew", own, "64 times the evolutions, and the step"},
		{Evolve, "what evolving writes", own, "64 times the evolutions, and the step"},
		{Follow, "whether a track goes on by what it hears", gate, "how many times it could have gone on"},
		{ShiftBy, "by which division a note is shifted", "nudge", "moves of the gate lane"},
		{Duration, "which line of a table of durations is drawn", gate, "moves of the gate lane"},
		{Count, "how many hits a step has by its own weights", "ratchet", "moves of the gate lane"},
		{Chain, "to which pattern one leads, of no track", "none", "2^32 times the track's id, and how many times it has led"},
		{Modulate, "the level of a pass of a random modulator, of no track; Sub is its id", "none", "2^32 times the bar with which it began, and the pass"},
		{ChordNote, "which note of a chord is struck", "pitch", "as for ratchet hits"},
		{RoleRule, "whether a rule changes a note of a chord; Sub is 16 times the rule, and the note of the hit", "pitch", "as for ratchet hits"},
		{Fork, "which arrow a traveller of a field follows; Sub is its id", "none", "moves of the traveller"},
		{Letter, "to which cell of its letter a cell of a field leads; Sub is the traveller's id", "none", "moves of the traveller"},
		{Meeting, "whether a rule of a field happens; Sub is the rule", "none", "how often the rule was judged"},
		{RollField, "what a roll of a field writes, of no track", "none", "draws of the roll"},
	}
}
