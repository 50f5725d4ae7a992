package score

import "slices"

// withVoltages gives the demo an output of voltages: the bass's pitch, gate and velocity, a trigger for each part of the kit, and a
// clock. Channels 1 and 2 of an interface are left to loudspeakers.
func withVoltages(p *Project) *Project {
	const modular = 9
	setup := &VoltageSetup{FullScale: 10_000, Silence: 20}
	add := func(signal Signal, track int) *VoltageChannel {
		channel := NewVoltageChannel(3+len(setup.Channels), signal)
		channel.Track = track
		setup.Channels = append(setup.Channels, channel)
		return &setup.Channels[len(setup.Channels)-1]
	}
	bass, kit := &p.Tracks[1], &p.Tracks[2]
	add(PitchSignal, bass.ID).Lead = 10
	add(GateSignal, bass.ID)
	add(VelocitySignal, bass.ID).Lead = 10
	for _, part := range kit.Parts() {
		add(TriggerSignal, kit.ID).Part = part.ID
	}
	add(ClockSignal, 0)
	add(RunSignal, 0)
	p.Outputs = []Output{{ID: modular, Name: "Modular", Kind: Voltages, Voltages: setup}}
	for _, track := range []*Track{bass, kit} {
		routes := append(slices.Clone(track.RouteList()), WholeRoute(modular))
		track.Routes = &routes
	}
	return p
}
