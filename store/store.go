// Package store keeps the facts in SQLite: gear packs, the fleet, and what was
// confirmed at the bench. Verdicts are never stored; they are computed.
//
// Every change is one transaction, in WAL mode with full sync and foreign keys
// on, so that killing the program at any moment loses nothing that was
// confirmed and leaves nothing half there. Each entry carries a revision,
// raised when it changes; a write against an older one is refused with Stale.
package store

import (
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"sync"
	"sync/atomic"
	"time"

	"gorm.io/gorm"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/core/work/bench"
)

// FileName is the database's name within the data directory.
const FileName = "yokeswap.db"

// Store is an open database. It may be used by many goroutines.
type Store struct {
	db    *gorm.DB
	write sync.Mutex // one writer at a time; SQLite allows no more

	mu      sync.Mutex
	latest  *Snapshot
	dir     string
	trouble atomic.Pointer[Trouble] // of the last write; nil: it went well
}

// Snapshot is everything stored at one moment. It must not be changed.
type Snapshot struct {
	stock.Stock
	Library  *gear.Library
	Index    *fleet.Index
	Revision int64 // of everything
	kept     map[stock.Ref]kept
}

// kept is what the database has of an entry beside the entry itself.
type kept struct {
	revision int64
	position int   // its place in its list; only the order counts
	life     int64 // quads: the revision that brought it
}

// Dir is the folder that holds the database.
func (s *Store) Dir() string { return s.dir }

// Size is how many bytes the database file has; 0 where that cannot be told.
func (s *Store) Size() int64 {
	info, err := os.Stat(filepath.Join(s.dir, FileName))
	if err != nil {
		return 0
	}
	return info.Size()
}

// RevisionOf is an entry's revision, zero where there is none; of the whole stock for
// Everything.
func (s *Snapshot) RevisionOf(ref stock.Ref) int64 {
	if ref == Everything {
		return s.Revision
	}
	return s.kept[ref].revision
}

// Stale says that an entry has changed since the writer read it.
type Stale struct {
	Ref  stock.Ref
	Have int64 // the revision now
}

func (s Stale) Error() string {
	return fmt.Sprintf("%s has changed meanwhile (it is at revision %d)", s.Ref, s.Have)
}

// Snapshot gives everything stored. It is read from the database when that has
// changed, by this program or another, and kept until it changes again.
func (s *Store) Snapshot() (*Snapshot, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	var counter counterRow
	if err := s.db.First(&counter, 1).Error; err != nil {
		return nil, s.inWords(fmt.Errorf("read the database: %w", err))
	}
	if s.latest != nil && s.latest.Revision == counter.Revision {
		return s.latest, nil
	}
	var snap *Snapshot
	err := s.db.Transaction(func(tx *gorm.DB) (err error) {
		snap, err = load(tx)
		return err
	})
	if err != nil {
		return nil, s.inWords(fmt.Errorf("read the database: %w", err))
	}
	s.latest = snap
	return snap, nil
}

// Expect is the revision a writer has read of an entry; zero for one that
// must not be there yet.
type Expect struct {
	Ref      stock.Ref
	Revision int64
}

// Update changes the stock in one transaction. The change works on a stock of
// its own, which shares with what is stored what it leaves alone: entries are replaced,
// never written through. It is kept whole when the change returns nil, and not at all
// otherwise. An entry expected at another revision than it has is refused with Stale.
func (s *Store) Update(deed Deed, change func(*stock.Stock) error, expect ...Expect) error {
	return s.change(func(tx *gorm.DB) (*Snapshot, error) { return s.changeStock(tx, deed, change, expect...) })
}

// change runs what writes in a transaction. The stock it leaves is what is read from
// then on; nil: as it was.
func (s *Store) change(write func(tx *gorm.DB) (*Snapshot, error)) error {
	s.write.Lock()
	defer s.write.Unlock()
	var after *Snapshot
	err := s.writing(s.db.Transaction(func(tx *gorm.DB) (err error) {
		after, err = write(tx)
		return err
	}))
	if err == nil && after != nil {
		s.mu.Lock()
		s.latest = after
		s.mu.Unlock()
	}
	return err
}

func (s *Store) changeStock(
	tx *gorm.DB, deed Deed, change func(*stock.Stock) error, expect ...Expect,
) (*Snapshot, error) {
	return s.changeStockAs(tx, deed, nil, change, expect...)
}

// changeStockAs changes the stock; lives are those of quads that come back.
func (s *Store) changeStockAs(
	tx *gorm.DB, deed Deed, lives map[string]int64, change func(*stock.Stock) error, expect ...Expect,
) (*Snapshot, error) {
	before, err := s.asItIs(tx)
	if err != nil {
		return nil, fmt.Errorf("read the database: %w", err)
	}
	for _, e := range expect {
		if have := before.RevisionOf(e.Ref); have != e.Revision {
			return nil, Stale{e.Ref, have}
		}
	}
	after := before.Fork()
	if err := change(after); err != nil {
		return nil, err
	}
	next, err := save(tx, before, after, deed, lives)
	if err != nil {
		return nil, fmt.Errorf("write the database: %w", err)
	}
	if deed.Revision != nil {
		*deed.Revision = next.Revision
	}
	return next, nil
}

