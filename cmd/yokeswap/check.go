package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/stock"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/plans/inspect"
	"yokeswap/core/plans/swap"
	"yokeswap/format"
	"yokeswap/store"
)

// Report is what check says of one quad.
type Report struct {
	Quad string `json:"quad"`
	Name string `json:"name"`
	swap.Judgement
}

// check judges a fleet file with the gear packs it names: those given with
// --gear, those stored with --data, and those beside the file.
func check(c *call) error {
	asJSON := c.flags.Bool("json", false, "write the findings as JSON")
	data := c.flags.String("data", "", "take the gear stored in this folder too")
	var gearFiles many
	c.flags.Var(&gearFiles, "gear", "a gear pack to use")
	names, err := c.parse()
	if err != nil {
		return err
	}
	if len(names) != 1 {
		return fmt.Errorf("expected one file, got %d", len(names))
	}
	doc, err := readFile(names[0])
	if err != nil {
		return err
	}
	st, err := gearFor(doc, names[0], gearFiles, *data)
	if err != nil {
		return err
	}
	d, err := format.Take(st, doc)
	if err != nil {
		return named(names[0], err)
	}
	if doc.Set != nil {
		return c.sayGear(doc, inspect.Pack(doc.Set, st.Library()), d, *asJSON)
	}
	reports := judge(st)
	for _, r := range reports {
		if r.Level.WorseThan(verdict.Caution) {
			c.exit = exitFound
		}
	}
	if *asJSON {
		return writeJSON(c.stdout, reports)
	}
	printReports(c.stdout, reports)
	return nil
}

// sayGear tells of a gear pack: that it is sound, what each entry lacks for which gate, and
// what is implausible.
func (c *call) sayGear(doc format.Document, remarks []inspect.Remark, d stock.Difference, asJSON bool) error {
	count := 0
	for _, list := range doc.Set.Lists() {
		count += len(list.Items)
	}
	if asJSON {
		return writeJSON(c.stdout, map[string]any{"gearPack": doc.Set.ID, "entries": count, "remarks": remarks,
			"against": d.Against})
	}
	fmt.Fprintf(c.stdout, "gear pack %s: %d entries, sound\n", doc.Set.ID, count)
	printAgainst(c.stdout, d)
	for _, r := range remarks {
		if r.Gate == "" {
			fmt.Fprintf(c.stdout, "  %s %s: %s is %s\n", format.WordOf(r.Kind), r.Name, r.Field, r.Says)
		} else {
			fmt.Fprintf(c.stdout, "  %s %s: the %s gate lacks %s (%s)\n", format.WordOf(r.Kind), r.Name, r.Gate, r.Field, r.Says)
		}
	}
	return nil
}

func judge(st *stock.Stock) []Report {
	lib, index := st.Library(), fleet.NewIndex(st.Fleet)
	reports := make([]Report, len(st.Fleet.Quads))
	for i := range st.Fleet.Quads {
		q := &st.Fleet.Quads[i]
		reports[i] = Report{q.ID, q.Label(), swap.JudgeWithFixes(fleet.NewCase(lib, index, q))}
	}
	return reports
}

func printReports(w io.Writer, reports []Report) {
	for _, r := range reports {
		fmt.Fprintf(w, "%s: %s\n", r.Name, r.Level)
		for _, g := range r.Gates {
			fmt.Fprintf(w, "  %s: %s\n", g.Gate, g.Level)
			for _, f := range g.Findings {
				fmt.Fprintf(w, "    %-7s %s: %s\n", f.Level, f.Subject, f.Says)
				for _, cmp := range f.Compares {
					fmt.Fprintf(
						w,
						"            %s: needs %s, there %s%s\n",
						cmp.What,
						cmp.Needed,
						cmp.There,
						behind(", margin ", cmp.Margin),
					)
				}
				fmt.Fprintf(w, "            source: %s\n", f.Source)
				for _, fix := range f.Fixes {
					fmt.Fprintf(w, "            tried: %s: %s would be %s%s\n", fix.Says, g.Gate, fix.Gate, behind(", ", fix.Costs))
				}
			}
		}
	}
}

func behind(lead, text string) string {
	if text == "" {
		return ""
	}
	return lead + text
}

// gearFor collects the gear a file may refer to.
func gearFor(doc format.Document, path string, gearFiles []string, data string) (*stock.Stock, error) {
	st := stock.New()
	if data != "" {
		db, err := store.OpenExisting(data)
		if err != nil {
			return nil, err
		}
		defer db.Close()
		snap, err := db.Snapshot()
		if err != nil {
			return nil, err
		}
		st.Sets = snap.Sets
	}
	for _, name := range gearFiles {
		other, err := readFile(name)
		if err != nil {
			return nil, err
		}
		if other.Set == nil {
			return nil, fmt.Errorf("%s is no gear pack", name)
		}
		if _, err := format.Take(st, other); err != nil {
			return nil, named(name, err)
		}
	}
	if doc.Fleet == nil {
		return st, nil
	}
	for _, id := range doc.Fleet.GearPacks {
		if _, there := st.Set(id); there {
			continue
		}
		beside := filepath.Join(filepath.Dir(path), id+".gear.json")
		if _, err := os.Stat(beside); err != nil {
			continue // what it lacks is said where the fleet points at it
		}
		other, err := readFile(beside)
		if err != nil {
			return nil, err
		}
		if _, err := format.Take(st, other); err != nil {
			return nil, named(beside, err)
		}
	}
	return st, nil
}

// readFile reads a file of the open formats; "-" is not one of them.
func readFile(name string) (format.Document, error) {
	f, err := os.Open(name)
	if err != nil {
		return format.Document{}, err
	}
	defer f.Close()
	text, err := io.ReadAll(io.LimitReader(f, format.MaxBytes+1))
	if err != nil {
		return format.Document{}, fmt.Errorf("read %s: %w", name, err)
	}
	doc, err := format.Read(text)
	return doc, named(name, err)
}

// named puts the file's name before each problem.
func named(name string, err error) error {
	var problems format.Problems
	if !errors.As(err, &problems) {
		return err
	}
	lines := make([]string, len(problems))
	for i, p := range problems {
		lines[i] = name + ": " + p.String()
	}
	return errors.New(strings.Join(lines, "\n"))
}

func writeJSON(w io.Writer, value any) error {
	enc := json.NewEncoder(w)
	enc.SetEscapeHTML(false)
	enc.SetIndent("", "  ")
	return enc.Encode(value)
}
