// Package testkit draws random documents and edits for the property tests of the core. A feature
// that it does not draw is not tested, so it grows with the document.
package testkit
