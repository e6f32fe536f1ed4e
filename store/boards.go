package store

import (
	"encoding/json"
	"fmt"
	"time"

	"yokeswap/core/work/setup"
)

// BoardSnapshot is how a quad's flight board was set up at one moment.
type BoardSnapshot struct {
	ID   int64     `json:"id"`
	Quad string    `json:"quad"`
	At   time.Time `json:"at"`
	Why  string    `json:"why"`
	// Name is what the user calls it; empty: nothing yet.
	Name  string      `json:"name,omitempty"`
	State setup.State `json:"state"`
	// Text is its settings in the board's own text; empty: it was not asked for it.
	Text string `json:"text,omitempty"`
}

type boardRow struct {
	ID   int64     `gorm:"primaryKey" json:"id"`
	Quad string    `json:"quad"`
	Life int64     `json:"life,omitempty"`
	At   time.Time `json:"at"`
	Why  string    `json:"why"`
	Body string    `json:"body"`
	Text string    `json:"text,omitempty"`
	Name string    `json:"name,omitempty"`
}

func (boardRow) TableName() string { return "board_snapshots" }

// KeepBoard keeps how a quad's flight board is set up, and its settings text where there is
// one. Snapshots are never overwritten.
func (s *Store) KeepBoard(quad, why string, state setup.State, text string, at time.Time) (int64, error) {
	body, err := json.Marshal(state)
	if err != nil {
		return 0, fmt.Errorf("write the board's settings: %w", err)
	}
	s.write.Lock()
	defer s.write.Unlock()
	row := boardRow{Quad: quad, Life: s.life(s.db, quad), At: at.UTC().Truncate(time.Second), Why: why, Body: string(body),
		Text: text}
	if err := s.db.Create(&row).Error; err != nil {
		return 0, s.writing(fmt.Errorf("keep the board's settings: %w", err))
	}
	return row.ID, nil
}

// NameBoard gives a snapshot a name, or with an empty one takes it away; false where there
// is no such snapshot. What was kept stays as it was.
func (s *Store) NameBoard(quad string, id int64, name string) (bool, error) {
	s.write.Lock()
	defer s.write.Unlock()
	done := s.db.Model(&boardRow{}).
		Where("quad = ? AND life = ? AND id = ?", quad, s.life(s.db, quad), id).
		Update("name", name)
	if done.Error != nil {
		return false, s.writing(fmt.Errorf("name board snapshot %d: %w", id, done.Error))
	}
	return done.RowsAffected > 0, nil
}

// Boards lists a page of the snapshots of a quad's flight board before one (0: the
// newest), the newest first.
func (s *Store) Boards(quad string, before int64, count int) ([]BoardSnapshot, error) {
	query := s.db.Where("quad = ? AND life = ?", quad, s.life(s.db, quad)).Order("id DESC").Limit(page(count))
	if before > 0 {
		query = query.Where("id < ?", before)
	}
	var rows []boardRow
	if err := query.Find(&rows).Error; err != nil {
		return nil, fmt.Errorf("read the board snapshots of %s: %w", quad, err)
	}
	list := make([]BoardSnapshot, len(rows))
	for i := range rows {
		var err error
		if list[i], err = rows[i].snapshot(); err != nil {
			return nil, err
		}
	}
	return list, nil
}

// Board is one snapshot of a quad's flight board; false where there is none.
func (s *Store) Board(quad string, id int64) (BoardSnapshot, bool, error) {
	var rows []boardRow
	err := s.db.Where("quad = ? AND life = ? AND id = ?", quad, s.life(s.db, quad), id).Limit(1).Find(&rows).Error
	if err != nil {
		return BoardSnapshot{}, false, fmt.Errorf("read board snapshot %d: %w", id, err)
	}
	if len(rows) == 0 {
		return BoardSnapshot{}, false, nil
	}
	b, err := rows[0].snapshot()
	return b, true, err
}

func (r *boardRow) snapshot() (BoardSnapshot, error) {
	b := BoardSnapshot{ID: r.ID, Quad: r.Quad, At: r.At, Why: r.Why, Name: r.Name, Text: r.Text}
	if err := json.Unmarshal([]byte(r.Body), &b.State); err != nil {
		return b, fmt.Errorf("read board snapshot %d: %w", r.ID, err)
	}
	return b, nil
}
