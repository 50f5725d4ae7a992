package score

import (
	"fmt"
	"strconv"
	"strings"
)

// Condition is when a gate step may sound: "3:4" on the third pass of every four, where a pass is a whole pass of the
// gate lane's order, counted on over realignments; "first", "not first",
// "fill" while filling, "after sound" or "after silence" of the part's last step that was on, or
// "track 2" if the track with that id sounded last time it could.
type Condition string

// The conditions without a number.
const (
	Always       Condition = ""
	FirstPass    Condition = "first"
	NotFirstPass Condition = "not first"
	WhileFilling Condition = "fill"
	AfterSound   Condition = "after sound"
	AfterSilence Condition = "after silence"
)

// MaxPasses is the largest b of a condition "a:b".
const MaxPasses = 64

const trackPrefix = "track "

// EveryPass returns the condition of the a-th pass of every b.
func EveryPass(a, b int) Condition { return Condition(fmt.Sprintf("%d:%d", a, b)) }

// AfterTrack returns the condition that the track with the id sounded last.
func AfterTrack(id int) Condition { return Condition(trackPrefix + strconv.Itoa(id)) }

// Passes returns the a and b of a condition "a:b".
func (c Condition) Passes() (a, b int, ok bool) {
	left, right, found := strings.Cut(string(c), ":")
	if !found {
		return 0, 0, false
	}
	a, errA := strconv.Atoi(left)
	b, errB := strconv.Atoi(right)
	ok = errA == nil && errB == nil && 1 <= a && a <= b && b <= MaxPasses && EveryPass(a, b) == c
	return a, b, ok
}

// Track returns the id of a condition "track N".
func (c Condition) Track() (id int, ok bool) {
	number, found := strings.CutPrefix(string(c), trackPrefix)
	if !found {
		return 0, false
	}
	id, err := strconv.Atoi(number)
	return id, err == nil && id >= 1 && AfterTrack(id) == c
}

func (c Condition) validate(field string, p *Project) error {
	switch c {
	case Always, FirstPass, NotFirstPass, WhileFilling, AfterSound, AfterSilence:
		return nil
	}
	if _, _, ok := c.Passes(); ok {
		return nil
	}
	if id, ok := c.Track(); ok {
		if p.Track(id) == nil {
			return &FieldError{field, fmt.Sprintf("%q", string(c)), "about a track that the project has"}
		}
		return nil
	}
	return &FieldError{field, fmt.Sprintf("%.40q", string(c)),
		`like "3:4", "first", "not first", "fill", "after sound", "after silence" or "track 2"`}
}
