package cv

// Point is a voltage at a moment, in nanoseconds.
type Point struct {
	At    int64
	Volts float64
}

// bendPoints is by how many points a bent segment is drawn.
const bendPoints = 12

// Points returns how a line goes in [from, to), to be joined by straight lines: an edge is two points at one moment. Of more segments than
// are asked for only the first are drawn, and whole is false.
func (l Line) Points(from, to int64, most int) (points []Point, whole bool) {
	for _, s := range l {
		if s.To <= from || s.From >= to {
			continue
		}
		if most--; most < 0 {
			return points, false
		}
		begin, end := max(s.From, from), min(s.To, to)
		between := 1
		if s.Bend > 0 {
			between = bendPoints
		}
		for i := range between + 1 {
			at := begin + (end-begin)*int64(i)/int64(between)
			points = append(points, Point{at, s.At(float64(at))})
		}
	}
	return points, true
}
