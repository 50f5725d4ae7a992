package score

import "sort"

// MeterChange is a meter and the bar from which it holds.
type MeterChange struct {
	// Bar counts from 0: so many bars go by before.
	Bar   int   `json:"bar" jsonschema:"minimum=1,maximum=1000000"`
	Meter Meter `json:"meter"`
}

// Bars relates ticks to bars, which are counted from 0. The zero value must not be used.
type Bars struct {
	spans []barSpan // ascending
}

// barSpan is where a meter begins to hold.
type barSpan struct {
	bar    int64
	tick   Tick
	length Tick // of a bar
	meter  Meter
}

// BarSpan is bars of one meter, as a table in which bars and beats are looked up.
type BarSpan struct {
	// Bar is the first of them, from 0, and Tick where it begins.
	Bar  int64 `json:"bar"`
	Tick Tick  `json:"tick"`
	// Length and Beat are how long a bar and a beat last.
	Length Tick `json:"length"`
	Beat   Tick `json:"beat"`
	// Groups are the beats of a bar, from 0, with which groups of beats begin; empty where the meter has none.
	Groups []int `json:"groups"`
	Meter  Meter `json:"meter"`
}

// NewBars returns bars of one meter.
func NewBars(meter Meter) Bars {
	return Bars{[]barSpan{{length: meter.Bar(), meter: meter}}}
}

// Change returns the bars with another meter from a tick on, which must come after those of all changes before. A bar
// begins there; the one before ends there, even if it is shorter than its meter says.
func (b Bars) Change(tick Tick, meter Meter) Bars {
	return Bars{append(b.spans[:len(b.spans):len(b.spans)], b.next(tick, meter))}
}

// MeterFrom is a meter and the tick from which it holds.
type MeterFrom struct {
	Tick  Tick
	Meter Meter
}

// BarsOf returns the bars of meters, the first of which holds from the beginning, as Change makes them one after the other.
func BarsOf(meters []MeterFrom) Bars {
	b := NewBars(meters[0].Meter)
	for _, change := range meters[1:] {
		b.spans = append(b.spans, b.next(change.Tick, change.Meter))
	}
	return b
}

func (b Bars) next(tick Tick, meter Meter) barSpan {
	last := b.spans[len(b.spans)-1]
	return barSpan{bar: last.bar + int64((tick-last.tick+last.length-1)/last.length), tick: tick, length: meter.Bar(), meter: meter}
}

// Bars returns the project's bars.
func (p *Project) Bars() Bars {
	bars := NewBars(p.Meter)
	for _, change := range p.MeterChanges {
		bars = bars.Change(bars.Start(int64(change.Bar)), change.Meter)
	}
	return bars
}

// At returns the bar in which a tick is; one before the beginning is in a bar before 0 of the first meter.
func (b Bars) At(tick Tick) int64 {
	span := b.spans[0]
	if len(b.spans) > 1 {
		span = b.spans[max(1, sort.Search(len(b.spans), func(i int) bool { return b.spans[i].tick > tick }))-1]
	}
	within := tick - span.tick
	if within < 0 {
		within -= span.length - 1
	}
	return span.bar + int64(within/span.length)
}

// Start returns the tick at which a bar begins.
func (b Bars) Start(bar int64) Tick {
	span := b.spanOf(bar)
	return span.tick + Tick(bar-span.bar)*span.length
}

// Meter returns that of a bar.
func (b Bars) Meter(bar int64) Meter { return b.spanOf(bar).meter }

// spanOf returns the span of a bar.
func (b Bars) spanOf(bar int64) barSpan {
	return b.spans[max(1, sort.Search(len(b.spans), func(i int) bool { return b.spans[i].bar > bar }))-1]
}

// Floor returns the last beginning of a bar that is not after a tick.
func (b Bars) Floor(tick Tick) Tick { return b.Start(b.At(tick)) }

// Ceil returns the first beginning of a bar that is not before a tick.
func (b Bars) Ceil(tick Tick) Tick { return b.Start(b.At(tick-1) + 1) }

// Last returns the meter that holds from the last change on.
func (b Bars) Last() Meter { return b.spans[len(b.spans)-1].meter }

// Changes calls yield with each meter and the tick from which it holds, but for the first, which holds from the
// beginning.
func (b Bars) Changes(yield func(Tick, Meter) bool) {
	for _, span := range b.spans[1:] {
		if !yield(span.tick, span.meter) {
			return
		}
	}
}

// Spans returns the bars as a table, ascending. Each span holds up to the next.
func (b Bars) Spans() []BarSpan {
	spans := make([]BarSpan, len(b.spans))
	for i, s := range b.spans {
		groups := []int{}
		if len(s.meter.Groups) > 0 {
			groups = s.meter.GroupStarts()
		}
		spans[i] = BarSpan{Bar: s.bar, Tick: s.tick, Length: s.length, Beat: s.meter.Beat(), Groups: groups, Meter: s.meter}
	}
	return spans
}
