// Package store keeps the facts in SQLite: gear packs, the fleet, and what was
// confirmed at the bench. Verdicts are never stored; they are computed.
//
// Every change is one transaction, in WAL mode with full sync and foreign keys
// on, so that killing the program at any moment loses nothing that was
// confirmed and leaves nothing half there. Each entry carries a revision,
// raised when it changes; a write against an older one is refused with Stale.
package store

import (
	"encoding/json"
	"errors"
	"fmt"
	"net/url"
	"os"
	"path/filepath"
	"sync"
	"time"

	"github.com/glebarez/sqlite"
	"gorm.io/gorm"
	"gorm.io/gorm/logger"

	"yokeswap/core/bench"
	"yokeswap/core/fleet"
	"yokeswap/core/gear"
	"yokeswap/core/stock"
	"yokeswap/core/unit"
)

// FileName is the database's name within the data directory.
const FileName = "yokeswap.db"

// Store is an open database. It may be used by many goroutines.
type Store struct {
	db    *gorm.DB
	write sync.Mutex // one writer at a time; SQLite allows no more

	mu     sync.Mutex
	latest *Snapshot
}

// Snapshot is everything stored at one moment. It must not be changed.
type Snapshot struct {
	stock.Stock
	Library   *gear.Library
	Index     *fleet.Index
	Revision  int64               // of everything
	Revisions map[stock.Ref]int64 // of each entry
}

// Stale says that an entry has changed since the writer read it.
type Stale struct {
	Ref  stock.Ref
	Have int64 // the revision now
}

func (s Stale) Error() string {
	return fmt.Sprintf("%s has changed meanwhile (it is at revision %d)", s.Ref, s.Have)
}

// Open opens the database in a directory, making both where missing, and
// brings its tables up to date.
func Open(dir string) (*Store, error) {
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return nil, fmt.Errorf("make the data directory: %w", err)
	}
	address := url.URL{Scheme: "file", Opaque: filepath.ToSlash(filepath.Join(dir, FileName)),
		RawQuery: "_pragma=journal_mode(WAL)&_pragma=synchronous(FULL)&_pragma=foreign_keys(1)&_pragma=busy_timeout(5000)&_txlock=immediate"}
	db, err := gorm.Open(sqlite.Open(address.String()), &gorm.Config{
		Logger: logger.Default.LogMode(logger.Silent), SkipDefaultTransaction: true, TranslateError: true})
	if err != nil {
		return nil, fmt.Errorf("open the database in %s: %w", dir, err)
	}
	if err := migrate(db); err != nil {
		return nil, fmt.Errorf("bring the database in %s up to date: %w", dir, err)
	}
	return &Store{db: db}, nil
}

// Close closes the database.
func (s *Store) Close() error {
	db, err := s.db.DB()
	if err != nil {
		return fmt.Errorf("close the database: %w", err)
	}
	return db.Close()
}

// Check asks the database whether it is sound.
func (s *Store) Check() error {
	var answer string
	if err := s.db.Raw("PRAGMA quick_check(1)").Scan(&answer).Error; err != nil {
		return fmt.Errorf("check the database: %w", err)
	}
	if answer != "ok" {
		return fmt.Errorf("check the database: %s", answer)
	}
	return nil
}

