package stock

import (
	"cmp"
	"maps"
	"slices"
)

// Between is what has become of entries from one state of a stock to another: those that are
// new, those that are gone, and those that are otherwise, by kind and id.
type Between struct {
	New     []Ref    `json:"new"`
	Gone    []Ref    `json:"gone"`
	Changed []Change `json:"changed"`
}

// Compared holds a later state of a stock against an earlier one.
func Compared(earlier, later *Stock) Between {
	out := Between{New: []Ref{}, Gone: []Ref{}, Changed: []Change{}}
	was, is := earlier.all(), later.all()
	for _, ref := range inOrder(was) {
		if _, there := is[ref]; !there {
			out.Gone = append(out.Gone, ref)
		}
	}
	for _, ref := range inOrder(is) {
		before, there := was[ref]
		if !there {
			out.New = append(out.New, ref)
			continue
		}
		if before == is[ref] {
			continue // the very entry: entries are replaced, never written through
		}
		if fields := Compare(before, is[ref]); len(fields) > 0 {
			out.Changed = append(out.Changed, Change{Ref: ref, Fields: fields})
		}
	}
	return out
}

func inOrder(of map[Ref]any) []Ref {
	return slices.SortedFunc(maps.Keys(of), func(a, b Ref) int {
		return cmp.Or(cmp.Compare(a.Kind, b.Kind), cmp.Compare(a.ID, b.ID))
	})
}

// all are the entries by what names them.
func (s *Stock) all() map[Ref]any {
	all := map[Ref]any{}
	for _, set := range s.Sets {
		for _, list := range set.Lists() {
			for _, item := range list.Items {
				all[Ref{string(item.Kind()), item.Head().ID}] = item
			}
		}
	}
	f := s.Fleet
	put := func(kind, id string, entry any) { all[Ref{kind, id}] = entry }
	for i := range f.Kit {
		put(KindKit, f.Kit[i].ID, &f.Kit[i])
	}
	for i := range f.Spares {
		put(KindSpare, f.Spares[i].Model, &f.Spares[i])
	}
	for i := range f.Quads {
		put(KindQuad, f.Quads[i].ID, &f.Quads[i])
	}
	for i := range f.Courses {
		put(KindCourse, f.Courses[i].ID, &f.Courses[i])
	}
	for i := range f.TestFlights {
		put(KindTestFlight, f.TestFlights[i].ID, &f.TestFlights[i])
	}
	for i := range f.Tasks {
		put(KindTask, f.Tasks[i].ID, &f.Tasks[i])
	}
	put(KindFleet, "fleet", new(Head(f)))
	return all
}
