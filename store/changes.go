package store

import (
	"encoding/json"
	"fmt"
	"slices"
	"time"
)

// Change is one change of what is kept, with the entries it wrote or took out.
type Change struct {
	ID      int64     `json:"id" doc:"to take it back with"`
	At      time.Time `json:"at"`
	Who     string    `json:"who"`
	Does    string    `json:"does"`
	Of      int       `json:"of" doc:"how many entries it touched"`
	Entries []Touched `json:"entries" doc:"the first of them"`
}

// Touched is an entry that a change wrote or took out, as JSON before and after; nil where
// it was not there.
type Touched struct {
	Kind   string          `json:"kind"`
	ID     string          `json:"id"`
	Before json.RawMessage `json:"before,omitempty"`
	After  json.RawMessage `json:"after,omitempty"`
}

// mostTouched bounds the entries told of one change.
const mostTouched = 12

// Changes is a page of changes, the newest first, those older than one where before names
// it; count bounds them, no more than the largest page.
func (s *Store) Changes(before int64, count int) ([]Change, error) {
	ids := s.db.Model(&eventRow{}).Select("change").Where("change > 0 AND kind <> ''").Group("change").
		Order("change DESC").Limit(page(count))
	if before > 0 {
		ids = ids.Where("change < ?", before)
	}
	var rows []eventRow
	if err := s.db.Where("change IN (?) AND kind <> ''", ids).Order("change DESC, id").Find(&rows).Error; err != nil {
		return nil, fmt.Errorf("read the history: %w", err)
	}
	list := []Change{}
	for i := range rows {
		if len(list) == 0 || list[len(list)-1].ID != rows[i].Change {
			list = append(list, Change{
				ID:      rows[i].Change,
				At:      rows[i].At,
				Who:     rows[i].Who,
				Does:    rows[i].Does,
				Entries: []Touched{},
			})
		}
		c := &list[len(list)-1]
		if c.Of++; len(c.Entries) >= mostTouched {
			continue
		}
		e, err := rows[i].event(true)
		if err != nil {
			return nil, err
		}
		c.Entries = append(c.Entries, Touched{
			Kind:   e.Kind,
			ID:     e.Entry,
			Before: slices.Clone(e.Before),
			After:  slices.Clone(e.After),
		})
	}
	return list, nil
}
