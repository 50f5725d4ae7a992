package schema

import (
	"encoding/json"
	"fmt"
	"reflect"
	"strings"

	"github.com/invopop/jsonschema"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/preset"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/theory"
	"jettyfog/internal/input"
	"jettyfog/internal/server"
	"jettyfog/internal/studio"
)

// wire is everything that goes between the page and the server.
type wire struct {
	Message          server.Message            `json:"message"`
	Question         server.Question           `json:"question"`
	EditRequest      server.EditRequest        `json:"editRequest"`
	RevisionRequest  server.RevisionRequest    `json:"revisionRequest"`
	TransportRequest server.TransportRequest   `json:"transportRequest"`
	Chart            server.Chart              `json:"chart"`
	Lists            server.Lists              `json:"lists"`
	Outlines         []server.Outline          `json:"outlines"`
	Projects         []server.ListedProject    `json:"projects"`
	OpenRequest      server.OpenRequest        `json:"openRequest"`
	NewProject       server.NewProjectRequest  `json:"newProject"`
	NameRequest      server.NameRequest        `json:"nameRequest"`
	Draws            server.Draws              `json:"draws"`
	Entries          []studio.Entry            `json:"entries"`
	RollRequest      server.RollRequest        `json:"rollRequest"`
	FieldRequest     server.FieldRequest       `json:"fieldRequest"`
	FieldRollRequest server.FieldRollRequest   `json:"fieldRollRequest"`
	GoToRequest      server.GoToRequest        `json:"goToRequest"`
	TuningRequest    server.TuningRequest      `json:"tuningRequest"`
	DoRequest        server.DoRequest          `json:"doRequest"`
	TurnRequest      server.TurnRequest        `json:"turnRequest"`
	ControlAt        server.ControlAt          `json:"controlAt"`
	Controls         []stage.Listing           `json:"controls"`
	Curves           []server.ModulatorCurve   `json:"curves"`
	FoundChords      server.FoundChords        `json:"foundChords"`
	SceneRequest     server.SceneRequest       `json:"sceneRequest"`
	ScenePictures    []server.ScenePicture     `json:"scenePictures"`
	SetLists         []studio.SetList          `json:"setLists"`
	SetListRequest   server.SetListRequest     `json:"setListRequest"`
	RampRequest      server.RampRequest        `json:"rampRequest"`
	Performed        []server.PerformedAction  `json:"performed"`
	AgainRequest     server.AgainRequest       `json:"againRequest"`
	ProjectDigest    server.ProjectDigest      `json:"projectDigest"`
	Clashes          []score.Clash             `json:"clashes"`
	BindRequest      server.BindRequest        `json:"bindRequest"`
	TestRequest      server.TestRequest        `json:"testRequest"`
	BindInput        server.BindInputRequest   `json:"bindInputRequest"`
	ClockAct         input.ClockAct            `json:"clockAct"`
	Calibrate        server.CalibrateRequest   `json:"calibrateRequest"`
	VoltageTest      server.VoltageTestRequest `json:"voltageTestRequest"`
	LoadRequest      server.LoadRequest        `json:"loadRequest"`
	Presets          []server.ListedPreset     `json:"presets"`
	PresetRequest    server.PresetRequest      `json:"presetRequest"`
	HeardPreset      preset.HeardPreset        `json:"heardPreset"`
	WakeView         server.WakeView           `json:"wakeView"`
	Imported         server.Imported           `json:"imported"`
	KeepRequest      server.KeepRequest        `json:"keepRequest"`
	EntryRequest     server.EntryRequest       `json:"entryRequest"`
	PlayedRequest    server.PlayedRequest      `json:"playedRequest"`
	PlayedAnswer     server.PlayedAnswer       `json:"playedAnswer"`
	HeardKeyRequest  server.HeardKeyRequest    `json:"heardKeyRequest"`
	RenderRequest    server.RenderRequest      `json:"renderRequest"`
	RenderProgress   server.RenderProgress     `json:"renderProgress"`
	LoopRequest      server.LoopRequest        `json:"loopRequest"`
	PatternRequest   server.PatternRequest     `json:"patternRequest"`
	PatternAnswer    server.PatternAnswer      `json:"patternAnswer"`
	Roll             server.Roll               `json:"roll"`
	Scope            server.Scope              `json:"scope"`
	TakeEditRequest  server.TakeEditRequest    `json:"takeEditRequest"`
	Statistics       take.Statistics           `json:"statistics"`
	TakeComparison   server.TakeComparison     `json:"takeComparison"`
	Refusal          server.Refusal            `json:"refusal"`
}

// Controls returns the list of controls by which programs play along.
func Controls() ([]byte, error) {
	data, err := json.MarshalIndent(stage.Listed(), "", "  ")
	return append(data, '\n'), err
}

// LogFile returns the schema of the file of a log.
func LogFile() ([]byte, error) {
	schema := reflector().Reflect(&log.File{})
	schema.Title = "Jettyfog log"
	data, err := json.MarshalIndent(schema, "", "  ")
	return append(data, '\n'), err
}

// PresetFile returns the schema of the file of a preset.
func PresetFile() ([]byte, error) {
	schema := reflector().Reflect(&preset.File{})
	schema.Title = "Jettyfog preset file"
	return encode(schema)
}

// ProjectFile returns the schema of the project file. It bounds every field as the program does, but
// for what depends on another field, as the least height of a register or the values of a lane's steps.
func ProjectFile() ([]byte, error) {
	schema := reflector().Reflect(&score.File{})
	schema.Title = "Jettyfog project file"
	if err := enumerate(schema, "Key", "scale", anys(append(theory.ScaleNames(), theory.Custom))); err != nil {
		return nil, err
	}
	if err := enumerate(schema, "Recipe", "lane", anys(score.LaneNames())); err != nil {
		return nil, err
	}
	if err := enumerate(schema, "Lane", "rate", anys(score.NoteValues())); err != nil {
		return nil, err
	}
	if err := enumerate(schema, "Lane", "order", anys(score.Orders())); err != nil {
		return nil, err
	}
	if err := enumerate(schema, "Lane", "moves", anys(score.Movers())); err != nil {
		return nil, err
	}
	return encode(schema)
}

// Wire returns the schema of all messages between the page and the server.
func Wire() ([]byte, error) { return encode(reflector().Reflect(&wire{})) }

func reflector() *jsonschema.Reflector {
	return &jsonschema.Reflector{Anonymous: true, Namer: nameOf}
}

// nameOf tells the edits of takes from those of projects, which have the same names in their own packages.
func nameOf(t reflect.Type) string {
	if strings.HasSuffix(t.PkgPath(), "/take") && (t.Name() == "EditJSON" || t.Name() == "SetTrack" || t.Name() == "Track") {
		return "Take" + t.Name()
	}
	return t.Name()
}

func enumerate(schema *jsonschema.Schema, definition, property string, values []any) error {
	found, ok := schema.Definitions[definition]
	if !ok {
		return fmt.Errorf("the schema has no definition %s", definition)
	}
	field, ok := found.Properties.Get(property)
	if !ok {
		return fmt.Errorf("the schema's %s has no property %s", definition, property)
	}
	field.Enum = values
	return nil
}

func anys[T any](values []T) []any {
	list := make([]any, len(values))
	for i, v := range values {
		list[i] = v
	}
	return list
}

func encode(schema *jsonschema.Schema) ([]byte, error) {
	data, err := json.MarshalIndent(schema, "", "  ")
	if err != nil {
		return nil, fmt.Errorf("encode the schema: %w", err)
	}
	return append(data, '\n'), nil
}
