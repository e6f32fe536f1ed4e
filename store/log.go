package store

import (
	"fmt"
	"strings"
	"time"

	"gorm.io/gorm"
)

// What the log can be asked for beside a kind of entry.
const (
	LogNotes    = "notes"    // lines written into logs
	LogReadings = "readings" // steps of the bench, ticked and read
	LogChanges  = "changes"  // entries written and taken out
)

// LogFilter says which events are asked for; what is empty asks for all.
type LogFilter struct {
	Find   string   // letters in what was done, said, or in an id
	Named  []string // ids that count as found
	Quad   string
	Kind   string    // of entries, or LogNotes, LogReadings, LogChanges
	From   time.Time // inclusive
	To     time.Time // exclusive
	Before int64     // an event; those before it
	Count  int
}

// FindEvents are the events a filter asks for, the newest first, a page of them, without the
// entries before and after.
func (s *Store) FindEvents(f LogFilter) ([]Event, error) {
	query := s.logged(f).Order("id DESC").Limit(page(f.Count))
	if f.Before > 0 {
		query = query.Where("id < ?", f.Before)
	}
	var rows []eventRow
	if err := query.Find(&rows).Error; err != nil {
		return nil, s.inWords(fmt.Errorf("search the history: %w", err))
	}
	list := make([]Event, len(rows))
	for i := range rows {
		list[i], _ = rows[i].event(false)
	}
	return list, nil
}

// WholeEvent is one event, with the entry before and after; false where there is none.
func (s *Store) WholeEvent(id int64) (Event, bool, error) {
	var rows []eventRow
	if err := s.db.Where("id = ?", id).Limit(1).Find(&rows).Error; err != nil {
		return Event{}, false, s.inWords(fmt.Errorf("read event %d: %w", id, err))
	}
	if len(rows) == 0 {
		return Event{}, false, nil
	}
	e, err := rows[0].event(true)
	return e, err == nil, err
}

// EachEvent visits all events a filter asks for, the oldest first, as long as visit takes
// them.
func (s *Store) EachEvent(f LogFilter, visit func(Event) error) error {
	rows, err := s.logged(f).Model(&eventRow{}).Order("id").Rows()
	if err != nil {
		return s.inWords(fmt.Errorf("read the history: %w", err))
	}
	defer rows.Close()
	for rows.Next() {
		var r eventRow
		if err := s.db.ScanRows(rows, &r); err != nil {
			return fmt.Errorf("read the history: %w", err)
		}
		e, _ := r.event(false)
		if err := visit(e); err != nil {
			return err
		}
	}
	return rows.Err()
}

// logged asks for the columns of the log alone: they stand together in an index, so that
// what entries were before and after is not read for it.
func (s *Store) logged(f LogFilter) *gorm.DB {
	query := s.db.Select("id", "at", "change", "who", "does", "kind", "entry", "quad", "life", "says")
	switch f.Kind {
	case "":
	case LogNotes:
		query = query.Where("kind = ''")
	case LogReadings:
		query = query.Where("kind = ?", kindTick)
	case LogChanges:
		query = query.Where("kind NOT IN ('', ?)", kindTick)
	default:
		query = query.Where("kind = ?", f.Kind)
	}
	if f.Quad != "" {
		query = query.Where("quad = ? AND life = ?", f.Quad, s.life(s.db, f.Quad))
	}
	if !f.From.IsZero() {
		query = query.Where("at >= ?", f.From.UTC())
	}
	if !f.To.IsZero() {
		query = query.Where("at < ?", f.To.UTC())
	}
	if f.Find != "" {
		like := "%" + escaped(f.Find) + "%"
		asID := "%" + escaped(strings.Join(strings.Fields(f.Find), "-")) + "%"
		found := s.db.Where(`does LIKE ? ESCAPE '\'`, like).Or(`says LIKE ? ESCAPE '\'`, like).
			Or(`entry LIKE ? ESCAPE '\'`, asID)
		if len(f.Named) > 0 {
			found = found.Or("entry IN ?", f.Named)
		}
		query = query.Where(found)
	}
	return query
}

// escaped is a text with what LIKE takes for any letters taken for itself.
func escaped(text string) string {
	return strings.NewReplacer(`\`, `\\`, `%`, `\%`, `_`, `\_`).Replace(text)
}
