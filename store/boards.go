package store

import (
	"encoding/json"
	"fmt"
	"time"

	"yokeswap/core/setup"
)

// BoardSnapshot is how a quad's flight board was set up at one moment.
type BoardSnapshot struct {
	ID    int64       `json:"id"`
	Quad  string      `json:"quad"`
	At    time.Time   `json:"at"`
	Why   string      `json:"why"`
	State setup.State `json:"state"`
}

type boardRow struct {
	ID   int64 `gorm:"primaryKey"`
	Quad string
	At   time.Time
	Why  string
	Body string
}

func (boardRow) TableName() string { return "board_snapshots" }

// KeepBoard keeps how a quad's flight board is set up. Snapshots are never
// overwritten.
func (s *Store) KeepBoard(quad, why string, state setup.State, at time.Time) (int64, error) {
	body, err := json.Marshal(state)
	if err != nil {
		return 0, fmt.Errorf("write the board's settings: %w", err)
	}
	s.write.Lock()
	defer s.write.Unlock()
	row := boardRow{Quad: quad, At: at.UTC().Truncate(time.Second), Why: why, Body: string(body)}
	if err := s.db.Create(&row).Error; err != nil {
		return 0, fmt.Errorf("keep the board's settings: %w", err)
	}
	return row.ID, nil
}

// Boards lists the snapshots of a quad's flight board, the newest first.
func (s *Store) Boards(quad string) ([]BoardSnapshot, error) {
	var rows []boardRow
	if err := s.db.Where("quad = ?", quad).Order("id DESC").Find(&rows).Error; err != nil {
		return nil, fmt.Errorf("read the board snapshots of %s: %w", quad, err)
	}
	list := make([]BoardSnapshot, len(rows))
	for i, r := range rows {
		list[i] = BoardSnapshot{ID: r.ID, Quad: r.Quad, At: r.At, Why: r.Why}
		if err := json.Unmarshal([]byte(r.Body), &list[i].State); err != nil {
			return nil, fmt.Errorf("read board snapshot %d: %w", r.ID, err)
		}
	}
	return list, nil
}
