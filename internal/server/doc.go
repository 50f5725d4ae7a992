// Package server is Jettyfog's HTTP and WebSocket interface.
//
//	GET  /                      the page
//	GET  /ws                    everything that changes, see Message
//	POST /api/edits             {"revision": 5, "edit": {"changeLuck": {"number": 7}}}
//	POST /api/undo, /api/redo   {"revision": 5}
//	GET  /api/project/digest    by what a copy of the project is compared
//	GET  /api/project/clashes   what several tracks write at the same place of an output
//	GET  /api/project.json      the project as a file
//	POST /api/projects/file     a project file to keep as another project, and open: ?revision=5
//	GET  /api/lists             scales, note values and lanes to choose from
//	GET  /api/chart             how a track's lanes run through a stretch of time, and their forecast
//	POST /api/transport         {"do": "play"}, "stop", "record", "endRecording", "panic" and others
//	GET  /api/transport/chase   what brings a device up to date that plays from now on
//	GET  /api/takes/1.mid       a take as a Standard MIDI File
//
// A request that is refused changes nothing and is answered with {"error": "one sentence"}. The server
// serves this machine: it answers only requests for its own host names that come from its own page
// or from no page at all.
package server