// asItIs is the stock before a change: as it was read last, where nobody has written
// since, else read anew.
func (s *Store) asItIs(tx *gorm.DB) (*Snapshot, error) {
	var counter counterRow
	if err := tx.First(&counter, 1).Error; err != nil {
		return nil, err
	}
	s.mu.Lock()
	latest := s.latest
	s.mu.Unlock()
	if latest != nil && latest.Revision == counter.Revision {
		return latest, nil
	}
	return load(tx)
}

// FleetHead is the fleet's own entry: its title and goals.
var FleetHead = stock.Ref{Kind: stock.KindFleet, ID: "fleet"}

// Everything stands for the whole stock in Expect.
var Everything = stock.Ref{Kind: "all"}

// Records gives what was confirmed at the bench for a quad.
func (s *Store) Records(quad string) ([]bench.Record, error) {
	var rows []benchRow
	if err := s.db.Where("quad = ? AND life = ?", quad, s.life(s.db, quad)).Find(&rows).Error; err != nil {
		return nil, fmt.Errorf("read the bench records of %s: %w", quad, err)
	}
	records := make([]bench.Record, len(rows))
	for i, r := range rows {
		records[i] = bench.Record{Step: r.Step, Done: r.Done, Value: r.Value, At: r.At}
	}
	return records, nil
}

// Confirm records a step of a quad. Confirm decides, on the records as they
// are within the transaction, what to keep.
func (s *Store) Confirm(deed Deed, quad string, decide func([]bench.Record) (bench.Record, error)) error {
	return s.change(func(tx *gorm.DB) (*Snapshot, error) {
		inner := Store{db: tx}
		records, err := inner.Records(quad)
		if err != nil {
			return nil, err
		}
		r, err := decide(records)
		if err != nil {
			return nil, err
		}
		row := benchRow{
			Quad:  quad,
			Life:  s.life(tx, quad),
			Step:  r.Step,
			Done:  r.Done,
			Value: r.Value,
			At:    r.At.UTC().Truncate(time.Second),
		}
		if err := s.tick(tx, deed, row, r.At); err != nil {
			return nil, fmt.Errorf("record the step: %w", err)
		}
		if r.Mated == 0 {
			return nil, nil
		}
		return s.changeStock(tx, deed, func(st *stock.Stock) error {
			st.Mate(r.Mates, r.Mated)
			return nil
		})
	})
}

// tick keeps a step, and that it was ticked.
func (s *Store) tick(tx *gorm.DB, deed Deed, row benchRow, at time.Time) error {
	var before []benchRow
	same := tx.Where("quad = ? AND life = ? AND step = ?", row.Quad, row.Life, row.Step)
	if err := same.Limit(1).Find(&before).Error; err != nil {
		return err
	}
	var was *benchRow
	if len(before) > 0 {
		was = &before[0]
	}
	event, err := tickEvent(deed, 0, was, &row, at)
	if err != nil {
		return err
	}
	return errors.Join(tx.Save(&row).Error, tx.Create(&event).Error)
}

// clearRun takes a quad's ticks away, into the history.
func (s *Store) clearRun(tx *gorm.DB, deed Deed, quad string, change int64, at time.Time) error {
	var rows []benchRow
	if err := tx.Where("quad = ? AND life = ?", quad, s.life(tx, quad)).Find(&rows).Error; err != nil {
		return err
	}
	for i := range rows {
		event, err := tickEvent(deed, change, &rows[i], nil, at)
		if err != nil {
			return err
		}
		if err := errors.Join(tx.Delete(&rows[i]).Error, tx.Create(&event).Error); err != nil {
			return err
		}
	}
	return nil
}

// Finish ends a quad's swap: what was planned is what it flies, with what the records of its bench
// run come to; the records go, and the log says what they were.
func (s *Store) Finish(
	deed Deed, quad string, outcome func([]bench.Record) bench.Outcome, at time.Time, expect ...Expect,
) error {
	return s.change(func(tx *gorm.DB) (*Snapshot, error) {
		inner := Store{db: tx}
		records, err := inner.Records(quad)
		if err != nil {
			return nil, err
		}
		is := outcome(records)
		after, err := s.changeStock(tx, deed, func(st *stock.Stock) error { return st.Finish(quad, is.Done) }, expect...)
		if err != nil {
			return nil, err
		}
		if err := s.clearRun(tx, deed, quad, after.Revision, at); err != nil {
			return nil, fmt.Errorf("clear the bench records: %w", err)
		}
		return after, s.note(tx, quad, is.Says, at)
	})
}
