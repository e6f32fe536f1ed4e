package store

import (
	"errors"

	"github.com/go-gormigrate/gormigrate/v2"
	"gorm.io/gorm"
)

// migrations bring the tables up to date, in order. One that has been released
// is never changed; a new one is added below it. They are plain SQL, so that
// they do not move with the Go types.
var migrations = []*gormigrate.Migration{
	{
		ID: "2026-11-24-first",
		Migrate: run(
			`CREATE TABLE gear_packs (id TEXT PRIMARY KEY, position INTEGER NOT NULL, revision INTEGER NOT NULL,
				title TEXT NOT NULL, license TEXT NOT NULL)`,
			`CREATE TABLE gear (id TEXT PRIMARY KEY, gear_pack TEXT NOT NULL REFERENCES gear_packs(id),
				kind TEXT NOT NULL, position INTEGER NOT NULL,
				revision INTEGER NOT NULL, body TEXT NOT NULL CHECK (json_valid(body)))`,
			`CREATE INDEX gear_by_pack ON gear(gear_pack)`,
			`CREATE TABLE fleets (id INTEGER PRIMARY KEY CHECK (id = 1), revision INTEGER NOT NULL,
				body TEXT NOT NULL CHECK (json_valid(body)))`,
			`CREATE TABLE fleet_entries (kind TEXT NOT NULL, id TEXT NOT NULL, position INTEGER NOT NULL,
				revision INTEGER NOT NULL,
				body TEXT NOT NULL CHECK (json_valid(body)), PRIMARY KEY (kind, id))`,
			`CREATE TABLE bench_records (quad TEXT NOT NULL, step TEXT NOT NULL, done NUMERIC NOT NULL, value REAL,
				at DATETIME NOT NULL, PRIMARY KEY (quad, step))`,
			`CREATE TABLE counters (id INTEGER PRIMARY KEY CHECK (id = 1), revision INTEGER NOT NULL)`,
			`INSERT INTO counters (id, revision) VALUES (1, 0)`,
		),
	},
	{
		ID: "2026-11-25-board-snapshots",
		Migrate: run(
			`CREATE TABLE board_snapshots (id INTEGER PRIMARY KEY, quad TEXT NOT NULL, at DATETIME NOT NULL,
				why TEXT NOT NULL, body TEXT NOT NULL CHECK (json_valid(body)))`,
			`CREATE INDEX board_snapshots_by_quad ON board_snapshots(quad)`,
			`CREATE TABLE log (id INTEGER PRIMARY KEY, quad TEXT NOT NULL, at DATETIME NOT NULL, says TEXT NOT NULL)`,
			`CREATE INDEX log_by_quad ON log(quad)`,
		),
	},
	{
		ID: "2026-11-26-events",
		Migrate: run(
			`CREATE TABLE events (id INTEGER PRIMARY KEY, at DATETIME NOT NULL, change INTEGER NOT NULL DEFAULT 0,
				who TEXT NOT NULL DEFAULT '',
				does TEXT NOT NULL DEFAULT '', kind TEXT NOT NULL DEFAULT '', entry TEXT NOT NULL DEFAULT '',
				pack TEXT NOT NULL DEFAULT '',
				quad TEXT NOT NULL DEFAULT '', life INTEGER NOT NULL DEFAULT 0, says TEXT NOT NULL DEFAULT '', before BLOB,
				after BLOB)`,
			`CREATE INDEX events_by_change ON events(change)`,
			`CREATE INDEX events_by_quad ON events(quad, life, id)`,
			`CREATE INDEX events_by_time ON events(at)`,
			`INSERT INTO events (at, quad, says) SELECT at, quad, says FROM log ORDER BY id`,
			`DROP TABLE log`,
			`ALTER TABLE fleet_entries ADD COLUMN life INTEGER NOT NULL DEFAULT 0`,
			`CREATE TABLE bench_records_2 (quad TEXT NOT NULL, life INTEGER NOT NULL, step TEXT NOT NULL,
				done NUMERIC NOT NULL, value REAL, at DATETIME NOT NULL,
				PRIMARY KEY (quad, life, step))`,
			`INSERT INTO bench_records_2 SELECT quad, 0, step, done, value, at FROM bench_records`,
			`DROP TABLE bench_records`,
			`ALTER TABLE bench_records_2 RENAME TO bench_records`,
			`ALTER TABLE board_snapshots ADD COLUMN life INTEGER NOT NULL DEFAULT 0`,
			`DROP INDEX board_snapshots_by_quad`,
			`CREATE INDEX board_snapshots_by_quad ON board_snapshots(quad, life, id)`,
			`CREATE TABLE sessions (id INTEGER PRIMARY KEY, hash TEXT NOT NULL UNIQUE, name TEXT NOT NULL,
				at DATETIME NOT NULL)`,
		),
	},
	{
		ID:      "2026-11-27-settings-text",
		Migrate: run(`ALTER TABLE board_snapshots ADD COLUMN text TEXT NOT NULL DEFAULT ''`),
	},
	{
		ID:      "2026-11-27-named-snapshots",
		Migrate: run(`ALTER TABLE board_snapshots ADD COLUMN name TEXT NOT NULL DEFAULT ''`),
	},
	{
		ID: "2026-11-28-recordings",
		Migrate: run(
			`CREATE TABLE recordings (id INTEGER PRIMARY KEY, flight TEXT NOT NULL, name TEXT NOT NULL, at DATETIME NOT NULL,
				signature TEXT NOT NULL, means TEXT NOT NULL CHECK (json_valid(means)),
				marks TEXT NOT NULL CHECK (json_valid(marks)), body BLOB NOT NULL)`,
			`CREATE INDEX recordings_by_flight ON recordings(flight, id)`,
			`CREATE INDEX recordings_by_signature ON recordings(signature, id)`,
		),
	},
	{
		ID: "2026-11-28-the-log",
		Migrate: run(
			`CREATE INDEX events_of_log ON events(id, at, change, who, does, kind, entry, quad, life, says)`,
			`CREATE INDEX events_of_entry ON events(kind, entry, id, at, change)`,
		),
	},
	{
		ID: "2026-11-29-photos",
		Migrate: run(
			`CREATE TABLE photos (id INTEGER PRIMARY KEY, quad TEXT NOT NULL, life INTEGER NOT NULL, "of" TEXT NOT NULL,
				"key" TEXT NOT NULL, label TEXT NOT NULL, moment TEXT NOT NULL, words TEXT NOT NULL, at DATETIME NOT NULL,
				wide INTEGER NOT NULL, high INTEGER NOT NULL, marks TEXT NOT NULL CHECK (json_valid(marks)),
				body BLOB NOT NULL)`,
			`CREATE INDEX photos_by_quad ON photos(quad, life, id)`,
		),
	},
	{
		ID:      "2026-11-29-photos-let-go",
		Migrate: run(`ALTER TABLE photos ADD COLUMN let_go INTEGER NOT NULL DEFAULT 0`),
	},
}

func run(statements ...string) gormigrate.MigrateFunc {
	return func(tx *gorm.DB) error {
		for _, sql := range statements {
			if err := tx.Exec(sql).Error; err != nil {
				return err
			}
		}
		return nil
	}
}

func migrate(db *gorm.DB) error {
	options := *gormigrate.DefaultOptions
	options.UseTransaction = true
	options.ValidateUnknownMigrations = true // a database from a newer program is refused
	err := gormigrate.New(db, &options, migrations).Migrate()
	if errors.Is(err, gormigrate.ErrUnknownPastMigration) {
		return errors.New("it was written by a later release of this program: use that one; nothing was changed")
	}
	return err
}
