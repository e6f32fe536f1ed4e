package tasks_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
	"yokeswap/core/work/tasks"
)

// What is open: by its day, the late ones marked; a stop-gap with what it waits for; a release
// that is best avoided and a capacitor with little room, each gone when that is otherwise.
func TestWhatIsOpen(t *testing.T) {
	set := sample.Set()
	set.AirUnits[0].Releases[1].Advice = &gear.Advice{Why: "it forgets the mode"}
	fleetOf := func(change func(q *fleet.Quad, kit *fleet.Kit)) []tasks.Open {
		f := &fleet.Fleet{
			Kit: []fleet.Kit{sample.Own("first", "1.0.6", ""), sample.Own("old-eyes", "4.1", "a")},
			Quads: []fleet.Quad{{ID: "quad", Name: "Quad", Now: fleet.Fit{AirUnit: &fleet.Slot{Kit: "first"},
				Goggles: &fleet.Slot{Kit: "old-eyes"}, Pack: "lipo-4", CapacitorUF: new(unit.Microfarads(470)),
				CapacitorV: new(unit.Volts(17)), Mounting: fleet.Mounting{Holdings: []fleet.Hold{
					{Part: fleet.NodeCamera, Way: fleet.HeldByTies, Awaits: "the cage", Due: "2026-05-20"}}}}}},
			Tasks: []fleet.Task{{ID: "b", Name: "later", Due: "2026-06-01", Quad: "quad", After: "the rain"},
				{ID: "a", Name: "soon", Due: "2026-05-01"}, {ID: "c", Name: "done", Due: "2026-01-01", Done: "2026-01-01"},
				{ID: "d", Name: "some day"}},
		}
		change(&f.Quads[0], &f.Kit[0])
		return tasks.List(gear.NewLibrary(set), fleet.NewIndex(f), "2026-05-10")
	}
	list := fleetOf(func(*fleet.Quad, *fleet.Kit) {})
	var says []string
	for _, o := range list {
		says = append(says, o.Says)
	}
	require.Len(t, list, 6, "%v", says)
	assert.Equal(t, []string{"soon", "the camera is held by ties as a stop-gap, until this comes: the cage.", "later", "some day"}, says[:4])
	assert.True(t, list[0].Late)
	assert.False(t, list[1].Late)
	assert.False(t, tasks.List(gear.NewLibrary(set), fleet.NewIndex(&fleet.Fleet{
		Tasks: []fleet.Task{{ID: "a", Due: "2026-05-10"}}}), "2026-05-10")[0].Late, "today is not late")
	assert.Equal(t, verdict.Mount, list[1].Gate)
	assert.Equal(t, "Quad, the rain", list[2].Name+", "+list[2].After)
	assert.Contains(t, says[4], "best avoided: it forgets the mode")
	assert.Contains(t, says[5], "little room, it ages early")

	for name, change := range map[string]func(q *fleet.Quad, kit *fleet.Kit){
		"another release":   func(_ *fleet.Quad, kit *fleet.Kit) { kit.Firmware = "1.0" },
		"another capacitor": func(q *fleet.Quad, _ *fleet.Kit) { q.Now.CapacitorV = new(unit.Volts(35)) },
		"held by the cage":  func(q *fleet.Quad, _ *fleet.Kit) { q.Now.Holdings = nil },
	} {
		assert.Len(t, fleetOf(change), 5, name)
	}
}

