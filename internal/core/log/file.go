package log

import (
	"encoding/json"
	"errors"
	"fmt"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

// The first fields of a log's file.
const (
	FileFormat  = "jettyfog log"
	FileVersion = 1
)

// MaxEntries bounds how many entries a file of a log has.
const MaxEntries = 1_000_000

// File is a log as it stands in a file.
type File struct {
	Format  string `json:"format" jsonschema:"enum=jettyfog log"`
	Version int    `json:"version" jsonschema:"enum=1"`
	// Project plays first, from the tick From of the song on.
	Project score.Project `json:"project"`
	From    score.Tick    `json:"from" jsonschema:"minimum=0"`
	// Stage are the live changes that hold at the beginning.
	Stage []stage.Change `json:"stage,omitempty" jsonschema:"maxItems=4096"`
	// PlaysSong has the song of the project play from its beginning, or as Plan says if there is one.
	PlaysSong bool           `json:"playsSong,omitempty"`
	Plan      []score.Placed `json:"plan,omitempty" jsonschema:"maxItems=100000"`
	// Entries are in the order of their ticks.
	Entries []FileEntry `json:"entries" jsonschema:"maxItems=1000000"`
	// End is the tick of run time at which playing stopped.
	End score.Tick `json:"end" jsonschema:"minimum=1"`
}

// FileEntry is an entry as it stands in a file: exactly one of the fields after Tick is there.
type FileEntry struct {
	// Tick of run time, which counts from the beginning and never jumps.
	Tick score.Tick `json:"tick" jsonschema:"minimum=0"`
	// Edit changes the project from here on, as if it had always been so; Project puts another in its place.
	Edit    *score.EditJSON `json:"edit,omitempty"`
	Project *score.Project  `json:"project,omitempty"`
	// LetGo are the controls whose live changes an edit takes away.
	LetGo []stage.Control `json:"letGo,omitempty" jsonschema:"maxItems=4096"`
	// Action gives a control a value.
	Action *FileAction `json:"action,omitempty"`
	// Input holds the bytes of a channel message that came in.
	Input []int `json:"input,omitempty" jsonschema:"minItems=2,maxItems=3"`
	// Passed is a message that a hand has played through a track.
	Passed *FilePassed `json:"passed,omitempty"`
	// Tempo holds from here on in place of the project's, in thousandths of a beat a minute, as that of another machine's clock does; 0 has
	// the project's hold again.
	Tempo *score.Tempo `json:"tempo,omitempty" jsonschema:"minimum=0,maximum=400000"`
	// Song is the tick of the song with which playing goes on here. Chance is there as it is in the song, or with GoesOn it
	// goes on from where it stood. With a Project beside it that one is opened here, with the live changes of Stage.
	Song   *score.Tick    `json:"song,omitempty" jsonschema:"minimum=0"`
	GoesOn bool           `json:"goesOn,omitempty"`
	Stage  []stage.Change `json:"stage,omitempty" jsonschema:"maxItems=4096"`
	// PlaysSong has the song of that project play.
	PlaysSong bool `json:"playsSong,omitempty"`
}

// FilePassed is a note that begins or ends, as a hand has played it through a track.
type FilePassed struct {
	// Tick of run time at which it sounded; it can be before the entry's, as music is computed ahead.
	Tick  score.Tick `json:"tick" jsonschema:"minimum=0"`
	Track int        `json:"track" jsonschema:"minimum=1,maximum=255"`
	// Number tells apart notes of one track on one key.
	Number int `json:"number" jsonschema:"minimum=0,maximum=65535"`
	// Message holds its bytes.
	Message []int `json:"message" jsonschema:"minItems=3,maxItems=3"`
}

// FileAction is an action as it stands in a file.
type FileAction struct {
	Control stage.Control `json:"control"`
	// Value is what the control is given; without it its live change is taken away.
	Value *int `json:"value,omitempty"`
	// At is the tick of run time from which it counts. What silences counts for what was computed ahead, too.
	At score.Tick `json:"at" jsonschema:"minimum=0"`
}

// Encode writes a log, whose playing stopped at a tick of run time, as a file.
func Encode(l *Log, end score.Tick) ([]byte, error) {
	file := File{Format: FileFormat, Version: FileVersion, Project: *l.Project, From: l.From, PlaysSong: l.PlaysSong, Plan: l.Plan, End: max(1, end), Entries: []FileEntry{}}
	if changes := l.Stage.Changes(); len(changes) > 0 {
		file.Stage = changes
	}
	for _, entry := range l.Entries {
		file.Entries = append(file.Entries, fileEntryOf(entry))
	}
	return json.Marshal(file)
}

// EncodeEntries writes some entries of a log as they stand in a file, for DecodeGrown.
func EncodeEntries(entries []Entry) ([]byte, error) {
	written := make([]FileEntry, len(entries))
	for i, entry := range entries {
		written[i] = fileEntryOf(entry)
	}
	return json.Marshal(written)
}

func fileEntryOf(entry Entry) FileEntry {
	written := FileEntry{Tick: entry.Tick, Project: entry.Project, LetGo: entry.LetGo, Tempo: entry.Tempo}
	if entry.Way != nil {
		form := score.FormOf(entry.Way)
		written.Edit, written.Project = &form, nil
	}
	if entry.Action != nil {
		written.Action = &FileAction{Control: entry.Action.Control, Value: entry.Action.Value, At: entry.Action.At}
	}
	if entry.Jump != nil {
		written.Song, written.GoesOn, written.Project = &entry.Jump.Song, entry.Jump.GoesOn, entry.Jump.Project
		written.PlaysSong = entry.Jump.PlaysSong
		if changes := entry.Jump.Staged().Changes(); len(changes) > 0 {
			written.Stage = changes
		}
	}
	if entry.Input != nil {
		written.Input = bytesOf(*entry.Input)
	}
	if m := entry.Passed; m != nil {
		written.Passed = &FilePassed{Tick: m.Tick, Track: int(m.Track), Number: int(m.Value), Message: bytesOf(*m)}
	}
	return written
}

func bytesOf(m midi.Message) (bytes []int) {
	for _, b := range midi.Append(nil, m) {
		bytes = append(bytes, int(b))
	}
	return bytes
}

// Decode reads a file of a log, and returns at which tick of run time its playing stopped. The error, a *score.FileError
// or one that wraps why an entry cannot be, says which entry it is about.
func Decode(data []byte) (l *Log, end score.Tick, err error) {
	var file File
	if err := score.DecodeJSON(data, &file); err != nil {
		return nil, 0, err
	}
	l, err = file.read()
	return l, file.End, err
}

// DecodeGrown reads a file of a log as it was when it had no entries, and the entries that have come since; see
// EncodeEntries. The errors are those of Decode.
func DecodeGrown(head []byte, entries [][]byte) (*Log, error) {
	var file File
	if err := score.DecodeJSON(head, &file); err != nil {
		return nil, err
	}
	for _, data := range entries {
		var more []FileEntry
		if err := score.DecodeJSON(data, &more); err != nil {
			return nil, err
		}
		file.Entries = append(file.Entries, more...)
	}
	return file.read()
}

// read returns the log of a file.
func (file *File) read() (l *Log, err error) {
	switch {
	case file.Format != FileFormat || file.Version != FileVersion:
		return nil, &score.FileError{Reason: fmt.Sprintf("this is not a log of version %d: its format is %.40q, version %d", FileVersion, file.Format, file.Version)}
	case file.From < 0 || file.From > score.LastTick || file.End < 1 || file.End > score.LastTick:
		return nil, &score.FieldError{Field: "from or end", Got: fmt.Sprintf("%d or %d", file.From, file.End), Allowed: fmt.Sprintf("0 to %d, and an end of 1 at least", score.LastTick)}
	case !Plan(file.Plan).Valid():
		return nil, &score.FieldError{Field: "plan", Got: "not in order", Allowed: "sections one after the other, by their bars"}
	case len(file.Entries) > MaxEntries:
		return nil, &score.FieldError{Field: "the number of entries", Got: len(file.Entries), Allowed: fmt.Sprintf("at most %d", MaxEntries)}
	}
	if err := file.Project.Validate(); err != nil {
		return nil, err
	}
	l = &Log{Project: &file.Project, From: file.From, Stage: stage.Of(file.Stage), PlaysSong: file.PlaysSong, Plan: file.Plan}
	if err := checkStage(file.Stage); err != nil {
		return nil, err
	}
	reading := reader{project: l.Project, from: l.From}
	for i, written := range file.Entries {
		entry, err := reading.read(written)
		if err != nil {
			return nil, fmt.Errorf("entry %d of the log: %w", i+1, err)
		}
		l.Entries = append(l.Entries, entry)
	}
	return l, nil
}

func checkStage(changes []stage.Change) error {
	for i, change := range changes {
		if err := change.Control.CheckRange(change.Value); err != nil {
			return fmt.Errorf("live change %d of the log: %w", i+1, err)
		}
	}
	return nil
}

// reader is how far the entries of a file have been read.
type reader struct {
	project *score.Project
	from    score.Tick // of the song
	run     score.Tick // at which that plays
	last    score.Tick // the tick of the last entry
}

func (r *reader) read(f FileEntry) (entry Entry, err error) {
	if f.Tick < r.last || f.Tick > score.LastTick {
		return entry, &score.FieldError{Field: "tick", Got: f.Tick, Allowed: fmt.Sprintf("%d to %d", r.last, score.LastTick)}
	}
	entry.Tick, r.last = f.Tick, f.Tick
	given, opens := 0, f.Project != nil && f.Song != nil
	for _, is := range []bool{f.Edit != nil, f.Project != nil && !opens, f.Action != nil, f.Input != nil, f.Passed != nil, f.Tempo != nil, f.Song != nil} {
		if is {
			given++
		}
	}
	switch {
	case given != 1:
		return entry, &score.FileError{Reason: fmt.Sprintf("it must hold exactly one thing that happened, not %d", given)}
	case f.GoesOn && (f.Song == nil || opens):
		return entry, &score.FileError{Reason: "chance goes on only where the song jumps within its project"}
	case f.PlaysSong && !opens:
		return entry, &score.FileError{Reason: "only a project that is opened has its song begin"}
	case len(f.Stage) > 0 && !opens:
		return entry, &score.FileError{Reason: "only a project that is opened brings live changes"}
	case len(f.LetGo) > 0 && (f.Edit == nil && f.Project == nil || opens):
		return entry, &score.FileError{Reason: "only an edit takes live changes away"}
	case f.Action != nil:
		return r.action(entry, f.Action)
	case f.Passed != nil:
		return r.passed(entry, f.Passed)
	case f.Tempo != nil:
		if *f.Tempo != 0 && (*f.Tempo < score.MinTempo || *f.Tempo > score.MaxTempo) {
			return entry, &score.FieldError{Field: "tempo", Got: *f.Tempo, Allowed: fmt.Sprintf("0 or %d to %d", score.MinTempo, score.MaxTempo)}
		}
		entry.Tempo = f.Tempo
	case f.Edit != nil:
		edit, err := f.Edit.Edit()
		if err != nil {
			return entry, err
		}
		if r.project, _, err = score.Apply(r.project, edit); err != nil {
			return entry, err
		}
		entry.Project, entry.LetGo, entry.Way = r.project, f.LetGo, edit
	case opens:
		return r.open(entry, f)
	case f.Project != nil:
		if err := f.Project.Validate(); err != nil {
			return entry, err
		}
		r.project, entry.Project, entry.LetGo = f.Project, f.Project, f.LetGo
	case f.Song != nil:
		entry.Jump = &Jump{Song: *f.Song, GoesOn: f.GoesOn}
		return entry, r.jump(f)
	default:
		m, err := readInput(f.Input)
		if err != nil {
			return entry, err
		}
		m.Tick = f.Tick - r.run + r.from
		entry.Input = &m
	}
	return entry, nil
}

// jump goes to where a song goes on.
func (r *reader) jump(f FileEntry) error {
	if *f.Song < 0 || *f.Song > score.LastTick {
		return &score.FieldError{Field: "song", Got: *f.Song, Allowed: fmt.Sprintf("0 to %d", score.LastTick)}
	}
	r.from, r.run = *f.Song, f.Tick
	return nil
}

// open reads the opening of another project.
func (r *reader) open(entry Entry, f FileEntry) (Entry, error) {
	if err := f.Project.Validate(); err != nil {
		return entry, err
	}
	if err := checkStage(f.Stage); err != nil {
		return entry, err
	}
	staged := stage.Of(f.Stage)
	r.project, entry.Jump = f.Project, &Jump{Song: *f.Song, Project: f.Project, Stage: &staged, PlaysSong: f.PlaysSong}
	return entry, r.jump(f)
}

// action reads an action. Where its value cannot be by then it has no effect, as while it was played.
func (r *reader) action(entry Entry, a *FileAction) (Entry, error) {
	if a.At < 0 || a.At > score.LastTick {
		return entry, &score.FieldError{Field: "at", Got: a.At, Allowed: fmt.Sprintf("0 to %d", score.LastTick)}
	}
	if a.Value != nil {
		if err := a.Control.CheckRange(*a.Value); err != nil {
			return entry, err
		}
	}
	entry.Action = &Action{Control: a.Control, Value: a.Value, At: a.At}
	return entry, nil
}

// passed reads a message that a hand has played.
func (r *reader) passed(entry Entry, p *FilePassed) (Entry, error) {
	m, err := readInput(p.Message)
	switch {
	case err != nil:
		return entry, err
	case m.Kind != midi.NoteOn && m.Kind != midi.NoteOff || p.Track < 1 || p.Track > 255 || p.Number < 0 || p.Number > 0xFFFF:
		return entry, &score.FileError{Reason: "only a note of a track can be played by a hand"}
	case p.Tick < 0 || p.Tick > entry.Tick:
		return entry, &score.FieldError{Field: "passed.tick", Got: p.Tick, Allowed: fmt.Sprintf("0 to %d", entry.Tick)}
	}
	m.Tick, m.Track, m.Value = p.Tick, uint32(p.Track), uint16(p.Number)
	entry.Passed = &m
	return entry, nil
}

func readInput(bytes []int) (midi.Message, error) {
	data := make([]byte, len(bytes))
	for i, b := range bytes {
		if b < 0 || b > 0xFF {
			return midi.Message{}, errors.New("a byte of the input is not within 0 to 255")
		}
		data[i] = byte(b)
	}
	return midi.Parse(data)
}