// Snapshot gives everything stored. It is read from the database when that has
// changed, by this program or another, and kept until it changes again.
func (s *Store) Snapshot() (*Snapshot, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	var counter counterRow
	if err := s.db.First(&counter, 1).Error; err != nil {
		return nil, fmt.Errorf("read the database: %w", err)
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
		return nil, fmt.Errorf("read the database: %w", err)
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
// its own and is kept whole when it returns nil, and not at all otherwise. An
// entry expected at another revision than it has is refused with Stale.
func (s *Store) Update(change func(*stock.Stock) error, expect ...Expect) error {
	s.write.Lock()
	defer s.write.Unlock()
	return s.db.Transaction(func(tx *gorm.DB) error { return s.changeStock(tx, change, expect...) })
}

func (s *Store) changeStock(tx *gorm.DB, change func(*stock.Stock) error, expect ...Expect) error {
	before, err := s.asItIs(tx)
	if err != nil {
		return fmt.Errorf("read the database: %w", err)
	}
	for _, e := range expect {
		if have := before.revisionOf(e.Ref); have != e.Revision {
			return Stale{e.Ref, have}
		}
	}
	after, err := load(tx) // a copy, for the change to work on
	if err != nil {
		return fmt.Errorf("read the database: %w", err)
	}
	if err := change(&after.Stock); err != nil {
		return err
	}
	if err := save(tx, before, &after.Stock); err != nil {
		return fmt.Errorf("write the database: %w", err)
	}
	return nil
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

// revisionOf is an entry's revision; of the whole stock for the kind "all".
func (s *Snapshot) revisionOf(ref stock.Ref) int64 {
	if ref == Everything {
		return s.Revision
	}
	return s.Revisions[ref]
}

// FleetHead is the fleet's own entry: its title and goals.
var FleetHead = stock.Ref{Kind: stock.KindFleet, ID: "fleet"}

// Everything stands for the whole stock in Expect.
var Everything = stock.Ref{Kind: "all"}

// Records gives what was confirmed at the bench for a quad.
func (s *Store) Records(quad string) ([]bench.Record, error) {
	var rows []benchRow
	if err := s.db.Where("quad = ?", quad).Find(&rows).Error; err != nil {
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
func (s *Store) Confirm(quad string, decide func([]bench.Record) (bench.Record, error)) error {
	s.write.Lock()
	defer s.write.Unlock()
	return s.db.Transaction(func(tx *gorm.DB) error {
		inner := Store{db: tx}
		records, err := inner.Records(quad)
		if err != nil {
			return err
		}
		r, err := decide(records)
		if err != nil {
			return err
		}
		row := benchRow{Quad: quad, Step: r.Step, Done: r.Done, Value: r.Value, At: r.At.UTC().Truncate(time.Second)}
		if err := tx.Save(&row).Error; err != nil {
			return fmt.Errorf("record the step: %w", err)
		}
		if r.Mated == 0 {
			return nil
		}
		return s.changeStock(tx, func(st *stock.Stock) error {
			st.Mate(r.Mates, r.Mated)
			return nil
		})
	})
}

// Finish ends a quad's swap: what was planned is what it flies, with the weight
// measured at a step of the bench run, if it was; the run's records go, and the log
// says what they were.
func (s *Store) Finish(quad, weighed string, says func([]bench.Record) string, at time.Time, expect ...Expect) error {
	s.write.Lock()
	defer s.write.Unlock()
	return s.db.Transaction(func(tx *gorm.DB) error {
		inner := Store{db: tx}
		records, err := inner.Records(quad)
		if err != nil {
			return err
		}
		var measured *unit.Grams
		for _, r := range records {
			if r.Step == weighed && r.Done && r.Value != nil {
				measured = new(unit.Grams(*r.Value))
			}
		}
		if err := s.changeStock(tx, func(st *stock.Stock) error { return st.Finish(quad, measured) }, expect...); err != nil {
			return err
		}
		if err := tx.Where("quad = ?", quad).Delete(&benchRow{}).Error; err != nil {
			return fmt.Errorf("clear the bench records: %w", err)
		}
		return inner.note(quad, says(records), at)
	})
}

func load(tx *gorm.DB) (*Snapshot, error) {
	snap := &Snapshot{Stock: *stock.New(), Revisions: map[stock.Ref]int64{}}
	var counter counterRow
	if err := tx.First(&counter, 1).Error; err != nil {
		return nil, err
	}
	snap.Revision = counter.Revision
	if err := snap.loadGear(tx); err != nil {
		return nil, err
	}
	if err := snap.loadFleet(tx); err != nil {
		return nil, err
	}
	snap.Library = snap.Stock.Library()
	snap.Index = fleet.NewIndex(snap.Fleet)
	return snap, nil
}

func (s *Snapshot) loadGear(tx *gorm.DB) error {
	var sets []setRow
	if err := tx.Order("position, id").Find(&sets).Error; err != nil {
		return err
	}
	for _, r := range sets {
		s.Sets = append(s.Sets, &gear.Set{
			Format:  gear.SetFormat,
			Version: gear.SetVersion,
			ID:      r.ID,
			Title:   r.Title,
			License: r.License,
		})
		s.Revisions[stock.Ref{Kind: stock.KindSet, ID: r.ID}] = r.Revision
	}
	var rows []gearRow
	if err := tx.Order("position, id").Find(&rows).Error; err != nil {
		return err
	}
	for _, r := range rows {
		item := newItem(r.Kind)
		set, ok := s.Set(r.Set)
		if item == nil || !ok {
			return fmt.Errorf("gear %q is of an unknown kind %q or gear pack %q", r.ID, r.Kind, r.Set)
		}
		if err := json.Unmarshal([]byte(r.Body), item); err != nil {
			return fmt.Errorf("gear %q: %w", r.ID, err)
		}
		set.Add(item)
		s.Revisions[stock.Ref{Kind: r.Kind, ID: r.ID}] = r.Revision
	}
	return nil
}

func (s *Snapshot) loadFleet(tx *gorm.DB) error {
	var head fleetRow
	switch err := tx.First(&head, 1).Error; {
	case errors.Is(err, gorm.ErrRecordNotFound):
	case err != nil:
		return err
	default:
		s.Revisions[FleetHead] = head.Revision
		if err := json.Unmarshal([]byte(head.Body), s.Fleet); err != nil {
			return fmt.Errorf("fleet: %w", err)
		}
	}
	var rows []entryRow
	if err := tx.Order("position, id").Find(&rows).Error; err != nil {
		return err
	}
	for _, r := range rows {
		var err error
		switch r.Kind {
		case stock.KindKit:
			err = appendDecoded(&s.Fleet.Kit, r.Body)
		case stock.KindSpare:
			err = appendDecoded(&s.Fleet.Spares, r.Body)
		case stock.KindQuad:
			err = appendDecoded(&s.Fleet.Quads, r.Body)
		default:
			err = fmt.Errorf("unknown kind")
		}
		if err != nil {
			return fmt.Errorf("%s %q: %w", r.Kind, r.ID, err)
		}
		s.Revisions[stock.Ref{Kind: r.Kind, ID: r.ID}] = r.Revision
	}
	return nil
}

func appendDecoded[T any](list *[]T, body string) error {
	var entry T
	if err := json.Unmarshal([]byte(body), &entry); err != nil {
		return err
	}
	*list = append(*list, entry)
	return nil
}
