package store

import (
	"bytes"
	"compress/flate"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"slices"
	"sync"
	"time"

	"gorm.io/gorm"

	"yokeswap/core/facts/stock"
)

// Deed is what a change is called in the history, and who made it.
type Deed struct {
	Does string // such as "planned" or "took in a file"
	Who  string // such as "this machine"
	// Context ends the change before it is whole, and nothing is written; nil: nothing does.
	Context context.Context
	// Tell is told how far a long change is written; nil: nobody asks.
	Tell func(done, of int)
	// Revision takes that of the change, to take it back by; nil: nobody asks.
	Revision *int64
}

// told says how far a list is written, and whether the change is to end.
func (d *Deed) told(done, of int) error {
	if d.Tell != nil {
		d.Tell(done, of)
	}
	if d.Context != nil {
		return d.Context.Err()
	}
	return nil
}

// Event is one thing that has happened: an entry that was written or taken out, a step
// ticked, a line of the log. Events are only ever added, in the transaction of what
// they tell of; what is undone is an event of its own.
type Event struct {
	ID     int64     `json:"id"`
	At     time.Time `json:"at"`
	Change int64     `json:"change" doc:"revision of the change it is part of; 0: a line of the log"`
	Who    string    `json:"who"`
	Does   string    `json:"does"`
	Kind   string    `json:"kind" doc:"of the entry; empty: a line of the log"`
	Entry  string    `json:"entry" doc:"its id"`
	Quad   string    `json:"quad,omitempty"`
	Says   string    `json:"says,omitempty" doc:"a line of the log"`
	// Before and After are the entry as JSON; nil where it was not there.
	Before json.RawMessage `json:"before,omitempty"`
	After  json.RawMessage `json:"after,omitempty"`
}

type eventRow struct {
	ID     int64     `gorm:"primaryKey" json:"id"`
	At     time.Time `json:"at"`
	Change int64     `json:"change,omitempty"`
	Who    string    `json:"who,omitempty"`
	Does   string    `json:"does,omitempty"`
	Kind   string    `json:"kind,omitempty"`
	Entry  string    `json:"entry,omitempty"`
	Pack   string    `json:"pack,omitempty"` // gear: the gear pack it stands in
	Quad   string    `json:"quad,omitempty"`
	Life   int64     `json:"life,omitempty"` // of the quad
	Says   string    `json:"says,omitempty"`
	Before []byte    `json:"before,omitempty"` // deflated; nil: it was not there
	After  []byte    `json:"after,omitempty"`
}

func (eventRow) TableName() string { return "events" }

// squeezed is a body as it is kept.
func squeezed(body string) []byte {
	if body == "" {
		return nil
	}
	var out bytes.Buffer
	w := squeezers.Get().(*flate.Writer)
	defer squeezers.Put(w)
	w.Reset(&out)
	_, _ = io.WriteString(w, body) // to memory: cannot fail
	_ = w.Close()
	return out.Bytes()
}

var squeezers = sync.Pool{New: func() any {
	w, _ := flate.NewWriter(nil, flate.BestSpeed)
	return w
}}

func unsqueezed(kept []byte) ([]byte, error) {
	if kept == nil {
		return nil, nil
	}
	return io.ReadAll(flate.NewReader(bytes.NewReader(kept)))
}

func (r *eventRow) event(whole bool) (Event, error) {
	e := Event{
		ID:     r.ID,
		At:     r.At,
		Change: r.Change,
		Who:    r.Who,
		Does:   r.Does,
		Kind:   r.Kind,
		Entry:  r.Entry,
		Quad:   r.Quad,
		Says:   r.Says,
	}
	if !whole {
		return e, nil
	}
	before, beforeErr := unsqueezed(r.Before)
	after, afterErr := unsqueezed(r.After)
	e.Before, e.After = before, after
	if err := errors.Join(beforeErr, afterErr); err != nil {
		return e, fmt.Errorf("read event %d: %w", r.ID, err)
	}
	return e, nil
}

// Pages are read newest first, so many at a time.
const (
	DefaultPage = 50
	LargestPage = 500
)

func page(n int) int {
	if n <= 0 {
		return DefaultPage
	}
	return min(n, LargestPage)
}

