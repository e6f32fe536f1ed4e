package store

import (
	"fmt"
	"time"
)

// Note is a line of a quad's log: what was done or found, and when.
type Note struct {
	ID   int64     `json:"id" gorm:"primaryKey"`
	Quad string    `json:"quad"`
	At   time.Time `json:"at"`
	Says string    `json:"says"`
}

// TableName is the table of the log.
func (Note) TableName() string { return "log" }

// Log writes a line into a quad's log.
func (s *Store) Log(quad, says string, at time.Time) error {
	s.write.Lock()
	defer s.write.Unlock()
	return s.note(quad, says, at)
}

func (s *Store) note(quad, says string, at time.Time) error {
	if err := s.db.Create(&Note{Quad: quad, At: at.UTC().Truncate(time.Second), Says: says}).Error; err != nil {
		return fmt.Errorf("write the log: %w", err)
	}
	return nil
}

// LogOf is a quad's log, the newest first.
func (s *Store) LogOf(quad string) ([]Note, error) {
	notes := []Note{}
	if err := s.db.Where("quad = ?", quad).Order("id DESC").Find(&notes).Error; err != nil {
		return nil, fmt.Errorf("read the log of %s: %w", quad, err)
	}
	return notes, nil
}
