package theory

import (
	"fmt"
	"math"
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"
)

// MaxScalaFile bounds a Scala file, in bytes.
const MaxScalaFile = 1 << 20

// ParseScale reads a Scala scale file (.scl) by the published rules of the format: lines that begin with an
// exclamation mark are comments; the first other line describes the scale, the second says how many notes
// there are, and each of that many lines begins with a pitch, after which anything may follow. The error is a
// sentence without its full stop that names the line.
func ParseScale(data []byte) (*Tuning, error) {
	lines, err := scalaLines(data)
	if err != nil {
		return nil, err
	}
	if len(lines) < 2 {
		return nil, fmt.Errorf("the scale file ends before the number of notes")
	}
	notes, err := lines[1].number(1, MaxTuningNotes, "the number of notes")
	if err != nil {
		return nil, err
	}
	t := &Tuning{Name: printable(lines[0].text)}
	for _, line := range lines[2:] {
		if len(t.Pitches) == notes {
			break
		}
		pitch := line.word()
		if _, err := ParsePitch(pitch); err != nil {
			return nil, fmt.Errorf("line %d: %w", line.place, err)
		}
		t.Pitches = append(t.Pitches, pitch)
	}
	if len(t.Pitches) < notes {
		return nil, fmt.Errorf("the scale file says that it has %d notes and ends after %d", notes, len(t.Pitches))
	}
	return t, t.Validate()
}

// FormatScale writes a Scala scale file.
func FormatScale(t *Tuning) []byte {
	var b strings.Builder
	// A description never begins at the beginning of a line, so that it is no comment whatever it begins with.
	fmt.Fprintf(&b, "! a scale of Jettyfog\n!\n %s\n %d\n!\n", t.Name, len(t.Pitches))
	for _, pitch := range t.Pitches {
		fmt.Fprintf(&b, " %s\n", pitch)
	}
	return []byte(b.String())
}

// ParseKeyboard reads a Scala keyboard mapping file (.kbm) by the published rules of the format: the size of
// the map, the first and last key to tune, the middle key, the reference key, its frequency, the formal
// octave, and then the note of each key, or x for none. The error is a sentence without its full stop that
// names the line.
func ParseKeyboard(data []byte) (*Keyboard, error) {
	lines, err := scalaLines(data)
	if err != nil {
		return nil, err
	}
	const head = 7
	if len(lines) < head {
		return nil, fmt.Errorf("the keyboard mapping ends after %d of its first %d numbers", len(lines), head)
	}
	k := &Keyboard{}
	size := 0
	for i, field := range []*int{&size, &k.First, &k.Last, &k.Middle, &k.Reference, nil, &k.Octave} {
		if field == nil {
			hertz, err := strconv.ParseFloat(lines[i].word(), 64)
			if err != nil || !(hertz >= 1 && hertz <= 20_000) {
				return nil, fmt.Errorf("line %d: the frequency is %.20q; it must be 1 to 20000 Hz", lines[i].place, lines[i].word())
			}
			k.MicroHertz = int64(math.Round(hertz * 1e6))
			continue
		}
		if *field, err = lines[i].number(0, MaxTuningNotes, "the number"); err != nil {
			return nil, err
		}
	}
	for _, line := range lines[head:] {
		if len(k.Keys) == size {
			break
		}
		note := Unmapped
		if line.word() != "x" && line.word() != "X" {
			if note, err = line.number(0, MaxTuningNotes, "the note of a key"); err != nil {
				return nil, err
			}
		}
		k.Keys = append(k.Keys, note)
	}
	if size > HighestNote+1 {
		return nil, fmt.Errorf("line %d: the mapping has %d keys; it must have at most 128", lines[0].place, size)
	}
	// Keys at the end that play nothing may be left out.
	for len(k.Keys) < size {
		k.Keys = append(k.Keys, Unmapped)
	}
	return k, k.Validate()
}

// FormatKeyboard writes a Scala keyboard mapping file.
func FormatKeyboard(k *Keyboard) []byte {
	var b strings.Builder
	part := func(comment string, value any) { fmt.Fprintf(&b, "! %s\n%v\n", comment, value) }
	part("size of the map", len(k.Keys))
	part("first key to tune", k.First)
	part("last key to tune", k.Last)
	part("middle key, at which the map begins", k.Middle)
	part("reference key", k.Reference)
	part("frequency of the reference key in hertz", strconv.FormatFloat(float64(k.MicroHertz)/1e6, 'f', 6, 64))
	part("formal octave", k.Octave)
	b.WriteString("! notes of the keys\n")
	for _, note := range k.Keys {
		if note == Unmapped {
			b.WriteString("x\n")
		} else {
			fmt.Fprintln(&b, note)
		}
	}
	return []byte(b.String())
}

// Validate returns nil for a usable tuning, else a sentence without its full stop.
func (t *Tuning) Validate() error {
	if utf8.RuneCountInString(t.Name) > maxPitchLength || printable(t.Name) != t.Name {
		return fmt.Errorf("the tuning's name must be at most %d printable characters", maxPitchLength)
	}
	if len(t.Pitches) < 1 || len(t.Pitches) > MaxTuningNotes {
		return fmt.Errorf("the tuning has %d notes; it must have 1 to %d", len(t.Pitches), MaxTuningNotes)
	}
	var last Cents
	for _, pitch := range t.Pitches {
		var err error
		if last, err = ParsePitch(pitch); err != nil {
			return err
		}
	}
	if last < Semitone/10 {
		return fmt.Errorf("the last pitch, %s, is the period; it must be at least 10 cents up", t.Pitches[len(t.Pitches)-1])
	}
	if t.Keyboard != nil {
		return t.Keyboard.Validate()
	}
	return nil
}

// scalaLine is a line that is no comment.
type scalaLine struct {
	text  string
	place int // of the line in the file, from 1
}

func scalaLines(data []byte) ([]scalaLine, error) {
	if len(data) > MaxScalaFile {
		return nil, fmt.Errorf("the file has %d bytes; at most %d are read", len(data), MaxScalaFile)
	}
	text := string(data)
	if !utf8.ValidString(text) { // the format is older than UTF-8 and was written in Latin-1
		runes := make([]rune, len(data))
		for i, b := range data {
			runes[i] = rune(b)
		}
		text = string(runes)
	}
	var lines []scalaLine
	for i, line := range strings.Split(text, "\n") {
		if line = strings.TrimRight(line, "\r"); !strings.HasPrefix(line, "!") {
			lines = append(lines, scalaLine{strings.TrimSpace(line), i + 1})
		}
	}
	// A file ends with a line feed, which begins no further line.
	if last := len(lines) - 1; last >= 0 && lines[last].text == "" {
		lines = lines[:last]
	}
	return lines, nil
}

// word returns the first word of the line.
func (l scalaLine) word() string {
	word, _, _ := strings.Cut(strings.ReplaceAll(l.text, "\t", " "), " ")
	return word
}

func (l scalaLine) number(least, most int, what string) (int, error) {
	value, err := strconv.Atoi(l.word())
	if err != nil || value < least || value > most {
		return 0, fmt.Errorf("line %d: %s is %.20q; it must be %d to %d", l.place, what, l.word(), least, most)
	}
	return value, nil
}

// printable returns the text without what cannot be printed, and no longer than a name can be.
func printable(text string) string {
	kept := strings.Map(func(r rune) rune {
		if !unicode.IsPrint(r) {
			return -1
		}
		return r
	}, text)
	runes := []rune(kept)
	return strings.TrimSpace(string(runes[:min(len(runes), maxPitchLength)]))
}
