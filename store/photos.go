package store

import (
	"encoding/json"
	"fmt"
	"time"

	"gorm.io/gorm"

	"yokeswap/core/work/album"
)

type photoRow struct {
	ID     int64     `gorm:"primaryKey" json:"id"`
	Quad   string    `json:"quad"`
	Life   int64     `json:"life,omitempty"`
	Of     string    `json:"of"`
	Key    string    `json:"key,omitempty"`
	Label  string    `json:"label"`
	Moment string    `json:"moment,omitempty"`
	Words  string    `json:"words,omitempty"`
	At     time.Time `json:"at"`
	Wide   int       `json:"wide"`
	High   int       `json:"high"`
	Marks  string    `json:"marks"` // JSON
	Body   []byte    `json:"body"`  // JPEG
	LetGo  bool      `json:"letGo,omitempty"`
}

func (photoRow) TableName() string { return "photos" }

// KeepPhoto keeps a photo of a quad, a JPEG, and gives its number.
func (s *Store) KeepPhoto(quad string, p album.Photo, body []byte) (int64, error) {
	row := photoRow{Quad: quad, Of: string(p.Of), Key: p.Key, Label: p.Label, Moment: string(p.Moment), Words: p.Words,
		At: p.At.UTC().Truncate(time.Second), Wide: p.Wide, High: p.High, Marks: "[]", Body: body}
	s.write.Lock()
	defer s.write.Unlock()
	row.Life = s.life(s.db, quad)
	if err := s.db.Create(&row).Error; err != nil {
		return 0, s.writing(fmt.Errorf("keep the photo: %w", err))
	}
	return row.ID, nil
}

// Photos are those of a quad, the oldest first, those let go of among them, without the pictures.
func (s *Store) Photos(quad string) ([]album.Photo, error) {
	var rows []photoRow
	err := s.db.Omit("body").Where("quad = ? AND life = ?", quad, s.life(s.db, quad)).Order("id").Find(&rows).Error
	if err != nil {
		return nil, s.inWords(fmt.Errorf("read the photos of %s: %w", quad, err))
	}
	list := make([]album.Photo, len(rows))
	for i := range rows {
		r := &rows[i]
		list[i] = album.Photo{ID: r.ID, Of: album.Of(r.Of), Key: r.Key, Label: r.Label, Moment: album.Moment(r.Moment),
			Words: r.Words, At: r.At, Wide: r.Wide, High: r.High, Marks: []album.PhotoMark{}, LetGo: r.LetGo}
		if err := json.Unmarshal([]byte(r.Marks), &list[i].Marks); err != nil {
			return nil, fmt.Errorf("read what is marked on photo %d: %w", r.ID, err)
		}
	}
	return list, nil
}

// PhotoBody is a photo of a quad as JPEG; false where there is none.
func (s *Store) PhotoBody(quad string, id int64) ([]byte, bool, error) {
	var rows []photoRow
	err := s.db.Select("body").Where("quad = ? AND life = ? AND id = ?", quad, s.life(s.db, quad), id).Limit(1).
		Find(&rows).Error
	if err != nil || len(rows) == 0 {
		return nil, false, s.inWords(err)
	}
	return rows[0].Body, true, nil
}

// SayPhoto keeps what is said of a photo: when it was taken by the swap, words, marks, and whether it is let
// go of; false where there is none.
func (s *Store) SayPhoto(quad string, id int64, said album.Photo) (bool, error) {
	text, err := json.Marshal(said.Marks)
	if err != nil {
		return false, fmt.Errorf("write what is marked: %w", err)
	}
	return s.changePhoto(quad, id, func(tx *gorm.DB) *gorm.DB {
		return tx.Updates(map[string]any{"moment": string(said.Moment), "words": said.Words, "marks": string(text),
			"let_go": said.LetGo})
	})
}

// DropPhoto deletes a photo that was let go of; false where there is none.
func (s *Store) DropPhoto(quad string, id int64) (bool, error) {
	return s.changePhoto(quad, id, func(tx *gorm.DB) *gorm.DB { return tx.Where("let_go").Delete(&photoRow{}) })
}

func (s *Store) changePhoto(quad string, id int64, change func(tx *gorm.DB) *gorm.DB) (bool, error) {
	s.write.Lock()
	defer s.write.Unlock()
	done := change(s.db.Model(&photoRow{}).Where("quad = ? AND life = ? AND id = ?", quad, s.life(s.db, quad), id))
	if done.Error != nil {
		return false, s.writing(fmt.Errorf("change photo %d: %w", id, done.Error))
	}
	return done.RowsAffected > 0, nil
}
