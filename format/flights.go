package format

import (
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/stock"
)

// checkCourses finds what a schema cannot say of courses and test flights.
func checkCourses(ps *Problems, f *fleet.Fleet) {
	courses, flights := map[string]string{}, map[string]string{}
	for i := range f.Courses {
		at := indexed("courses", i)
		once(ps, courses, at+".id", f.Courses[i].ID)
		spots := map[string]string{}
		for k := range f.Courses[i].Spots {
			once(ps, spots, at+"."+indexed("spots", k)+".id", f.Courses[i].Spots[k].ID)
		}
	}
	for i := range f.TestFlights {
		at := indexed("testFlights", i)
		once(ps, flights, at+".id", f.TestFlights[i].ID)
		checkDay(ps, at+".on", f.TestFlights[i].On)
		checkReads(ps, at, &f.TestFlights[i])
		if c := &f.TestFlights[i].Carried; c.Without(fleet.NoBoard) && (c.Board != "" || c.BoardFirmware.Known()) {
			ps.add(at+".carried.none[0]", "board is stated here, and that there is none")
		}
	}
}

// checkTasks finds what a schema cannot say of tasks.
func checkTasks(ps *Problems, f *fleet.Fleet) {
	ids := map[string]string{}
	for i := range f.Tasks {
		at := indexed("tasks", i)
		once(ps, ids, at+".id", f.Tasks[i].ID)
		checkDay(ps, at+".due", f.Tasks[i].Due)
		checkDay(ps, at+".done", f.Tasks[i].Done)
	}
}

// checkReads finds readings that stand twice, or at a spot that was left out.
func checkReads(ps *Problems, at string, t *fleet.TestFlight) {
	spots, left := map[string]string{}, map[string]string{}
	for i, id := range t.LeftOut {
		once(ps, left, at+"."+indexed("leftOut", i), id)
	}
	for i := range t.Reads {
		r := &t.Reads[i]
		path := at + "." + indexed("reads", i)
		once(ps, spots, path+".spot", r.Spot)
		if t.Left(r.Spot) && len(r.Passes) > 0 {
			ps.add(path+".spot", "%q is said to be left out, and read", r.Spot)
		}
		passes := map[int]bool{}
		for k := range r.Passes {
			if passes[r.Passes[k].Pass] {
				ps.add(path+"."+indexed("passes", k)+".pass", "pass %d stands already", r.Passes[k].Pass)
			}
			passes[r.Passes[k].Pass] = true
		}
	}
}

// checkSpots finds readings at spots that their course does not have.
func checkSpots(ps *Problems, f *fleet.Fleet, st *stock.Stock) {
	for i := range f.TestFlights {
		t := &f.TestFlights[i]
		course, ok := f.Course(t.Course)
		if !ok {
			if course, ok = st.Fleet.Course(t.Course); !ok {
				continue
			}
		}
		at := indexed("testFlights", i)
		named := func(path, id string) {
			if _, there := course.Spot(id); !there {
				ps.add(at+"."+path, "expected a spot of %s, %q is none", course.Label(), id)
			}
		}
		for k, id := range t.LeftOut {
			named(indexed("leftOut", k), id)
		}
		for k := range t.Reads {
			named(indexed("reads", k)+".spot", t.Reads[k].Spot)
		}
	}
}
