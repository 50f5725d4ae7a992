// Package wav writes voltages as a .wav of 32-bit floats, a channel a signal, and what its channels are.
package wav

import (
	"encoding/binary"
	"fmt"
	"io"

	"jettyfog/internal/core/cv"
	"jettyfog/internal/core/score"
)

// Channel says what a channel of a file is.
type Channel struct {
	// Channel is that of the file, from 1; Interface is that of the interface which it is for.
	Channel   int          `json:"channel"`
	Interface int          `json:"interface"`
	Signal    score.Signal `json:"signal"`
	// Track is the id of the track, Voice which of its voices, Part the id of the part of a kit, Mod which mod lane.
	Track int    `json:"track,omitempty"`
	Voice int    `json:"voice,omitempty"`
	Part  *int   `json:"part,omitempty"`
	Mod   int    `json:"mod,omitempty"`
	Name  string `json:"name,omitempty"`
	// FullScale is how many volts a sample of 1 is.
	FullScale float64 `json:"fullScale"`
	// Zero is the MIDI note of a pitch at 0 V, or with HertzPerVolt at 1 V.
	Zero         *int `json:"zero,omitempty"`
	HertzPerVolt bool `json:"hertzPerVolt,omitempty"`
	// Begins is how many seconds before bar 1 the file begins.
	Begins float64 `json:"begins,omitempty"`
	// Beyond says what was beyond the channel's range.
	Beyond string `json:"beyond,omitempty"`
}

// Channels says what the channels of a file are, in order.
func Channels(p *score.Project, v *cv.Voltages) []Channel {
	channels := []Channel{}
	for i, c := range v.Channels {
		channel := Channel{
			Channel: i + 1, Interface: c.VoltageChannel.Channel, Signal: c.Signal, Track: c.Track,
			FullScale: v.FullScale, Begins: float64(-v.From) / second, Beyond: c.Beyond(),
		}
		if track := p.Track(c.Track); track != nil {
			channel.Name = track.Name
		}
		switch c.Signal {
		case score.PitchSignal:
			channel.Voice, channel.Zero, channel.HertzPerVolt = c.Voice, &c.Zero, c.HertzPerVolt
		case score.GateSignal, score.VelocitySignal:
			channel.Voice = c.Voice
		case score.TriggerSignal:
			channel.Part = &c.Part
		case score.ModSignal:
			channel.Mod = c.Mod
		}
		channels = append(channels, channel)
	}
	return channels
}

const (
	second      = 1_000_000_000
	sampleBytes = 4
	header      = 80                   // bytes before the samples
	maxBytes    = 1<<32 - 1 + riffHead // a .wav counts its bytes in 32 bits
	riffHead    = 8                    // which are not counted
)

// Frames returns how many samples a channel of a file has: to the end, and until all is at rest.
func Frames(v *cv.Voltages, rate int) int64 {
	rests := int64(0)
	for _, c := range v.Channels {
		rests = max(rests, int64(c.Slew)*second/10_000)
	}
	whole, rest := (v.End+rests-v.From)/second, (v.End+rests-v.From)%second
	return whole*int64(rate) + (rest*int64(rate)+second-1)/second + 1
}

// TooLongError says that a file would not hold what is to be written.
type TooLongError struct {
	Bytes   int64
	Seconds int64 // that it would hold
}

func (e *TooLongError) Error() string {
	return fmt.Sprintf("the .wav would have %.1f GiB, and holds 4 at most: render %d seconds at most, fewer channels, or at a lower rate", float64(e.Bytes)/(1<<30), e.Seconds)
}

// Check refuses voltages that a file at a rate a second would not hold. The error is a *TooLongError.
func Check(v *cv.Voltages, rate int) error {
	frame := int64(len(v.Channels) * sampleBytes)
	if bytes := Frames(v, rate)*frame + header; bytes > maxBytes {
		return &TooLongError{bytes, (maxBytes - header) / (frame * int64(rate))}
	}
	return nil
}

// Write writes voltages at a rate a second, from the first byte to the last. The error is that of Check, before anything is written, or
// what writing said.
func Write(w io.Writer, v *cv.Voltages, rate int) error {
	if err := Check(v, rate); err != nil {
		return err
	}
	frames, channels := Frames(v, rate), len(v.Channels)
	if err := binary.Write(w, binary.LittleEndian, headerOf(uint32(frames), uint16(channels), uint32(rate))); err != nil {
		return fmt.Errorf("write the header: %w", err)
	}
	block := make([]float32, rate*channels)
	for first := int64(0); first < frames; first += int64(rate) {
		samples := block[:min(int64(rate), frames-first)*int64(channels)]
		for i, c := range v.Channels {
			c.Line.Samples(v.From, rate, first, v.FullScale, samples[i:], channels)
		}
		if err := binary.Write(w, binary.LittleEndian, samples); err != nil {
			return fmt.Errorf("write the samples: %w", err)
		}
	}
	return nil
}

// fileHeader is what stands before the samples: the format of 32-bit floats (WAVE_FORMAT_IEEE_FLOAT in RFC 2361), with the empty extension and
// the number of frames that Microsoft's "Multimedia Programming Interface and Data Specifications" asks of what is no PCM.
type fileHeader struct {
	Riff                              [4]byte
	Size                              uint32 // of all that follows
	Wave, Fmt                         [4]byte
	FmtSize                           uint32
	Format, Channels                  uint16
	Rate, BytesASecond                uint32
	FrameBytes, SampleBits, Extension uint16
	Fact                              [4]byte
	FactSize, Frames                  uint32
	Data                              [4]byte
	DataSize                          uint32
}

func headerOf(frames uint32, channels uint16, rate uint32) fileHeader {
	const ieeeFloat, fmtSize, factSize = 3, 18, 4
	h := fileHeader{
		Riff: [4]byte([]byte("RIFF")), Wave: [4]byte([]byte("WAVE")), Fmt: [4]byte([]byte("fmt ")), Fact: [4]byte([]byte("fact")), Data: [4]byte([]byte("data")),
		FmtSize: fmtSize, Format: ieeeFloat, Channels: channels, Rate: rate, BytesASecond: rate * uint32(channels) * sampleBytes,
		FrameBytes: channels * sampleBytes, SampleBits: 8 * sampleBytes, FactSize: factSize, Frames: frames, DataSize: frames * uint32(channels) * sampleBytes,
	}
	h.Size = header - riffHead + h.DataSize
	return h
}
