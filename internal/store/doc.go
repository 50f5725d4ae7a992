// Package store keeps the open project, its history and all takes in one SQLite file.
//
// Every write is a transaction that is on disk when the call returns. Rows and their GORM tags never
// leave this package.
package store
