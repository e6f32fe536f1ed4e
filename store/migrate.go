package store

import (
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
			`CREATE TABLE gear_packs (id TEXT PRIMARY KEY, position INTEGER NOT NULL, revision INTEGER NOT NULL, title TEXT NOT NULL, license TEXT NOT NULL)`,
			`CREATE TABLE gear (id TEXT PRIMARY KEY, gear_pack TEXT NOT NULL REFERENCES gear_packs(id), kind TEXT NOT NULL, position INTEGER NOT NULL,
				revision INTEGER NOT NULL, body TEXT NOT NULL CHECK (json_valid(body)))`,
			`CREATE INDEX gear_by_pack ON gear(gear_pack)`,
			`CREATE TABLE fleets (id INTEGER PRIMARY KEY CHECK (id = 1), revision INTEGER NOT NULL, body TEXT NOT NULL CHECK (json_valid(body)))`,
			`CREATE TABLE fleet_entries (kind TEXT NOT NULL, id TEXT NOT NULL, position INTEGER NOT NULL, revision INTEGER NOT NULL,
				body TEXT NOT NULL CHECK (json_valid(body)), PRIMARY KEY (kind, id))`,
			`CREATE TABLE bench_records (quad TEXT NOT NULL, step TEXT NOT NULL, done NUMERIC NOT NULL, value REAL, at DATETIME NOT NULL, PRIMARY KEY (quad, step))`,
			`CREATE TABLE counters (id INTEGER PRIMARY KEY CHECK (id = 1), revision INTEGER NOT NULL)`,
			`INSERT INTO counters (id, revision) VALUES (1, 0)`,
		),
	},
	{
		ID: "2026-11-25-board-snapshots",
		Migrate: run(
			`CREATE TABLE board_snapshots (id INTEGER PRIMARY KEY, quad TEXT NOT NULL, at DATETIME NOT NULL, why TEXT NOT NULL, body TEXT NOT NULL CHECK (json_valid(body)))`,
			`CREATE INDEX board_snapshots_by_quad ON board_snapshots(quad)`,
			`CREATE TABLE log (id INTEGER PRIMARY KEY, quad TEXT NOT NULL, at DATETIME NOT NULL, says TEXT NOT NULL)`,
			`CREATE INDEX log_by_quad ON log(quad)`,
		),
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
	return gormigrate.New(db, &options, migrations).Migrate()
}
