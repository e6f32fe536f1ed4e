package main

import (
	"errors"
	"fmt"
	"io"
	"os"
	"strings"

	"yokeswap/core/facts/stock"
	"yokeswap/format"
	"yokeswap/store"
	"yokeswap/web"
)

// errDryRun ends a dry run without keeping anything.
var errDryRun = errors.New("dry run")

// importFiles takes files in, all of them or none.
func importFiles(c *call) error {
	data := c.dataFlag()
	replace := c.flags.Bool("replace", false, "replace entries that are there already, otherwise")
	over := c.flags.String("file-wins", "",
		"ids, with commas: entries of the file that hold where another pack says otherwise")
	dry := c.flags.Bool("dry-run", false, "only say what would change")
	names, err := c.parse()
	if err != nil {
		return err
	}
	if len(names) == 0 {
		return errors.New("expected a file")
	}
	docs := make([]format.Document, len(names))
	for i, name := range names {
		if docs[i], err = readFile(name); err != nil {
			return err
		}
	}
	st, err := store.Open(*data)
	if err != nil {
		return err
	}
	defer st.Close()
	err = st.Update(store.Deed{Does: "took in a file", Who: "the command line"}, func(s *stock.Stock) error {
		for i, doc := range docs {
			d, err := format.TakeOver(s, doc, filesWin(*over))
			if err != nil {
				return named(names[i], err)
			}
			printDifference(c.stdout, names[i], d)
			if len(d.Changed) > 0 && !*replace && !*dry {
				return fmt.Errorf(
					"%s: %d entries are there already, otherwise; nothing was taken in; use --replace to replace them",
					names[i],
					len(d.Changed),
				)
			}
		}
		if *dry {
			return errDryRun
		}
		return nil
	})
	if errors.Is(err, errDryRun) {
		return nil
	}
	return err
}

func printDifference(w io.Writer, name string, d stock.Difference) {
	fmt.Fprintf(w, "%s: %d new, %d alike, %d otherwise\n", name, len(d.New), d.Same, len(d.Changed))
	for _, change := range d.Changed {
		for _, f := range change.Fields {
			fmt.Fprintf(w, "  %s %s: %s → %s\n", change.Ref, f.Path, orNothing(f.Before), orNothing(f.After))
		}
	}
	printAgainst(w, d)
}

// filesWin are the entries that were named to hold over what is there.
func filesWin(ids string) map[string]string {
	wins := map[string]string{}
	for id := range strings.SplitSeq(ids, ",") {
		if id = strings.TrimSpace(id); id != "" {
			wins[id] = stock.WinsFile
		}
	}
	return wins
}

// printAgainst says what other gear packs state otherwise, and which of the two stays.
func printAgainst(w io.Writer, d stock.Difference) {
	for _, a := range d.Against {
		stays := map[string]string{
			stock.WinsThere: "what is there stays",
			stock.WinsFile:  "the file's takes its place",
			stock.WinsNone:  "both stand, and what rests on them is unknown",
		}[a.Wins]
		fmt.Fprintf(w, "  %s is stated otherwise in “%s”: %s\n", a.Ref, a.PackTitle, stays)
		for _, c := range a.Claims {
			fmt.Fprintf(w, "    %s: %s (%s), in the file %s (%s)\n", c.Path, orNothing(c.There), c.ThereSource,
				orNothing(c.File), c.FileSource)
		}
	}
}

func orNothing(s string) string {
	if s == "" {
		return "nothing"
	}
	return s
}

// export writes the fleet, or a gear pack, to a file or standard output.
func export(c *call) error {
	data := c.dataFlag()
	set := c.flags.String("gear", "", "write this gear pack instead of the fleet")
	output := c.flags.String("output", "", "write to this file")
	if names, err := c.parse(); err != nil || len(names) > 0 {
		return orUnexpected(err, names)
	}
	st, err := store.OpenExisting(*data)
	if err != nil {
		return err
	}
	defer st.Close()
	snap, err := st.Snapshot()
	if err != nil {
		return err
	}
	var value any = snap.Fleet
	if *set != "" {
		found, ok := snap.Set(*set)
		if !ok {
			return fmt.Errorf("there is no gear pack %q", *set)
		}
		value = found
	}
	text, err := format.Write(value)
	if err != nil {
		return err
	}
	if *output == "" {
		_, err = c.stdout.Write(text)
		return err
	}
	return os.WriteFile(*output, text, 0o600)
}

func openapi(c *call) error {
	text, err := web.OpenAPI("1")
	if err != nil {
		return err
	}
	_, err = c.stdout.Write(append(text, '\n'))
	return err
}
