package score

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"reflect"
	"strconv"
	"strings"

	strict "github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"
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
	p, _, err := DecodeOld(data)
	return p, err
}

// DecodeOld reads a project file as Decode does, and says what it had otherwise than projects have it now, each a
// sentence without its full stop.
func DecodeOld(data []byte) (p *Project, remarks []string, err error) {
	var head struct {
		Format  string `json:"format"`
		Version int    `json:"version"`
	}
	if err := strict.Unmarshal(data, &head); err != nil {
		return nil, nil, explain(err, data)
	}
	if head.Format != FileFormat {
		return nil, nil, &FileError{fmt.Sprintf("this is not a project file: its format is %.40q, not %q", head.Format, FileFormat)}
	}
	if head.Version != FileVersion {
		return nil, nil, &FileError{fmt.Sprintf("the project file has version %d; this program reads version %d", head.Version, FileVersion)}
	}
	var file File
	if err := DecodeJSON(data, &file); err != nil {
		return nil, nil, err
	}
	remarks = file.Project.convertOld()
	if err := file.Project.Validate(); err != nil {
		return nil, nil, err
	}
	return &file.Project, remarks, nil
}

// DecodeJSON reads one JSON document. It refuses, by name, fields that are unknown, that are spelled with other
// capitals, and that come twice (RFC 8259 leaves open what those mean). The error is a *FileError.
func DecodeJSON(data []byte, into any) error {
	if err := strict.Unmarshal(data, into, strict.RejectUnknownMembers(true)); err != nil {
		return explain(err, data)
	}
	return nil
}

// explain turns an error of the JSON package into a sentence that a musician can act on.
func explain(err error, data []byte) error {
	var syntax *jsontext.SyntacticError
	var kind *strict.SemanticError
	var said *FileError
	switch {
	case errors.As(err, &said):
		return said
	case errors.Is(err, io.EOF), errors.Is(err, io.ErrUnexpectedEOF):
		return &FileError{"this is not valid JSON: it ends too early"}
	case errors.As(err, &syntax) && errors.Is(syntax.Err, jsontext.ErrDuplicateName):
		return &FileError{fmt.Sprintf("the field %q comes twice", path(syntax.JSONPointer))}
	case errors.As(err, &syntax):
		line := 1 + bytes.Count(data[:min(int(syntax.ByteOffset), len(data))], []byte("\n"))
		return &FileError{fmt.Sprintf("this is not valid JSON: %v, at byte %d in line %d", syntax.Err, syntax.ByteOffset, line)}
	case errors.As(err, &kind) && errors.Is(kind.Err, strict.ErrUnknownName):
		return &FileError{fmt.Sprintf("unknown field %q", kind.JSONPointer.LastToken())}
	case errors.As(err, &kind) && kind.GoType != nil:
		got := strings.TrimSpace(kindNames[kind.JSONKind] + " " + shortened(kind.JSONValue))
		return &FileError{fmt.Sprintf("%s holds a JSON %s; it must be %s", path(kind.JSONPointer), got, typeName(kind.GoType))}
	}
	return &FileError{err.Error()}
}

// kindNames are what JSON calls its kinds of values.
var kindNames = map[jsontext.Kind]string{'n': "null", 't': "boolean", 'f': "boolean", '"': "string", '0': "number", '{': "object", '[': "array"}

// shortened returns the beginning of a value.
func shortened(value jsontext.Value) string {
	if len(value) > 40 {
		return string(value[:40]) + "…"
	}
	return string(value)
}

// typeName says in words what a type of Go takes of JSON.
func typeName(t reflect.Type) string {
	switch t.Kind() {
	case reflect.Pointer:
		return typeName(t.Elem())
	case reflect.String:
		return "a string"
	case reflect.Bool:
		return "true or false"
	case reflect.Float32, reflect.Float64:
		return "a number"
	case reflect.Slice, reflect.Array:
		return "an array"
	case reflect.Struct, reflect.Map:
		return "an object"
	}
	return "a whole number that is not too large"
}

// path returns a place in a document as it is written in programs: tracks[0].name.
func path(pointer jsontext.Pointer) string {
	var b strings.Builder
	for token := range pointer.Tokens() {
		switch _, err := strconv.Atoi(token); {
		case err == nil:
			fmt.Fprintf(&b, "[%s]", token)
		case b.Len() > 0:
			b.WriteString("." + token)
		default:
			b.WriteString(token)
		}
	}
	if b.Len() == 0 {
		return "the document"
	}
	return b.String()
}
