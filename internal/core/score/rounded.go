package score

// Rounded divides and rounds to the nearest, halves away from 0. The divisor is positive.
func Rounded(number, by int) int {
	if number < 0 {
		return -Rounded(-number, by)
	}
	return (2*number + by) / (2 * by)
}
