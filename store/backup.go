package store

import (
	"bufio"
	"bytes"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"hash"
	"io"
	"os"
	"path/filepath"
	"time"

	"gorm.io/gorm"

	"yokeswap/core/facts/stock"
)

// A backup is all that is kept, in one file of lines of JSON: a head, a line for each row
// of each table, and an end that says how many there were and what they hash to
// (docs/format/backup.md). Who was let in is not part of it.

// BackupFormat and BackupVersion mark a backup that this program reads and writes.
const (
	BackupFormat  = "yokeswap-backup"
	BackupVersion = 4
)

type backupHead struct {
	Format  string    `json:"format"`
	Version int       `json:"version"`
	At      time.Time `json:"at"`
}

type backupLine struct {
	Table string          `json:"table,omitempty"`
	Row   json.RawMessage `json:"row,omitempty"`
	End   *backupEnd      `json:"end,omitempty"`
}

type backupEnd struct {
	Rows   int    `json:"rows"`
	SHA256 string `json:"sha256"` // of all lines before
}

// table is one table of the backup, by the type of its rows.
type table struct {
	name  string
	write func(tx *gorm.DB, each func(row any) error) error
	add   func(tx *gorm.DB, row []byte) error
	clear func(tx *gorm.DB) error
}

func tableOf[T any](name string) table {
	return table{
		name: name,
		write: func(tx *gorm.DB, each func(row any) error) error {
			rows, err := tx.Model(new(T)).Order("rowid").Rows()
			if err != nil {
				return err
			}
			defer rows.Close()
			for rows.Next() {
				var row T
				if err := tx.ScanRows(rows, &row); err != nil {
					return err
				}
				if err := each(row); err != nil {
					return err
				}
			}
			return rows.Err()
		},
		add: func(tx *gorm.DB, body []byte) error {
			var row T
			dec := json.NewDecoder(bytes.NewReader(body))
			dec.DisallowUnknownFields()
			if err := dec.Decode(&row); err != nil {
				return err
			}
			return tx.Create(&row).Error
		},
		clear: func(tx *gorm.DB) error { return tx.Where("1 = 1").Delete(new(T)).Error },
	}
}

// backedUp are the tables in the order they can be filled in.
var backedUp = []table{
	tableOf[setRow]("gear_packs"),
	tableOf[gearRow]("gear"),
	tableOf[fleetRow]("fleets"),
	tableOf[entryRow]("fleet_entries"),
	tableOf[benchRow]("bench_records"),
	tableOf[boardRow]("board_snapshots"),
	tableOf[recordingRow]("recordings"),
	tableOf[photoRow]("photos"),
	tableOf[eventRow]("events"),
	tableOf[counterRow]("counters"),
}

// Backup writes all that is kept, as it is at one moment.
func (s *Store) Backup(out io.Writer, at time.Time) (rows int, err error) {
	sum := sha256.New()
	lines := json.NewEncoder(io.MultiWriter(out, sum))
	lines.SetEscapeHTML(false)
	if err := lines.Encode(backupHead{BackupFormat, BackupVersion, at.UTC().Truncate(time.Second)}); err != nil {
		return 0, fmt.Errorf("write the backup: %w", err)
	}
	err = s.db.Transaction(func(tx *gorm.DB) error {
		for _, t := range backedUp {
			err := t.write(tx, func(row any) error {
				body, err := json.Marshal(row)
				if err != nil {
					return err
				}
				rows++
				return lines.Encode(backupLine{Table: t.name, Row: body})
			})
			if err != nil {
				return fmt.Errorf("table %s: %w", t.name, err)
			}
		}
		return nil
	})
	if err != nil {
		return 0, s.inWords(fmt.Errorf("write the backup: %w", err))
	}
	end := backupLine{End: &backupEnd{Rows: rows, SHA256: hex.EncodeToString(sum.Sum(nil))}}
	if err := lines.Encode(end); err != nil {
		return 0, fmt.Errorf("write the backup: %w", err)
	}
	return rows, nil
}

// BackupTo writes a backup to a file, reads it again to check it, and only then gives it
// its name.
func (s *Store) BackupTo(path string, at time.Time) (rows int, err error) {
	f, err := os.CreateTemp(filepath.Dir(path), ".backup-*")
	if err != nil {
		return 0, fmt.Errorf("write the backup: %w", err)
	}
	defer os.Remove(f.Name())
	defer f.Close()
	if rows, err = s.Backup(f, at); err != nil {
		return 0, err
	}
	if err := f.Sync(); err != nil {
		return 0, fmt.Errorf("write the backup: %w", err)
	}
	if _, err := f.Seek(0, io.SeekStart); err != nil {
		return 0, fmt.Errorf("check the backup: %w", err)
	}
	if read, err := CheckBackup(f); err != nil || read != rows {
		return 0, fmt.Errorf("check the backup: %d of %d rows, %w", read, rows, err)
	}
	if err := os.Rename(f.Name(), path); err != nil {
		return 0, fmt.Errorf("write the backup: %w", err)
	}
	return rows, nil
}

