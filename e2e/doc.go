// Package e2e holds journeys through the real interface: the built program, served to headless
// Chromium. `make e2e` builds the program first.
package e2e
