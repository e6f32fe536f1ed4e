package store

import (
	"database/sql"
	"errors"
	"fmt"
	"io/fs"
	"net/url"
	"os"
	"path/filepath"
	"runtime"
	"strings"

	"github.com/glebarez/sqlite"
	"gorm.io/gorm"
	"gorm.io/gorm/logger"
)

// ErrNoDatabase says that a folder holds no database.
var ErrNoDatabase = errors.New("there is no database")

// settings of every connection: what was confirmed is on the disk, references hold, and
// another program's write is waited for.
const settings = "_pragma=journal_mode(WAL)&_pragma=synchronous(FULL)&_pragma=foreign_keys(1)" +
	"&_pragma=busy_timeout(5000)&_txlock=immediate"

// address names a file to the driver. The path is escaped: a folder may be called
// anything, "a?b" and "50%" too.
func address(path string) (string, error) {
	whole, err := filepath.Abs(path)
	if err != nil {
		return "", fmt.Errorf("find %s: %w", path, err)
	}
	whole = filepath.ToSlash(whole)
	if !strings.HasPrefix(whole, "/") {
		whole = "/" + whole // with a drive's letter
	}
	u := url.URL{Scheme: "file", Path: whole, RawQuery: settings}
	return u.String(), nil
}

// OpenExisting opens the database in a directory, and makes none where there is none.
func OpenExisting(dir string) (*Store, error) {
	if _, err := os.Stat(filepath.Join(dir, FileName)); errors.Is(err, fs.ErrNotExist) {
		return nil, fmt.Errorf("%w in %s: is it the right folder?", ErrNoDatabase, dir)
	}
	return Open(dir)
}

// Open opens the database in a directory, making both where missing, and
// brings its tables up to date; a copy of what was there before stays beside it.
func Open(dir string) (*Store, error) {
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return nil, fmt.Errorf("make the data directory: %w", err)
	}
	path := filepath.Join(dir, FileName)
	if err := private(path); err != nil {
		return nil, err
	}
	at, err := address(path)
	if err != nil {
		return nil, err
	}
	s := &Store{dir: dir}
	s.db, err = gorm.Open(sqlite.Open(at), &gorm.Config{
		Logger: logger.Default.LogMode(logger.Silent), SkipDefaultTransaction: true, TranslateError: true})
	if err != nil {
		return nil, s.inWords(fmt.Errorf("open the database in %s: %w", dir, err))
	}
	if err := s.upToDate(path); err != nil {
		_ = s.Close()
		return nil, s.inWords(fmt.Errorf("bring the database in %s up to date: %w", dir, err))
	}
	return s, nil
}

// private makes sure that the database is for its owner alone.
func private(path string) error {
	f, err := os.OpenFile(path, os.O_RDONLY|os.O_CREATE, 0o600)
	switch {
	case errors.Is(err, fs.ErrPermission):
		return fmt.Errorf("the database %s may not be read by this user: whose is it?", path)
	case err != nil:
		return fmt.Errorf("open the database %s: %w", path, err)
	}
	defer f.Close()
	if info, err := f.Stat(); err == nil && runtime.GOOS != "windows" && info.Mode().Perm()&0o077 != 0 {
		_ = f.Chmod(0o600) // where it is not ours the file is left as it is
	}
	return nil
}

// upToDate migrates the tables, with a copy of the database kept before each time.
func (s *Store) upToDate(path string) error {
	var have []string
	if s.db.Migrator().HasTable("migrations") {
		if err := s.db.Table("migrations").Pluck("id", &have).Error; err != nil {
			return err
		}
	}
	if len(have) > 0 && len(have) < len(migrations) {
		last := migrations[len(have)-1].ID
		kept := path + ".before-" + migrations[len(have)].ID
		if _, err := os.Stat(kept); errors.Is(err, fs.ErrNotExist) {
			if err := s.db.Exec("VACUUM INTO ?", kept).Error; err != nil {
				return fmt.Errorf("keep a copy of the database as of %s: %w", last, err)
			}
			_ = os.Chmod(kept, 0o600)
		}
	}
	if err := migrate(s.db); err != nil {
		return err
	}
	for _, table := range tables {
		if !s.db.Migrator().HasTable(table) {
			return fmt.Errorf("the table %q is missing; yokeswap doctor says what can be saved", table)
		}
	}
	return nil
}

