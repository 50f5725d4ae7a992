package score

// Euclid returns n steps of which k, as evenly spaced as whole steps allow, are On and the others Off:
// the Euclidean rhythm E(k,n) of Toussaint, "The Euclidean Algorithm Generates Traditional Musical
// Rhythms", Proceedings of BRIDGES 2005, by Bjorklund's algorithm. k is 0 to n.
func Euclid(k, n int) []int {
	if n <= 0 {
		return nil
	}
	k = min(max(k, 0), n)
	var heads, tails [][]int
	for i := range n {
		if i < k {
			heads = append(heads, []int{On})
		} else {
			tails = append(tails, []int{Off})
		}
	}
	// Pairs heads with tails, once and then until at most one tail is left over, as Euclid's algorithm
	// divides.
	for first := true; len(heads) > 0 && (len(tails) > 1 || first && len(tails) == 1); first = false {
		pairs := min(len(heads), len(tails))
		for i := range pairs {
			heads[i] = append(heads[i], tails[i]...)
		}
		if len(heads) > pairs {
			heads, tails = heads[:pairs], heads[pairs:]
		} else {
			tails = tails[pairs:]
		}
	}
	rhythm := make([]int, 0, n)
	for _, group := range append(heads, tails...) {
		rhythm = append(rhythm, group...)
	}
	return rhythm
}