// Events are the events before one (0: the newest), newest first, a page of them; of a
// quad where one is named.
func (s *Store) Events(quad string, before int64, count int) ([]Event, error) {
	query := s.db.Order("id DESC").Limit(page(count)).Omit("before", "after")
	if before > 0 {
		query = query.Where("id < ?", before)
	}
	if quad != "" {
		query = query.Where("quad = ? AND life = ?", quad, s.life(s.db, quad))
	}
	var rows []eventRow
	if err := query.Find(&rows).Error; err != nil {
		return nil, fmt.Errorf("read the history: %w", err)
	}
	list := make([]Event, len(rows))
	for i := range rows {
		list[i], _ = rows[i].event(false)
	}
	return list, nil
}

// ChangedSince says that a change cannot be taken back: later ones have touched the same.
type ChangedSince struct {
	Ref stock.Ref
}

func (u ChangedSince) Error() string {
	return fmt.Sprintf("%s has been changed again since: take that back first", u.Ref)
}

// ErrNoChange says that there is no such change in the history.
var ErrNoChange = errors.New("there is no such change in the history")

// Undo takes a change back, whole: every entry it wrote is as it was before, what it
// took out is there again, with all that belongs to it. That is a change of its own; check
// refuses it where what comes out would not hold.
func (s *Store) Undo(change int64, deed Deed, check func(*stock.Stock) error) error {
	return s.change(func(tx *gorm.DB) (*Snapshot, error) {
		var rows []eventRow
		if err := tx.Where("change = ? AND kind <> ''", change).Order("id DESC").Find(&rows).Error; err != nil {
			return nil, fmt.Errorf("read the history: %w", err)
		}
		if len(rows) == 0 || change == 0 {
			return nil, ErrNoChange
		}
		before, err := s.asItIs(tx)
		if err != nil {
			return nil, fmt.Errorf("read the database: %w", err)
		}
		lives := map[string]int64{}
		ticks := rows[:0:0]
		rows = slices.DeleteFunc(rows, func(r eventRow) bool {
			if r.Kind == kindTick {
				ticks = append(ticks, r)
			}
			return r.Kind == kindTick
		})
		for i := range ticks {
			if err := ticks[i].tickAgain(tx); err != nil {
				return nil, err
			}
		}
		for i := range rows {
			ref := stock.Ref{Kind: rows[i].Kind, ID: rows[i].Entry}
			still, err := rows[i].stands(&before.Stock, ref)
			if err != nil {
				return nil, err
			}
			if !still {
				return nil, ChangedSince{ref}
			}
			if rows[i].Kind == stock.KindQuad {
				lives[rows[i].Entry] = rows[i].Life
			}
		}
		return s.changeStockAs(tx, deed, lives, func(st *stock.Stock) error {
			for i := range rows {
				if err := rows[i].takeBack(st); err != nil {
					return err
				}
			}
			return check(st)
		})
	})
}

// kindTick is the kind of an event that tells of a step of the bench; its entry is the step.
const kindTick = "tick"

// tickAgain brings a step of the bench to what it was before an event.
func (r *eventRow) tickAgain(tx *gorm.DB) error {
	body, err := unsqueezed(r.Before)
	if err != nil || body == nil {
		return err // it was not ticked; what has been ticked since stays
	}
	var was benchRow
	if err := json.Unmarshal(body, &was); err != nil {
		return fmt.Errorf("read event %d: %w", r.ID, err)
	}
	return tx.Save(&was).Error
}

// tickEvent tells of a step of the bench that was ticked, or cleared away with its run.
func tickEvent(deed Deed, change int64, before, after *benchRow, at time.Time) (eventRow, error) {
	row := eventRow{At: at.UTC(), Change: change, Who: deed.Who, Does: deed.Does, Kind: kindTick}
	for _, side := range []struct {
		is   *benchRow
		into *[]byte
	}{{before, &row.Before}, {after, &row.After}} {
		if side.is == nil {
			continue
		}
		body, err := json.Marshal(side.is)
		if err != nil {
			return row, fmt.Errorf("encode the step: %w", err)
		}
		*side.into = squeezed(string(body))
		row.Quad, row.Life, row.Entry = side.is.Quad, side.is.Life, side.is.Step
	}
	return row, nil
}