// A quad that was proven and carries another thing since has to be flown again, until it is.
func TestWhatHasToBeProvenAgain(t *testing.T) {
	f := &fleet.Fleet{
		Kit: []fleet.Kit{sample.Own("first", "1.0.6", "")},
		Quads: []fleet.Quad{{ID: "quad", Now: fleet.Fit{AirUnit: &fleet.Slot{Kit: "first"}, Antennas: &fleet.Antennas{Models: []string{"stub"}},
			Nones: gear.Nones{None: []string{fleet.NoBoard}}}}},
		TestFlights: []fleet.TestFlight{{ID: "a", Quad: "quad", On: "2026-05-01", Checked: new(true),
			Carried: fleet.Carried{AirUnit: "first", AirFirmware: "1.0.6", Antennas: []string{"stub"},
				Nones: gear.Nones{None: []string{fleet.NoBoard}}},
			Reads: []fleet.SpotReads{{Spot: "tree", Passes: []fleet.PassRead{{Pass: 1}}}}}},
	}
	again := func() (says []string) {
		for _, o := range tasks.List(gear.NewLibrary(sample.Set()), fleet.NewIndex(f), "2026-05-10") {
			if o.Key == "prove.proven:quad" {
				says = append(says, o.Says)
			}
		}
		return says
	}
	assert.Empty(t, again())
	f.Quads[0].Now.Antennas.Models = []string{"reed"}
	require.Len(t, again(), 1)
	assert.Contains(t, again()[0], "its antennas: stub on 2026-05-01, now reed")
	f.TestFlights = append(f.TestFlights, f.TestFlights[0])
	f.TestFlights[1].On, f.TestFlights[1].Carried.Antennas = "2026-05-09", []string{"reed"}
	assert.Empty(t, again(), "flown again")
}

// A crash is open until the quad was looked over after it; a flight is not.
func TestACrashIsLookedAt(t *testing.T) {
	open := func(outings ...fleet.Outing) (list []tasks.Open) {
		f := &fleet.Fleet{Quads: []fleet.Quad{{ID: "q", Name: "Q", Outings: outings}}}
		for _, o := range tasks.List(sample.Case(sample.Set(), nil, fleet.Fit{}).Library, fleet.NewIndex(f), "2026-06-01") {
			if o.Due != "" {
				list = append(list, o)
			}
		}
		return list
	}
	list := open(fleet.Outing{On: "2026-05-12", Crash: true}, fleet.Outing{On: "2026-05-13", Crash: true, Looked: true},
		fleet.Outing{On: "2026-05-14"})
	require.Len(t, list, 1)
	assert.True(t, list[0].Late)
	assert.Contains(t, list[0].Says, "after the crash of 2026-05-12 before it flies again")
	assert.Contains(t, list[0].Says, "swollen or dented pack")
}

// What is to be sold is a task once nobody flies with it, nor will: with its account, and what it brings.
func TestWhatIsToBeSold(t *testing.T) {
	set := sample.Set()
	eyes := &set.Goggles[0]
	eyes.Activation = &gear.Activation{Locks: new(true)}
	eyes.Deals = []gear.Deal{{ID: "resale", Kind: gear.DealResale, Offer: gear.Offer{Price: new(60.0), Currency: "EUR"}}}
	f := &fleet.Fleet{Kit: []fleet.Kit{sample.Own(eyes.ID, "4.1", "a")}, Quads: []fleet.Quad{{ID: "q"}}}
	says := func() (list []string) {
		for _, o := range tasks.List(gear.NewLibrary(set), fleet.NewIndex(f), "2026-06-01") {
			if o.Key == "sell:"+eyes.ID {
				list = append(list, o.Says)
			}
		}
		return list
	}
	assert.Empty(t, says())
	f.Kit[0].Sell = true
	require.Len(t, says(), 1)
	assert.Contains(t, says()[0], "it brings about 60.00 EUR. It is bound to an account: let it go from there first")
	eyes.Activation.Locks = nil
	assert.NotContains(t, says()[0], "account")
	flown := fleet.Fit{Goggles: &fleet.Slot{Kit: eyes.ID}}
	for name, q := range map[string]fleet.Quad{
		"now": {ID: "q", Now: flown}, "next": {ID: "q", Next: &flown}, "in turn": {ID: "q", InTurn: []fleet.TurnFit{{Fit: flown}}},
	} {
		f.Quads[0] = q
		assert.Empty(t, says(), name)
	}
}