// tables are those a sound database has.
var tables = []string{
	"gear_packs",
	"gear",
	"fleets",
	"fleet_entries",
	"bench_records",
	"board_snapshots",
	"events",
	"counters",
	"sessions",
}

// Close closes the database.
func (s *Store) Close() error {
	db, err := s.db.DB()
	if err != nil {
		return fmt.Errorf("close the database: %w", err)
	}
	return db.Close()
}

// Condition is how the database is, in a word.
type Condition string

// The conditions.
const (
	Sound    Condition = "ok"
	ReadOnly Condition = "read-only"
	Full     Condition = "full"
	Locked   Condition = "locked"
	Damaged  Condition = "damaged"
	Closed   Condition = "not there"
)

// Trouble is a fault of the database or the disk it lies on: what it is, and what to do.
type Trouble struct {
	Condition Condition
	Says      string
	Err       error
}

func (t *Trouble) Error() string { return t.Says }
func (t *Trouble) Unwrap() error { return t.Err }

// The result codes of SQLite (sqlite.org/rescode.html), the lower byte.
const (
	codeBusy, codeLocked, codeReadOnly, codeIO        = 5, 6, 8, 10
	codeCorrupt, codeFull, codeCannotOpen, codeNotADB = 11, 13, 14, 26
)

// inWords says what an error of the database means, and what to do; others are passed
// on as they are.
func (s *Store) inWords(err error) error {
	var coded interface{ Code() int }
	if errors.Is(err, sql.ErrConnDone) || err != nil && strings.Contains(err.Error(), "database is closed") {
		return &Trouble{Closed, "The program is stopping: nothing was changed.", err}
	}
	if err == nil || !errors.As(err, &coded) {
		return err
	}
	t := &Trouble{Err: err}
	switch coded.Code() & 0xff {
	case codeFull:
		t.Condition, t.Says = Full, "The disk that holds "+s.dir+" is full. Nothing was changed: make room on "+
			"it, then do this again."
	case codeReadOnly:
		t.Condition = ReadOnly
		t.Says = "The database in " + s.dir + " can be read and not written. Nothing was changed: let this user " +
			"write the folder and the file, then do this again."
	case codeBusy, codeLocked:
		t.Condition = Locked
		t.Says = "Another program holds the database in " + s.dir + " and does not let go. Nothing was changed: " +
			"end it, then do this again."
	case codeCorrupt, codeNotADB:
		t.Condition = Damaged
		t.Says = "The database in " + s.dir + " is damaged. Stop the program, keep a copy of the folder, and run " +
			"yokeswap doctor."
	case codeCannotOpen:
		t.Condition = Closed
		t.Says = "The database in " + s.dir + " cannot be opened: is the folder there, and may this user read it?"
	case codeIO:
		t.Condition = Damaged
		t.Says = "The disk that holds " + s.dir + " does not answer as it should. Nothing was changed: is it " +
			"still plugged in?"
	default:
		return err
	}
	return t
}

// writing remembers how a write went.
func (s *Store) writing(err error) error {
	err = s.inWords(err)
	var t *Trouble
	if errors.As(err, &t) {
		s.trouble.Store(t)
	} else if err == nil {
		s.trouble.Store(nil)
	}
	return err
}

// Health is how the database is, found in constant time: it answers, it can be written,
// and the last write went well.
func (s *Store) Health() (Condition, error) {
	var one int
	if err := s.db.Raw("SELECT revision FROM counters WHERE id = 1").Scan(&one).Error; err != nil {
		err = s.inWords(err)
		var t *Trouble
		if errors.As(err, &t) {
			return t.Condition, err
		}
		return Damaged, err
	}
	if t := s.trouble.Load(); t != nil {
		return t.Condition, t
	}
	if !s.write.TryLock() {
		return Sound, nil // it is being written to at this moment
	}
	defer s.write.Unlock()
	if err := s.db.Exec("BEGIN IMMEDIATE; ROLLBACK").Error; err != nil {
		var t *Trouble
		if errors.As(s.inWords(err), &t) && t.Condition == ReadOnly {
			return ReadOnly, t
		}
	}
	return Sound, nil
}

// Check asks the database whether it is sound, the whole file.
func (s *Store) Check() error {
	var answer string
	if err := s.db.Raw("PRAGMA quick_check(1)").Scan(&answer).Error; err != nil {
		return s.inWords(fmt.Errorf("check the database: %w", err))
	}
	if answer != "ok" {
		return fmt.Errorf("check the database: %s", answer)
	}
	return nil
}
