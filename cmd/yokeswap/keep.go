package main

import (
	"errors"
	"fmt"
	"os"
	"time"

	"yokeswap/format"
	"yokeswap/store"
)

// backup writes all that is kept into one file, and reads it again to check it.
func backup(c *call) error {
	data := c.dataFlag()
	names, err := c.parse()
	if err != nil {
		return err
	}
	if len(names) != 1 {
		return errors.New("expected the file to write the backup to")
	}
	st, err := store.OpenExisting(*data)
	if err != nil {
		return err
	}
	defer st.Close()
	rows, err := st.BackupTo(names[0], time.Now())
	if err != nil {
		return err
	}
	fmt.Fprintf(c.stdout, "%s: %d rows, read again and whole. Who was let in is not part of it.\n", names[0], rows)
	return nil
}

// restore puts a backup into a folder.
func restore(c *call) error {
	data := c.dataFlag()
	replace := c.flags.Bool("replace", false, "put it in the place of what is there; a copy of that is kept")
	names, err := c.parse()
	if err != nil {
		return err
	}
	if len(names) != 1 {
		return errors.New("expected a backup")
	}
	f, err := os.Open(names[0])
	if err != nil {
		return err
	}
	defer f.Close()
	st, err := store.Open(*data)
	if err != nil {
		return err
	}
	defer st.Close()
	rows, err := st.Restore(f, *replace, format.CheckWhole, time.Now())
	if errors.Is(err, store.ErrNotEmpty) {
		return fmt.Errorf("%w: use --replace to put the backup in its place, or another folder", err)
	}
	if err != nil {
		return named(names[0], err)
	}
	fmt.Fprintf(c.stdout, "%s: %d rows taken in.\n", names[0], rows)
	return nil
}

// doctor says what is wrong with a database, and mends it where it is asked to.
func doctor(c *call) error {
	data := c.dataFlag()
	repair := c.flags.Bool("repair", false, "mend what can be mended; a copy is kept")
	if names, err := c.parse(); err != nil || len(names) > 0 {
		return orUnexpected(err, names)
	}
	found, err := store.Doctor(*data, *repair, time.Now())
	for _, a := range found {
		fmt.Fprintln(c.stdout, a.Says)
		if !a.Mended {
			c.exit = exitBad
		}
	}
	if err == nil && len(found) == 0 {
		fmt.Fprintln(c.stdout, "The database is sound.")
	}
	return err
}