// stands says whether an entry is as the event left it.
func (r *eventRow) stands(st *stock.Stock, ref stock.Ref) (bool, error) {
	is := st.Entry(ref)
	if r.After == nil || is == nil {
		return r.After == nil && is == nil, nil
	}
	after, err := unsqueezed(r.After)
	if err != nil {
		return false, fmt.Errorf("read event %d: %w", r.ID, err)
	}
	body, err := json.Marshal(is)
	return string(body) == string(after), err
}

// takeBack brings an entry to what it was before an event.
func (r *eventRow) takeBack(st *stock.Stock) error {
	ref := stock.Ref{Kind: r.Kind, ID: r.Entry}
	if r.Before == nil {
		st.Remove(ref)
		return nil
	}
	body, err := unsqueezed(r.Before)
	if err != nil {
		return fmt.Errorf("read event %d: %w", r.ID, err)
	}
	if err := st.Put(ref, r.Pack, body); err != nil {
		return fmt.Errorf("put %s back: %w", ref, err)
	}
	return nil
}

// AsOf is everything as it was at a moment, as far back as the history goes.
func (s *Store) AsOf(at time.Time) (*stock.Stock, error) {
	snap, err := s.Snapshot()
	if err != nil {
		return nil, err
	}
	st := snap.Fork()
	// Of each entry the first event after the moment says what it was then.
	first := s.db.Model(&eventRow{}).Select("MIN(id)").
		Where("kind NOT IN ('', ?) AND change <= ? AND at > ?", kindTick, snap.Revision, at.UTC()).Group("kind, entry")
	rows, err := s.db.Model(&eventRow{}).Order("id DESC").Where("id IN (?)", first).Rows()
	if err != nil {
		return nil, fmt.Errorf("read the history: %w", err)
	}
	defer rows.Close()
	for rows.Next() {
		var r eventRow
		if err := s.db.ScanRows(rows, &r); err != nil {
			return nil, fmt.Errorf("read the history: %w", err)
		}
		if err := r.takeBack(st); err != nil {
			return nil, err
		}
	}
	return st, rows.Err()
}

// life tells a quad from another that had the same id before it: what belongs to a quad
// goes with it, and comes back with it.
func (s *Store) life(tx *gorm.DB, quad string) int64 {
	var row entryRow
	if tx.Select("life").Where("kind = ? AND id = ?", stock.KindQuad, quad).Limit(1).Find(&row).Error != nil {
		return 0
	}
	return row.Life
}

// Note is a line of a quad's log: what was done or found, and when.
type Note struct {
	ID   int64     `json:"id"`
	Quad string    `json:"quad"`
	At   time.Time `json:"at"`
	Says string    `json:"says"`
}

// Log writes a line into a quad's log.
func (s *Store) Log(quad, says string, at time.Time) error {
	s.write.Lock()
	defer s.write.Unlock()
	return s.note(s.db, quad, says, at)
}

func (s *Store) note(tx *gorm.DB, quad, says string, at time.Time) error {
	row := eventRow{Quad: quad, Life: s.life(tx, quad), At: at.UTC().Truncate(time.Second), Says: says}
	if err := tx.Create(&row).Error; err != nil {
		return s.writing(fmt.Errorf("write the log: %w", err))
	}
	return nil
}

// LogOf is a page of a quad's log before a line (0: the newest), the newest first.
func (s *Store) LogOf(quad string, before int64, count int) ([]Note, error) {
	query := s.db.Order("id DESC").Limit(page(count)).
		Where("quad = ? AND life = ? AND says <> ''", quad, s.life(s.db, quad))
	if before > 0 {
		query = query.Where("id < ?", before)
	}
	var rows []eventRow
	if err := query.Find(&rows).Error; err != nil {
		return nil, fmt.Errorf("read the log of %s: %w", quad, err)
	}
	notes := make([]Note, len(rows))
	for i, r := range rows {
		notes[i] = Note{ID: r.ID, Quad: r.Quad, At: r.At, Says: r.Says}
	}
	return slices.Clip(notes), nil
}
