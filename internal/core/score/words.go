package score

import "fmt"

// Counted says how many there are of something: "0 notes", "1 note", "2 notes". The noun takes an s.
func Counted(count int, noun string) string {
	if count == 1 {
		return "1 " + noun
	}
	return fmt.Sprintf("%d %ss", count, noun)
}
