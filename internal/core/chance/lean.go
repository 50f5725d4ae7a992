package chance

// Lean returns a number x in [0, 1), as x·(1<<32), that tends to one end. With l = lean/100 its density
// is
//
//	1 - l + 3·l·x²           for a lean from 0 to 100
//	1 - |l| + 3·|l|·(1-x)²   for a lean from -100 to 0
//
// It is a mixture: in l of all cases the largest of three even numbers, whose density is 3·x², else
// one of them. So whole numbers suffice and every machine draws the same.
func Lean(a Address, lean int) uint32 {
	mixture, x, y, z := Draw4(a)
	strength := max(lean, -lean)
	if uint64(mixture)*100 >= uint64(strength)<<32 {
		return x
	}
	if lean < 0 {
		return ^max(x, y, z)
	}
	return max(x, y, z)
}

// LeanDensity returns the density of Lean at x, for curves and tests.
func LeanDensity(x float64, lean int) float64 {
	l := float64(lean) / 100
	if l < 0 {
		l, x = -l, 1-x
	}
	return 1 - l + 3*l*x*x
}

// LeanBelow returns how likely Lean is below x.
func LeanBelow(x float64, lean int) float64 {
	l := float64(lean) / 100
	if l < 0 {
		y := 1 - x
		return 1 - ((1+l)*y - l*y*y*y)
	}
	return (1-l)*x + l*x*x*x
}
