package store

import (
	"fmt"
	"path/filepath"
	"strings"

	"github.com/glebarez/sqlite"
	"github.com/go-gormigrate/gormigrate/v2"
	"gorm.io/gorm"
	"gorm.io/gorm/logger"
)

// Settle sets the one connection that is left, for the tests: full at the size the file has,
// read-only, impatient.
func (s *Store) Settle(pragmas ...string) error {
	db, err := s.db.DB()
	if err != nil {
		return err
	}
	db.SetMaxOpenConns(1)
	for _, p := range pragmas {
		if err := s.db.Exec("PRAGMA " + p).Error; err != nil {
			return err
		}
	}
	return nil
}

// Exec runs a statement, for the tests.
func (s *Store) Exec(sql string) error { return s.db.Exec(sql).Error }

// Migrations are the ids of the migrations there are, for the tests.
func Migrations() (ids []string) {
	for _, m := range migrations {
		ids = append(ids, m.ID)
	}
	return ids
}

// Pragma reads a setting of the database, for the tests.
func (s *Store) Pragma(name string) (value string, err error) {
	err = s.db.Raw("PRAGMA " + name).Scan(&value).Error
	return value, err
}

// OldDatabase makes a database as an earlier release left it: the first migrations, with
// something in every table of theirs.
func OldDatabase(dir string, upTo int) error {
	at, err := address(filepath.Join(dir, FileName))
	if err != nil {
		return err
	}
	db, err := gorm.Open(sqlite.Open(at), &gorm.Config{Logger: logger.Default.LogMode(logger.Silent)})
	if err != nil {
		return err
	}
	if err := gormigrate.New(db, gormigrate.DefaultOptions, migrations[:upTo]).Migrate(); err != nil {
		return err
	}
	rows := []string{
		`INSERT INTO fleets VALUES (1, 2, '{"format":"fleet","version":1,"title":"Old fleet"}')`,
		`INSERT INTO fleet_entries (kind, id, position, revision, body) VALUES ('quad', 'old', 0, 3, '{"id":"old","name":"Old","now":{}}')`,
		`UPDATE counters SET revision = 3`,
	}
	life, log := "", "log"
	if upTo >= 3 { // a quad has lives since, and what happened is an event
		life, log = "life, ", "events"
	}
	rows = append(rows, fmt.Sprintf(`INSERT INTO bench_records (%squad, step, done, value, at)
		VALUES (%s'old', 'no-short', 1, 5100, '2026-01-02T10:00:00Z')`, life, strings.ReplaceAll(life, "life", "0")))
	if upTo >= 2 {
		rows = append(rows,
			`INSERT INTO `+log+` (quad, at, says) VALUES ('old', '2026-01-02T10:00:00Z', 'flew')`,
			`INSERT INTO board_snapshots (quad, at, why, body) VALUES ('old', '2026-01-02T10:00:00Z', 'by hand', '{}')`)
	}
	for _, sql := range rows {
		if err := db.Exec(sql).Error; err != nil {
			return err
		}
	}
	raw, err := db.DB()
	if err != nil {
		return err
	}
	return raw.Close()
}
