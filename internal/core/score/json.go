package score

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"strings"
)

// The first fields of a project file.
const (
	FileFormat  = "jettyfog project"
	FileVersion = 1
)

// File is a project as it stands in a file. Unknown fields are refused by name, so that nothing in a
// file is ever dropped in silence.
type File struct {
	Format  string  `json:"format" jsonschema:"enum=jettyfog project"`
	Version int     `json:"version" jsonschema:"enum=1"`
	Project Project `json:"project"`
}

// FileError says why a project file or an edit could not be read.
type FileError struct {
	// Reason is a whole sentence without its full stop.
	Reason string
}

func (e *FileError) Error() string { return e.Reason }

// Encode writes the project as a file.
func Encode(p *Project) ([]byte, error) {
	data, err := json.Marshal(File{Format: FileFormat, Version: FileVersion, Project: *p})
	if err != nil {
		return nil, fmt.Errorf("encode the project: %w", err)
	}
	return append(data, '\n'), nil
}

// Decode reads a project file. The error is a *FileError or a *FieldError.
func Decode(data []byte) (*Project, error) {
	var head struct {
		Format  string `json:"format"`
		Version int    `json:"version"`
	}
	if err := json.Unmarshal(data, &head); err != nil {
		return nil, explain(err, data)
	}
	if head.Format != FileFormat {
		return nil, &FileError{fmt.Sprintf("this is not a project file: its format is %.40q, not %q", head.Format, FileFormat)}
	}
	if head.Version != FileVersion {
		return nil, &FileError{fmt.Sprintf("the project file has version %d; this program reads version %d", head.Version, FileVersion)}
	}
	var file File
	if err := DecodeJSON(data, &file); err != nil {
		return nil, err
	}
	if err := file.Project.Validate(); err != nil {
		return nil, err
	}
	return &file.Project, nil
}

// DecodeJSON reads one JSON document and refuses unknown fields by name. The error is a *FileError.
func DecodeJSON(data []byte, into any) error {
	decoder := json.NewDecoder(bytes.NewReader(data))
	decoder.DisallowUnknownFields()
	if err := decoder.Decode(into); err != nil {
		return explain(err, data)
	}
	if _, err := decoder.Token(); !errors.Is(err, io.EOF) {
		return &FileError{"there is something after the end of the JSON document"}
	}
	return nil
}

// explain turns an error of encoding/json into a sentence that a musician can act on.
func explain(err error, data []byte) error {
	var syntax *json.SyntaxError
	var kind *json.UnmarshalTypeError
	switch {
	case errors.As(err, &syntax):
		line := 1 + bytes.Count(data[:min(int(syntax.Offset), len(data))], []byte("\n"))
		return &FileError{fmt.Sprintf("this is not valid JSON: %v, at byte %d in line %d", syntax, syntax.Offset, line)}
	case errors.As(err, &kind):
		return &FileError{fmt.Sprintf("%s holds a JSON %s; it must be of type %s", fieldOr(kind.Field, "the document"), kind.Value, kind.Type)}
	case errors.Is(err, io.EOF), errors.Is(err, io.ErrUnexpectedEOF):
		return &FileError{"the JSON document ends too early"}
	}
	return &FileError{strings.TrimPrefix(err.Error(), "json: ")}
}

func fieldOr(field, other string) string {
	if field == "" {
		return other
	}
	return field
}
