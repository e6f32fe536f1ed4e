package store

import (
	"fmt"
	"time"
)

// Session is a browser that was let in. What it shows is stored as a hash alone.
type Session struct {
	ID   int64     `json:"id" gorm:"primaryKey"`
	Hash string    `json:"-"`
	Name string    `json:"name"`
	At   time.Time `json:"at"`
}

// TableName is the table of the sessions.
func (Session) TableName() string { return "sessions" }

// AddSession lets a browser in, by the hash of what it will show.
func (s *Store) AddSession(hash, name string, at time.Time) error {
	s.write.Lock()
	defer s.write.Unlock()
	if err := s.db.Create(&Session{Hash: hash, Name: name, At: at.UTC()}).Error; err != nil {
		return s.writing(fmt.Errorf("keep the session: %w", err))
	}
	return nil
}

// SessionOf finds a session by the hash of what a browser shows.
func (s *Store) SessionOf(hash string) (Session, bool, error) {
	var list []Session
	if err := s.db.Where("hash = ?", hash).Limit(1).Find(&list).Error; err != nil || len(list) == 0 {
		return Session{}, false, s.inWords(err)
	}
	return list[0], true, nil
}

// Sessions lists who was let in, the newest first.
func (s *Store) Sessions() ([]Session, error) {
	list := []Session{}
	if err := s.db.Order("id DESC").Limit(LargestPage).Find(&list).Error; err != nil {
		return nil, s.inWords(fmt.Errorf("read the sessions: %w", err))
	}
	return list, nil
}

// EndSession lets a browser in no longer.
func (s *Store) EndSession(id int64) error {
	s.write.Lock()
	defer s.write.Unlock()
	if err := s.db.Delete(&Session{ID: id}).Error; err != nil {
		return s.writing(fmt.Errorf("end the session: %w", err))
	}
	return nil
}
