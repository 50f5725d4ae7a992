// Package schema describes Jettyfog's JSON in the words of JSON Schema 2020-12, made from the Go types
// themselves: the project file for other programs, and the server's messages for the page, whose
// TypeScript types are made from it.
package schema
