package store

import (
	"encoding/json"
	"fmt"

	"yokeswap/core/work/bench"
)

// mostTicks is how many ticks are gone back to learn how long steps take: some forty days at the bench.
const mostTicks = 2000

// Ticks are the steps that were done at the bench on any quad, the oldest of the latest mostTicks
// first. One that was taken back, or put away with its run, is none.
func (s *Store) Ticks() ([]bench.Tick, error) {
	var rows []eventRow
	// Which they are is found in the index of the log, so that no entry kept beside them is read.
	which := s.db.Model(&eventRow{}).Select("id").Where("kind = ? AND change = 0", kindTick).
		Order("id DESC").Limit(mostTicks)
	err := s.db.Select("quad", "entry", "at", "after").Where("id IN (?)", which).Order("id").Find(&rows).Error
	if err != nil {
		return nil, s.inWords(fmt.Errorf("read when steps were done: %w", err))
	}
	ticks := make([]bench.Tick, 0, len(rows))
	for _, r := range rows {
		body, err := unsqueezed(r.After)
		if err != nil {
			return nil, fmt.Errorf("read when %q was done: %w", r.Entry, err)
		}
		var row benchRow
		if err := json.Unmarshal(body, &row); err != nil {
			return nil, fmt.Errorf("read when %q was done: %w", r.Entry, err)
		}
		if row.Done {
			ticks = append(ticks, bench.Tick{Quad: r.Quad, Step: r.Entry, At: r.At})
		}
	}
	return ticks, nil
}
