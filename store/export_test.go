package store

// Pragma reads a setting of the database, for the tests.
func (s *Store) Pragma(name string) (value string, err error) {
	err = s.db.Raw("PRAGMA " + name).Scan(&value).Error
	return value, err
}
