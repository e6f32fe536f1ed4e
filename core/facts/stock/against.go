package stock

import (
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/gear"
)

// Two gear packs can state one thing differently. Which of them holds is for the one who
// takes the second in to say: until then, what is there stays.

// The sides of a contradiction.
const (
	WinsThere = "there" // what is there stays, and the file's is left out
	WinsFile  = "file"  // the file's takes its place
	WinsNone  = "both"  // both statements stand; what rests on them is unknown
)

// Against is something that a file states otherwise than another gear pack that is there.
type Against struct {
	Ref
	// Other is the entry there: of the same id, or another statement about the same pair.
	Other     string  `json:"other"`
	Pack      string  `json:"pack"`      // the gear pack it stands in
	PackTitle string  `json:"packTitle"` // by name
	Says      string  `json:"says,omitempty"`
	Claims    []Claim `json:"claims"` // the values they differ in, or what each says
	Wins      string  `json:"wins" enum:"there,file,both"`
}

// Claim is a value as each side states it, with what it rests on.
type Claim struct {
	Path        string `json:"path"`
	There       string `json:"there"`
	ThereSource string `json:"thereSource"`
	File        string `json:"file"`
	FileSource  string `json:"fileSource"`
}

// against takes out of a gear pack what another pack states, alike or otherwise, unless the
// file is to win; what it is to win over is put in the place of the other or takes it out.
// It gives what is left to be merged.
func (s *Stock) against(in *gear.Set, wins map[string]string, d *Difference) (*gear.Set, error) {
	held := map[string]gear.Item{}
	packOf := map[string]*gear.Set{}
	var statements []*gear.Pairing
	for _, other := range s.Sets {
		if other.ID == in.ID {
			continue
		}
		for _, list := range other.Lists() {
			for _, item := range list.Items {
				held[item.Head().ID], packOf[item.Head().ID] = item, other
				if p, ok := item.(*gear.Pairing); ok {
					statements = append(statements, p)
				}
			}
		}
	}
	rest := *in
	for _, list := range in.Lists() {
		for i, item := range list.Items {
			id := item.Head().ID
			there, taken := held[id]
			switch {
			case taken && there.Kind() != item.Kind():
				return nil, fmt.Errorf("%s[%d].id: the id %q stands already in the gear pack %q", list.Name, i, id, packOf[id].ID)
			case taken:
				s.sameID(item, there, packOf[id], wins[id], d)
				rest.Drop(id)
			case item.Kind() == gear.KindPairing:
				if left := s.sameLink(item.(*gear.Pairing), statements, packOf, wins[id], d); left {
					rest.Drop(id)
				}
			}
		}
	}
	return &rest, nil
}

// sameID settles an entry that another pack has under the same id.
func (s *Stock) sameID(item, there gear.Item, pack *gear.Set, wins string, d *Difference) {
	fields := Compare(there, item)
	if len(fields) == 0 {
		d.Same++
		return
	}
	a := Against{
		Ref:       Ref{string(item.Kind()), item.Head().ID},
		Other:     item.Head().ID,
		Pack:      pack.ID,
		PackTitle: pack.Title,
		Claims:    claims(fields, there.Head(), item.Head()),
		Wins:      WinsThere,
	}
	if wins == WinsFile {
		a.Wins = WinsFile
		s.inPlace(pack.ID, func(set *gear.Set) { set.Put(item.Kind(), []gear.Item{item}, func(_, _ gear.Item) {}) })
	}
	d.Against = append(d.Against, a)
}

// sameLink settles a statement about a pair of models that contradicts one there; true
// where the file's is left out.
func (s *Stock) sameLink(
	p *gear.Pairing, statements []*gear.Pairing, packOf map[string]*gear.Set, wins string, d *Difference,
) (left bool) {
	for _, other := range statements {
		how := other.Contradicts(p)
		if p.AirUnit != other.AirUnit || p.Goggles != other.Goggles || how == "" {
			continue
		}
		pack := packOf[other.ID]
		a := Against{
			Ref:       Ref{string(gear.KindPairing), p.ID},
			Other:     other.ID,
			Pack:      pack.ID,
			PackTitle: pack.Title,
			Says:      how,
			Claims:    claims(Compare(other, p), &other.Entry, &p.Entry),
			Wins:      WinsNone,
		}
		switch wins {
		case WinsThere:
			a.Wins, left = WinsThere, true
		case WinsFile:
			a.Wins = WinsFile
			s.inPlace(pack.ID, func(set *gear.Set) { set.Drop(other.ID) })
		}
		d.Against = append(d.Against, a)
	}
	return left
}

// claims are the values two entries differ in, each with its source; what they are called and
// where they are from is none.
func claims(fields []FieldChange, there, file *gear.Entry) []Claim {
	list := []Claim{}
	for _, f := range fields {
		head, _, _ := strings.Cut(f.Path, ".")
		if slices.Contains([]string{"id", "name", "source", "valueSources"}, head) {
			continue
		}
		list = append(list, Claim{f.Path, f.Before, there.SourceOf(f.Path).String(), f.After, file.SourceOf(f.Path).String()})
	}
	return list
}

// inPlace changes a copy of a gear pack and puts it in its place.
func (s *Stock) inPlace(id string, change func(*gear.Set)) {
	at := slices.IndexFunc(s.Sets, func(set *gear.Set) bool { return set.ID == id })
	set := *s.Sets[at]
	change(&set)
	s.Sets[at] = &set
}
