package store

// severalProjects makes of the one document the first of several projects, each with a history, live changes and takes of its
// own. A revision belongs to the project of the last opening at it or before it.
const severalProjects = `
CREATE TABLE projects (
	id       INTEGER PRIMARY KEY AUTOINCREMENT,
	name     TEXT    NOT NULL,
	changed  INTEGER NOT NULL,
	deleted  INTEGER NOT NULL DEFAULT 0,
	rest     TEXT    NOT NULL,
	revision INTEGER NOT NULL,
	position INTEGER NOT NULL
) STRICT;
CREATE TABLE project_tracks (
	project_id INTEGER NOT NULL REFERENCES projects (id) ON DELETE CASCADE,
	place      INTEGER NOT NULL,
	digest     TEXT    NOT NULL,
	track      TEXT    NOT NULL,
	PRIMARY KEY (project_id, place)
) STRICT, WITHOUT ROWID;
CREATE TABLE project_changes (
	project_id INTEGER NOT NULL REFERENCES projects (id) ON DELETE CASCADE,
	position   INTEGER NOT NULL,
	edit       TEXT    NOT NULL,
	inverse    TEXT    NOT NULL,
	text       TEXT    NOT NULL,
	by_place   INTEGER NOT NULL,
	PRIMARY KEY (project_id, position)
) STRICT, WITHOUT ROWID;
CREATE TABLE project_stages (
	project_id INTEGER PRIMARY KEY REFERENCES projects (id) ON DELETE CASCADE,
	changes    TEXT    NOT NULL
) STRICT;
CREATE TABLE openings (
	revision   INTEGER PRIMARY KEY,
	project_id INTEGER NOT NULL REFERENCES projects (id)
) STRICT;
INSERT INTO projects (id, name, changed, rest, revision, position)
	SELECT 1, json_extract(project, '$.project.name'), CAST(strftime('%s') AS INTEGER), project, revision, position FROM documents;
INSERT INTO project_tracks SELECT 1, place, digest, track FROM document_tracks WHERE EXISTS (SELECT 1 FROM documents);
INSERT INTO project_changes SELECT 1, position, edit, inverse, text, by_place FROM changes WHERE EXISTS (SELECT 1 FROM documents);
INSERT INTO project_stages SELECT 1, changes FROM stages WHERE EXISTS (SELECT 1 FROM documents);
INSERT INTO openings SELECT 0, 1 FROM documents;
DROP TABLE document_tracks;
DROP TABLE changes;
DROP TABLE stages;
DROP TABLE documents;
ALTER TABLE takes ADD COLUMN project_id INTEGER NOT NULL DEFAULT 1;
CREATE INDEX takes_of_projects ON takes (project_id, wake, id);`
