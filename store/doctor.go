package store

import (
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"time"

	"github.com/glebarez/sqlite"
	"gorm.io/gorm"
	"gorm.io/gorm/logger"

	"yokeswap/core/facts/stock"
)

// Ailment is what is wrong with a database, and what was or can be done.
type Ailment struct {
	Says   string
	Mended bool
}

// Doctor looks a database through and, where it is asked to, mends what it can from the
// database's own history. A copy of the database is kept before anything is changed.
func Doctor(dir string, mend bool, at time.Time) ([]Ailment, error) {
	path := filepath.Join(dir, FileName)
	if _, err := os.Stat(path); err != nil {
		return nil, fmt.Errorf("%w in %s: is it the right folder?", ErrNoDatabase, dir)
	}
	where, err := address(path)
	if err != nil {
		return nil, err
	}
	d := doctor{Store: &Store{dir: dir}, mend: mend}
	d.db, err = gorm.Open(sqlite.Open(where), &gorm.Config{Logger: logger.Default.LogMode(logger.Silent),
		SkipDefaultTransaction: true})
	if err != nil {
		return nil, d.inWords(fmt.Errorf("open the database in %s: %w", dir, err))
	}
	defer d.Close()
	if err := d.Check(); err != nil {
		return []Ailment{
			{Says: err.Error() + ": the file itself is damaged. Restore a backup, or one of the copies that lie " +
				"beside it (" + FileName + ".before-…)."},
		}, nil
	}
	if mend {
		kept := path + ".before-doctor-" + at.UTC().Format("20060102-150405.000000000")
		if err := d.db.Exec("VACUUM INTO ?", kept).Error; err != nil {
			return nil, d.inWords(fmt.Errorf("keep a copy before anything is changed: %w", err))
		}
		_ = os.Chmod(kept, 0o600)
	}
	if err := d.tables(); err != nil {
		return d.found, err
	}
	return d.found, d.rows(at)
}

type doctor struct {
	*Store
	mend  bool
	found []Ailment
}

func (d *doctor) find(mended bool, says string, args ...any) {
	d.found = append(d.found, Ailment{fmt.Sprintf(says, args...), mended})
}

// tables makes those anew that are missing, empty.
func (d *doctor) tables() error {
	model, err := gorm.Open(sqlite.Open(":memory:"), &gorm.Config{Logger: logger.Default.LogMode(logger.Silent)})
	if err != nil {
		return err
	}
	raw, err := model.DB()
	if err != nil {
		return err
	}
	raw.SetMaxOpenConns(1)
	defer raw.Close()
	if err := migrate(model); err != nil {
		return err
	}
	for _, name := range append([]string{"migrations"}, tables...) {
		if d.db.Migrator().HasTable(name) {
			continue
		}
		if !d.mend {
			d.find(false, "The table %q is missing: --repair makes it anew, empty.", name)
			continue
		}
		var made []string
		const howMade = "SELECT sql FROM sqlite_master WHERE tbl_name = ? AND sql IS NOT NULL ORDER BY type DESC"
		if err := model.Raw(howMade, name).Scan(&made).Error; err != nil {
			return err
		}
		for _, sql := range made {
			if err := d.db.Exec(sql).Error; err != nil {
				return fmt.Errorf("make the table %q anew: %w", name, err)
			}
		}
		switch name {
		case "counters":
			err = d.db.Exec("INSERT INTO counters (id, revision) VALUES (1, 1 + COALESCE((SELECT MAX(revision) " +
				"FROM fleet_entries), 0))").Error
		case "migrations":
			for _, m := range migrations {
				err = errors.Join(err, d.db.Exec("INSERT INTO migrations (id) VALUES (?)", m.ID).Error)
			}
		}
		if err != nil {
			return err
		}
		d.find(true, "The table %q was missing: it has been made anew, empty.", name)
	}
	return nil
}

// rows looks at every entry; one that cannot be read is brought back to what its history
// last had of it, or put aside into a file.
func (d *doctor) rows(at time.Time) error {
	for _, name := range []string{"counters", "gear", "fleet_entries", "events"} {
		if !d.db.Migrator().HasTable(name) {
			return nil
		}
	}
	snap, err := load(d.db)
	if err != nil {
		return d.inWords(err)
	}
	for _, a := range snap.Aside {
		if !d.mend {
			d.find(false, "%s cannot be read (%s): --repair brings back what the history last had of it.", a.Ref, a.Why)
			continue
		}
		if err := d.mendRow(a, at); err != nil {
			return err
		}
	}
	return nil
}

func (d *doctor) mendRow(a stock.Aside, at time.Time) error {
	var events []eventRow
	if err := d.db.Where("kind = ? AND entry = ?", a.Kind, a.ID).Order("id DESC").Find(&events).Error; err != nil {
		return d.inWords(err)
	}
	table, which, args := "fleet_entries", "kind = ? AND id = ?", []any{a.Kind, a.ID}
	if a.Gear {
		table, which, args = "gear", "id = ?", []any{a.ID}
	}
	for i := range events {
		body, err := unsqueezed(events[i].After)
		if err != nil || body == nil || readable(a.Ref, body) != nil {
			continue
		}
		if err := d.db.Table(table).Where(which, args...).Update("body", string(body)).Error; err != nil {
			return d.inWords(err)
		}
		d.find(true, "%s could not be read: it is as it was on %s again.", a.Ref, events[i].At.Format("2006-01-02 15:04"))
		return nil
	}
	file := filepath.Join(d.dir, "set-aside-"+at.UTC().Format("20060102-150405.000000000")+".jsonl")
	f, err := os.OpenFile(file, os.O_WRONLY|os.O_CREATE|os.O_APPEND, 0o600)
	if err != nil {
		return fmt.Errorf("put %s aside: %w", a.Ref, err)
	}
	defer f.Close()
	if err := json.NewEncoder(f).Encode(a); err != nil {
		return fmt.Errorf("put %s aside: %w", a.Ref, err)
	}
	if err := d.db.Exec("DELETE FROM "+table+" WHERE "+which, args...).Error; err != nil {
		return d.inWords(err)
	}
	d.find(true, "%s could not be read and has no history: what there is of it lies in %s.", a.Ref, file)
	return nil
}

// readable says whether a body is an entry of a kind.
func readable(ref stock.Ref, body []byte) error {
	st := stock.New()
	return st.Put(ref, stock.OwnSet, body)
}
