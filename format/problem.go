// Package format reads and writes the open formats: the gear pack and the
// fleet file. Their JSON Schemas are in docs/format.
//
// A file is taken whole or not at all. Reading checks the encoding, the JSON
// itself (with duplicate keys), the schema (unknown fields are errors), what a
// schema cannot say (ranges and windows the right way round, ids once, no loop
// in what is fed from what), and reports every problem with its path in the
// file.
package format

import (
	"fmt"
	"strings"
)

// MaxBytes is the largest file that is read: 128 MiB, twice what the program writes of
// 10,000 quads. How much is made of it is bounded while it is read.
const MaxBytes = 128 << 20

// Problem is one thing wrong with a file.
type Problem struct {
	Path string `json:"path"` // as in airUnits[0].input.maxV; empty for the file as a whole
	Says string `json:"says"` // what was expected, what was found
}

func (p Problem) String() string {
	if p.Path == "" {
		return p.Says
	}
	return p.Path + ": " + p.Says
}

// Problems is everything wrong with a file; it is an error.
type Problems []Problem

func (ps Problems) Error() string {
	lines := make([]string, len(ps))
	for i, p := range ps {
		lines[i] = p.String()
	}
	return strings.Join(lines, "\n")
}

// mostProblems bounds a report: a file that is wrong throughout needs no more.
const mostProblems = 50

func (ps *Problems) add(path, says string, args ...any) {
	if len(*ps) < mostProblems {
		*ps = append(*ps, Problem{path, fmt.Sprintf(says, args...)})
	}
}

func (ps Problems) orNil() error {
	if len(ps) == 0 {
		return nil
	}
	return ps
}
