// Package arch holds the rules of which package may import which, as a test.
package arch