// CheckBackup reads a backup through: is it whole?
func CheckBackup(in io.Reader) (rows int, err error) {
	return readBackup(in, func(string, []byte) error { return nil })
}

// maxLine is the longest line of a backup: a flight board's settings take some kB, the
// largest entry less than a MB.
const maxLine = 16 << 20

func readBackup(in io.Reader, take func(table string, row []byte) error) (rows int, err error) {
	lines := bufio.NewScanner(in)
	lines.Buffer(make([]byte, 64<<10), maxLine)
	sum := sha256.New()
	number := 0
	for lines.Scan() {
		number++
		line := lines.Bytes()
		if number == 1 {
			var head backupHead
			if err := json.Unmarshal(line, &head); err != nil || head.Format != BackupFormat {
				return 0, errors.New("line 1: this is no backup of Yoke Swap")
			}
			if head.Version < 1 || head.Version > BackupVersion {
				return 0, fmt.Errorf("line 1: a backup of version %d; this program reads up to version %d", head.Version,
					BackupVersion)
			}
			hashLine(sum, line)
			continue
		}
		var l backupLine
		if err := json.Unmarshal(line, &l); err != nil {
			return rows, fmt.Errorf("line %d: %w", number, err)
		}
		if l.End != nil {
			if l.End.Rows != rows || l.End.SHA256 != hex.EncodeToString(sum.Sum(nil)) {
				return rows, fmt.Errorf("line %d: the backup has been changed or is not whole", number)
			}
			if lines.Scan() {
				return rows, fmt.Errorf("line %d: more after the end", number+1)
			}
			return rows, nil
		}
		hashLine(sum, line)
		rows++
		if err := take(l.Table, l.Row); err != nil {
			return rows, fmt.Errorf("line %d: %w", number, err)
		}
	}
	if err := lines.Err(); err != nil {
		return rows, fmt.Errorf("line %d: %w", number+1, err)
	}
	return rows, fmt.Errorf("it ends after line %d: the backup was cut short", number)
}

func hashLine(sum hash.Hash, line []byte) {
	_, _ = sum.Write(line)
	_, _ = sum.Write([]byte("\n"))
}

// ErrNotEmpty says that there is something already where a backup shall go.
var ErrNotEmpty = errors.New("there is something here already; nothing was changed")

// Restore puts a backup in the place of all that is kept, whole or not at all. Where there
// is something already it must be said that it may go; a copy of it stays beside the
// database.
func (s *Store) Restore(
	in io.Reader,
	replace bool,
	check func(*stock.Stock) error,
	at time.Time,
) (rows int, err error) {
	snap, err := s.Snapshot()
	if err != nil {
		return 0, err
	}
	if snap.Revision > 0 {
		if !replace {
			return 0, ErrNotEmpty
		}
		kept := filepath.Join(s.dir, FileName+".before-restore-"+at.UTC().Format("20060102-150405.000000000"))
		if err := s.db.Exec("VACUUM INTO ?", kept).Error; err != nil {
			return 0, s.writing(fmt.Errorf("keep a copy of what is here: %w", err))
		}
		_ = os.Chmod(kept, 0o600)
	}
	err = s.change(func(tx *gorm.DB) (*Snapshot, error) {
		var err error
		if rows, err = fill(tx, in); err != nil {
			return nil, err
		}
		// A page that still shows what was here before is behind.
		var counter counterRow
		if err := tx.First(&counter, 1).Error; err != nil {
			return nil, errors.New("it counts no changes: it is not whole")
		}
		counter.Revision = max(counter.Revision, snap.Revision) + 1
		if err := tx.Save(&counter).Error; err != nil {
			return nil, err
		}
		after, err := load(tx)
		if err != nil {
			return nil, err
		}
		return after, check(&after.Stock)
	})
	if err != nil {
		return 0, fmt.Errorf("take the backup in: %w", err)
	}
	return rows, nil
}

// fill puts the rows of a backup in the place of those there are.
func fill(tx *gorm.DB, in io.Reader) (rows int, err error) {
	byName := map[string]table{}
	for i := len(backedUp) - 1; i >= 0; i-- {
		byName[backedUp[i].name] = backedUp[i]
		if err := backedUp[i].clear(tx); err != nil {
			return 0, err
		}
	}
	return readBackup(in, func(name string, row []byte) error {
		t, known := byName[name]
		if !known {
			return fmt.Errorf("there is no table %q", name)
		}
		return t.add(tx, row)
	})
}
