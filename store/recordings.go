package store

import (
	"fmt"
	"time"

	"gorm.io/gorm"
)

// Kept is a recording that was kept with a test flight, as it came.
type Kept struct {
	ID     int64
	Flight string
	Name   string // of the file
	At     time.Time
	// Signature is what its recorder calls its columns; Means says which column tells what.
	Signature string
	Means     string // JSON
	Marks     string // JSON: where its spots were passed
	Body      []byte
}

type recordingRow struct {
	ID        int64     `gorm:"primaryKey" json:"id"`
	Flight    string    `json:"flight"`
	Name      string    `json:"name"`
	At        time.Time `json:"at"`
	Signature string    `json:"signature"`
	Means     string    `json:"means"`
	Marks     string    `json:"marks"`
	Body      []byte    `json:"body"` // deflated
}

func (recordingRow) TableName() string { return "recordings" }

// Keep keeps a recording with a test flight and gives its number. Nothing is read from it
// here.
func (s *Store) Keep(k Kept) (int64, error) {
	s.write.Lock()
	defer s.write.Unlock()
	row := recordingRow{Flight: k.Flight, Name: k.Name, At: k.At.UTC().Truncate(time.Second), Signature: k.Signature,
		Means: k.Means, Marks: k.Marks, Body: squeezed(string(k.Body))}
	if err := s.db.Create(&row).Error; err != nil {
		return 0, s.writing(fmt.Errorf("keep the recording: %w", err))
	}
	return row.ID, nil
}

// Recordings are those of a test flight, the newest first, without what stands in them.
func (s *Store) Recordings(flight string) ([]Kept, error) {
	var rows []recordingRow
	err := s.db.Omit("body").Where("flight = ?", flight).Order("id DESC").Limit(LargestPage).Find(&rows).Error
	if err != nil {
		return nil, s.inWords(fmt.Errorf("read the recordings of %s: %w", flight, err))
	}
	list := make([]Kept, len(rows))
	for i := range rows {
		if list[i], err = rows[i].kept(); err != nil {
			return nil, err
		}
	}
	return list, nil
}

// Recording is one recording of a test flight; false where there is none.
func (s *Store) Recording(flight string, id int64) (Kept, bool, error) {
	var rows []recordingRow
	if err := s.db.Where("flight = ? AND id = ?", flight, id).Limit(1).Find(&rows).Error; err != nil {
		return Kept{}, false, s.inWords(fmt.Errorf("read recording %d: %w", id, err))
	}
	if len(rows) == 0 {
		return Kept{}, false, nil
	}
	k, err := rows[0].kept()
	return k, true, err
}

// MeansOf is what was last said of the columns of a recorder; empty where nothing was.
func (s *Store) MeansOf(signature string) (string, error) {
	var rows []recordingRow
	err := s.db.Omit("body").Where("signature = ?", signature).Order("id DESC").Limit(1).Find(&rows).Error
	if err != nil || len(rows) == 0 {
		return "", s.inWords(err)
	}
	return rows[0].Means, nil
}

// Say keeps which column of a recording tells what, and where its spots were passed; false
// where there is no such recording. What was recorded stays as it came.
func (s *Store) Say(flight string, id int64, means, marks string) (bool, error) {
	return s.changeRecording(flight, id, func(tx *gorm.DB) *gorm.DB {
		return tx.Updates(map[string]any{"means": means, "marks": marks})
	})
}

// DropRecording lets a recording go; false where there is none.
func (s *Store) DropRecording(flight string, id int64) (bool, error) {
	return s.changeRecording(flight, id, func(tx *gorm.DB) *gorm.DB { return tx.Delete(&recordingRow{}) })
}

func (s *Store) changeRecording(flight string, id int64, change func(tx *gorm.DB) *gorm.DB) (bool, error) {
	s.write.Lock()
	defer s.write.Unlock()
	done := change(s.db.Model(&recordingRow{}).Where("flight = ? AND id = ?", flight, id))
	if done.Error != nil {
		return false, s.writing(fmt.Errorf("change recording %d: %w", id, done.Error))
	}
	return done.RowsAffected > 0, nil
}

func (r *recordingRow) kept() (Kept, error) {
	body, err := unsqueezed(r.Body)
	if err != nil {
		return Kept{}, fmt.Errorf("read recording %d: %w", r.ID, err)
	}
	return Kept{r.ID, r.Flight, r.Name, r.At, r.Signature, r.Means, r.Marks, body}, nil
}
