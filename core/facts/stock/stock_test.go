package stock_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
)

func full(t *testing.T) *stock.Stock {
	t.Helper()
	s := stock.New()
	d, err := s.MergeSet(sample.Set())
	require.NoError(t, err)
	require.NotEmpty(t, d.New)
	s.MergeFleet(
		&fleet.Fleet{
			Title:     "Mill",
			GearPacks: []string{"sample"},
			Kit:       []fleet.Kit{sample.Own("first", "1.0", ""), sample.Own("old-eyes", "4.1", "a")},
			Spares: []fleet.Spare{
				{Model: "step-down-12", Count: 1},
			},
			Quads: []fleet.Quad{{ID: "q", Now: fleet.Fit{AirUnit: &fleet.Slot{Kit: "first"}, Pack: "lipo-4"}}},
		},
	)
	return s
}

func TestMergingAddsReplacesAndNeverTakesOut(t *testing.T) {
	s := full(t)
	_, ok := s.Set("another")
	assert.False(t, ok)
	set := &gear.Set{ID: "sample", Title: "sample", AirUnits: []gear.AirUnit{sample.Set().AirUnits[0], {}}}
	set.AirUnits[0].Input.MaxV = new(unit.Volts(20))
	set.AirUnits[1].ID = "brand-new"
	d, err := s.MergeSet(set)
	require.NoError(t, err)
	assert.Equal(t, []stock.Ref{{Kind: "airUnit", ID: "brand-new"}}, d.New)
	require.Len(t, d.Changed, 1)
	assert.Equal(t, []stock.FieldChange{{Path: "input.maxV", Before: "17.6", After: "20"}}, d.Changed[0].Fields)
	lib := s.Library()
	for _, id := range []string{"second", "small", "brand-new", "lipo-6"} {
		_, ok := lib.Item(id)
		assert.True(t, ok, id)
	}
	first, _ := gear.Find[*gear.AirUnit](lib, "first")
	assert.Equal(t, unit.Volts(20), *first.Input.MaxV)
}

func TestAFleetMergesIntoAnother(t *testing.T) {
	s := full(t)
	d := s.MergeFleet(
		&fleet.Fleet{
			Title:     "Mill",
			GearPacks: []string{"other"},
			Kit:       []fleet.Kit{sample.Own("first", "1.1", "")},
			Quads:     []fleet.Quad{{ID: "r"}},
		},
	)
	assert.Equal(t, []stock.Ref{{Kind: "quad", ID: "r"}}, d.New)
	assert.Len(t, d.Changed, 2, "the fleet's gear packs and the kit's firmware")
	assert.Equal(t, []string{"sample", "other"}, s.Fleet.GearPacks)
	assert.Len(t, s.Fleet.Quads, 2)
	piece := s.Entry(stock.Ref{Kind: stock.KindKit, ID: "first"}).(*fleet.Kit)
	assert.Equal(t, "1.1", string(piece.Firmware))
}

func TestAnIdBelongsToOneEntryOnly(t *testing.T) {
	s := full(t)
	other := &gear.Set{ID: "other", Title: "other", Packs: []gear.Pack{{Entry: gear.Entry{ID: "first"}}}}
	_, err := s.MergeSet(other)
	assert.ErrorContains(t, err, `packs[0].id: the id "first" stands already in the gear pack "sample"`)
	_, err = full(
		t,
	).MergeSet(&gear.Set{ID: "sample", Title: "sample", Packs: []gear.Pack{{Entry: gear.Entry{ID: "first"}}}})
	assert.ErrorContains(t, err, "ids are unique")
}

func TestForksGoTheirOwnWay(t *testing.T) {
	s := full(t)
	fork := s.Fork()
	require.NoError(t, fork.Plan("q", fleet.Patch{Pack: new("lipo-6")}))
	changed := sample.Set()
	changed.AirUnits[0].Input.MaxV = new(unit.Volts(99))
	_, err := fork.MergeSet(changed)
	require.NoError(t, err)
	assert.True(t, fork.Remove(stock.Ref{Kind: stock.KindSpare, ID: "step-down-12"}))

	assert.Nil(t, s.Fleet.Quads[0].Next)
	first, _ := gear.Find[*gear.AirUnit](s.Library(), "first")
	assert.Equal(t, unit.Volts(17.6), *first.Input.MaxV)
	assert.Len(t, s.Fleet.Spares, 1)
	assert.Error(t, s.Plan("nix", fleet.Patch{}))
}

func TestEntriesAreFoundAndRemovedByKind(t *testing.T) {
	for _, ref := range []stock.Ref{{Kind: "kit", ID: "first"}, {Kind: "spare", ID: "step-down-12"}, {Kind: "quad", ID: "q"}, {Kind: "airUnit", ID: "first"},
		{Kind: "goggles", ID: "old-eyes"}, {Kind: "controller", ID: "old-hand"}, {Kind: "receiver", ID: "receiver"}, {Kind: "board", ID: "board"},
		{Kind: "regulator", ID: "step-down-12"}, {Kind: "pack", ID: "lipo-4"}, {Kind: "pairing", ID: "small-never"}} {
		s := full(t)
		assert.NotNil(t, s.Entry(ref), "%s", ref)
		assert.True(t, s.Remove(ref), "%s", ref)
		assert.Nil(t, s.Entry(ref), "%s", ref)
		assert.False(t, s.Remove(ref), "%s", ref)
	}
	assert.Nil(t, full(t).Entry(stock.Ref{Kind: "pack", ID: "first"}), "first is no pack")
}

func TestCompareNamesEachValue(t *testing.T) {
	a := fleet.Quad{ID: "q", Now: fleet.Fit{Pack: "a", Feeds: []fleet.Feed{{To: "x", From: "y"}}}}
	b := fleet.Quad{ID: "q", Name: "Quern", Now: fleet.Fit{Pack: "b", Feeds: []fleet.Feed{{To: "x", From: "z"}}}}
	assert.Equal(
		t,
		[]stock.FieldChange{
			{Path: "now.feeds[0].from", Before: "y", After: "z"},
			{Path: "now.pack", Before: "a", After: "b"},
			{Path: "name", After: "Quern"},
		},
		stock.Compare(a, b),
	)
	assert.Empty(t, stock.Compare(a, a))
	assert.Equal(
		t,
		[]stock.FieldChange{{Path: "", Before: "", After: `{"x":1}`}},
		stock.Compare(nil, map[string]int{"x": 1}),
	)
}

// What is taken of the route changes the kit as it was read, whatever was planned.
func TestAStepTakenChangesTheKit(t *testing.T) {
	st := stock.New()
	st.Sets = append(st.Sets, sample.Set())
	st.Fleet.Kit = []fleet.Kit{{ID: "eyes", Model: "old-eyes", Firmware: "4.6", Mode: "b"}}
	require.NoError(t, st.Take(fleet.Taken{Kit: "eyes", Do: "update", Planned: "4.8", NotOffered: true}))
	assert.Equal(t, firmware.Version("4.6"), st.Fleet.Kit[0].Firmware, "nothing was done")
	st.Offered("eyes", "4.8")
	assert.Empty(t, st.Fleet.Taken)
	require.NoError(t, st.Take(fleet.Taken{Kit: "eyes", Do: "update", Planned: "4.8", Read: "4.4"}))
	assert.Equal(t, firmware.Version("4.4"), st.Fleet.Kit[0].Firmware)
	assert.Empty(t, st.Fleet.Kit[0].Mode, "4.4 has no mode b")
	require.NoError(t, st.Take(fleet.Taken{Kit: "eyes", Do: "mode", Mode: "a"}))
	require.NoError(t, st.Take(fleet.Taken{Kit: "eyes", Do: "activate"}))
	assert.Equal(t, "a", st.Fleet.Kit[0].Mode)
	assert.True(t, *st.Fleet.Kit[0].Activated)
	assert.Equal(t, firmware.Version("4.6"), st.Fleet.Taken[0].From, "where the way back leads")
	assert.Error(t, st.Take(fleet.Taken{Kit: "nix", Do: "activate"}))
	assert.True(t, st.Remove(stock.Ref{Kind: stock.KindKit, ID: "eyes"}))
	assert.Empty(t, st.Fleet.Taken, "a device taken out leaves no steps behind")
}

func TestMatingsAreCountedWhereTheCountIsStated(t *testing.T) {
	st := stock.New()
	st.Fleet.Kit = []fleet.Kit{{ID: "new", Matings: new(0)}, {ID: "used"}}
	before := st.Fleet
	st.Mate("new", 1)
	st.Mate("used", 1)
	assert.Equal(t, 1, *st.Fleet.Kit[0].Matings)
	assert.Nil(t, st.Fleet.Kit[1].Matings, "from now on is not from the start")
	assert.Zero(t, *before.Kit[0].Matings, "the fleet as it was stays")
	st.Mate("new", -2)
	assert.Zero(t, *st.Fleet.Kit[0].Matings)
}

// What goes on comes from the drawer or off other goggles, and nothing gets lost.
func TestAntennasGoOnAndOff(t *testing.T) {
	st := stock.New()
	st.Fleet.Kit = []fleet.Kit{{ID: "a", Antennas: []string{"round", "round"}}, {ID: "b", Antennas: []string{"patch"}}}
	st.Fleet.Spares = []fleet.Spare{{Model: "dual", Count: 1}}
	owned := func() map[string]int {
		count := map[string]int{}
		for _, k := range st.Fleet.Kit {
			for _, id := range k.Antennas {
				count[id]++
			}
		}
		for _, p := range st.Fleet.Spares {
			count[p.Model] += p.Count
		}
		return count
	}
	all := owned()
	before := st.Fleet
	require.NoError(t, st.ChangeAntenna("a", 1, "dual", ""))
	assert.Equal(t, []string{"round", "dual"}, st.Fleet.Kit[0].Antennas)
	assert.Equal(t, []string{"round", "round"}, before.Kit[0].Antennas, "the fleet as it was stays")
	assert.Error(t, st.ChangeAntenna("a", 0, "dual", ""), "the drawer is empty of it")
	require.NoError(t, st.ChangeAntenna("a", 0, "patch", "b"))
	assert.Equal(t, []string{"patch", "dual"}, st.Fleet.Kit[0].Antennas)
	assert.Equal(t, []string{"round"}, st.Fleet.Kit[1].Antennas, "in exchange")
	require.NoError(t, st.ChangeAntenna("a", 0, "", ""))
	assert.Equal(t, []string{"dual"}, st.Fleet.Kit[0].Antennas)
	require.NoError(t, st.ChangeAntenna("a", 1, "round", "b"))
	assert.Empty(t, st.Fleet.Kit[1].Antennas)
	assert.Error(t, st.ChangeAntenna("a", 1, "patch", "b"), "it carries none")
	assert.Error(t, st.ChangeAntenna("a", 7, "patch", ""))
	assert.Error(t, st.ChangeAntenna("nix", 0, "patch", ""))
	assert.Equal(t, all, owned())
}

// Every kind of gear can be put in, found and taken out.
func TestEveryKindOfGearComesAndGoes(t *testing.T) {
	st := stock.New()
	set := &gear.Set{ID: "all"}
	for _, row := range gear.Kinds {
		item := gear.New(row.Kind)
		item.Head().ID = "one-" + string(item.Kind())
		set.Add(item)
	}
	st.Sets = []*gear.Set{set}
	lists := set.Lists()
	for _, list := range lists {
		require.Len(t, list.Items, 1, list.Name)
		item := list.Items[0]
		ref := stock.Ref{Kind: string(item.Kind()), ID: item.Head().ID}
		assert.NotNil(t, st.Entry(ref), ref)
		assert.True(t, st.Remove(ref), ref)
		assert.Nil(t, st.Entry(ref), ref)
	}
}

// What was planned is flown; the drawer has what came out, and not what went in.
// What is noted of the features of today is where a plan of the same board and firmware starts;
// a finished swap leaves none of it.
func TestFeaturesNotedTodayGoIntoThePlanAndNoFurther(t *testing.T) {
	st := stock.New()
	now := fleet.Fit{Board: "board", Flight: fleet.Flight{Runs: &fleet.Runs{ID: "flies"}}}
	next, other := now.Clone(), now.Clone()
	other.Board = "another"
	st.Fleet.Quads = []fleet.Quad{{ID: "q", Now: now, Next: &next}, {ID: "r", Now: now, Next: &other}}
	require.NoError(t, st.Note("q", fleet.Patch{Features: []string{"osd"}}))
	require.NoError(t, st.Note("r", fleet.Patch{Features: []string{"osd"}}))
	assert.Equal(t, []string{"osd"}, st.Fleet.Quads[0].Next.Features)
	assert.Nil(t, st.Fleet.Quads[1].Next.Features)
	require.NoError(t, st.Finish("q", stock.Done{}))
	assert.Nil(t, st.Fleet.Quads[0].Now.Features)
}

// Standoffs that come off go into the drawer; cut ones do not: they are none of their model any more.
func TestCutStandoffsDoNotComeBack(t *testing.T) {
	for cut, left := range map[*unit.Millimetres]int{nil: 6, new(unit.Millimetres(26)): 2} {
		st := stock.New()
		st.Fleet.Spares = []fleet.Spare{{Model: "post", Count: 2}}
		now := fleet.Fit{Analog: "analog"}
		now.Standoff, now.StandoffCutMM = "post", cut
		next := fleet.Fit{Analog: "analog"}
		st.Fleet.Quads = []fleet.Quad{{ID: "q", Now: now, Next: &next, AUWG: new(unit.Grams(400))}}
		require.NoError(t, st.Finish("q", stock.Done{WeighedG: new(unit.Grams(431))}))
		assert.Equal(t, left, st.Fleet.Spares[0].Count)
	}
}

func TestASwapIsFinished(t *testing.T) {
	st := stock.New()
	st.Fleet.Kit = []fleet.Kit{{ID: "second", Model: "second"}}
	st.Fleet.Spares = []fleet.Spare{{Model: "round", Count: 3}, {Model: "m2-4", Count: 2}, {Model: "post", Count: 6}}
	now := fleet.Fit{Analog: "analog", Receiver: "receiver", Antennas: &fleet.Antennas{Models: []string{"stick"}}}
	next := fleet.Fit{
		AirUnit:  &fleet.Slot{Model: "first", Firmware: "1.1"},
		Goggles:  &fleet.Slot{Kit: "second", Mode: "b"},
		Antennas: &fleet.Antennas{Models: []string{"round", "round"}},
		Analog:   "analog",
	}
	next.Screw, next.Standoff = "m2-4", "post"
	st.Fleet.Quads = []fleet.Quad{{ID: "q", Now: now, Next: &next, AUWG: new(unit.Grams(400))}}
	before := st.Fleet
	require.NoError(t, st.Finish("q", stock.Done{WeighedG: new(unit.Grams(431))}))
	q := st.Fleet.Quads[0]
	assert.Nil(t, q.Next)
	assert.Empty(t, q.Now.Analog)
	assert.Equal(t, &fleet.Slot{Kit: "first-1"}, q.Now.AirUnit, "the new one is owned now")
	assert.Equal(t, &fleet.Slot{Kit: "second"}, q.Now.Goggles)
	assert.InDelta(t, 431, float64(*q.AUWG), 1e-9)
	count := map[string]int{}
	for _, p := range st.Fleet.Spares {
		count[p.Model] = p.Count
	}
	assert.Equal(
		t,
		map[string]int{"round": 1, "m2-4": 0, "post": 2, "receiver": 1, "stick": 1},
		count,
		"two screws were bought",
	)
	assert.NotNil(t, before.Quads[0].Next, "the fleet as it was stays")
	assert.Error(t, st.Finish("q", stock.Done{}), "nothing is planned any more")
	assert.Error(t, st.Finish("nix", stock.Done{}))
}

// Goggles that were planned for two quads are bought once: when they have come with the first swap,
// the other plan flies with them too, and they carry the antennas from their box.
func TestGogglesAreBoughtOnceForAllQuads(t *testing.T) {
	st := stock.New()
	set := &gear.Set{ID: "own"}
	eyes := gear.Goggles{}
	eyes.ID, eyes.Box = "eyes", []gear.Pieces{{Model: "round", Count: 2}, {Model: "strap", Count: 1}}
	round := gear.Antenna{}
	round.ID = "round"
	set.Add(&eyes)
	set.Add(&round)
	st.Sets = append(st.Sets, set)
	with := func() *fleet.Fit { return &fleet.Fit{Goggles: &fleet.Slot{Model: "eyes"}} }
	st.Fleet.Quads = []fleet.Quad{{ID: "a", Next: with()}, {ID: "b", Next: with()}, {ID: "c"}}
	before := st.Fleet
	require.NoError(t, st.Finish("a", stock.Done{}))
	assert.Equal(t, []fleet.Kit{{ID: "eyes-1", Model: "eyes", Antennas: []string{"round", "round"}}}, st.Fleet.Kit)
	assert.Equal(t, &fleet.Slot{Kit: "eyes-1"}, st.Fleet.Quads[0].Now.Goggles)
	assert.Equal(t, &fleet.Slot{Kit: "eyes-1"}, st.Fleet.Quads[1].Next.Goggles)
	assert.Equal(t, "eyes", before.Quads[1].Next.Goggles.Model, "the fleet as it was stays")
	require.NoError(t, st.Finish("b", stock.Done{}))
	assert.Len(t, st.Fleet.Kit, 1)
}

// A receiver on the board comes and goes with the board, and lies in no drawer.
func TestAReceiverOnTheBoardIsNoSparePart(t *testing.T) {
	st := stock.New()
	set := &gear.Set{ID: "own"}
	set.Add(&gear.Board{Entry: gear.Entry{ID: "small"}, BuiltIn: "wick"})
	st.Sets = append(st.Sets, set)
	st.Fleet.Spares = []fleet.Spare{{Model: "loose", Count: 1}}
	st.Fleet.Quads = []fleet.Quad{{
		ID:   "q",
		Now:  fleet.Fit{Board: "small", Receiver: "wick"},
		Next: &fleet.Fit{Board: "small", Receiver: "loose"},
	}}
	require.NoError(t, st.Finish("q", stock.Done{}))
	assert.Equal(t, []fleet.Spare{{Model: "loose"}}, st.Fleet.Spares)
}

// What a file says of the region and of steps taken is shown as a difference like the
// rest; nothing of its head is taken over unseen.
func TestNothingOfAFilesHeadIsTakenOverUnseen(t *testing.T) {
	for name, change := range map[string]func(f *fleet.Fleet){
		"region": func(f *fleet.Fleet) { f.Region = "elsewhere" },
		"taken":  func(f *fleet.Fleet) { f.Taken = []fleet.Taken{{Kit: "first", Do: "activate"}} },
		"title":  func(f *fleet.Fleet) { f.Title = "another" },
		"goals":  func(f *fleet.Fleet) { f.KeepWayBack = true },
	} {
		for what, s := range map[string]*stock.Stock{"full": full(t), "chosen": stock.New()} {
			if what == "chosen" { // nothing is in it, but something of it has been chosen
				s.SetRegion("here")
			}
			in := *s.Fleet
			change(&in)
			d := s.MergeFleet(&in)
			require.Len(t, d.Changed, 1, "%s, %s", name, what)
			assert.NotEmpty(t, d.Changed[0].Fields, name)
		}
	}
}

// What hangs on a quad goes with it, and nothing else: its wants, not another's.
func TestAQuadTakesItsWantsAlong(t *testing.T) {
	st := stock.New()
	st.Fleet.Quads = []fleet.Quad{{ID: "a"}, {ID: "b"}}
	st.Fleet.Wants = []fleet.Want{{Quad: "a", Goggles: "g"}, {Quad: "b", Goggles: "g"}}
	assert.True(t, st.Remove(stock.Ref{Kind: stock.KindQuad, ID: "a"}))
	assert.Equal(t, []fleet.Want{{Quad: "b", Goggles: "g"}}, st.Fleet.Wants)
	assert.False(t, st.Remove(stock.Ref{Kind: stock.KindQuad, ID: "a"}))
}

// An entry put in stands in the place of the one of its id, and leaves the others alone.
func TestAnEntryIsPutInItsPlace(t *testing.T) {
	st := stock.New()
	st.Fleet.Spares = []fleet.Spare{{Model: "a", Count: 1}, {Model: "b", Count: 2}}
	st.Fleet.Kit = []fleet.Kit{{ID: "k"}, {ID: "l"}}
	require.NoError(t, st.Put(stock.Ref{Kind: stock.KindSpare, ID: "b"}, "", []byte(`{"model":"b","count":7}`)))
	require.NoError(t, st.Put(stock.Ref{Kind: stock.KindSpare, ID: "c"}, "", []byte(`{"model":"c","count":3}`)))
	assert.Equal(t, []fleet.Spare{{Model: "a", Count: 1}, {Model: "b", Count: 7}, {Model: "c", Count: 3}}, st.Fleet.Spares)
	require.NoError(t, st.Put(stock.Ref{Kind: stock.KindKit, ID: "l"}, "", []byte(`{"id":"l","model":"m"}`)))
	assert.Equal(t, []fleet.Kit{{ID: "k"}, {ID: "l", Model: "m"}}, st.Fleet.Kit)
	assert.Error(t, st.Put(stock.Ref{Kind: "wing", ID: "w"}, "own", []byte(`{}`)))
}

// What has become of entries from one state to another: new, gone, otherwise with the values,
// and nothing of what is the very same.
func TestWhatHasBecomeOfEntries(t *testing.T) {
	earlier := stock.New()
	earlier.Fleet.Quads = []fleet.Quad{{ID: "stays"}, {ID: "goes"}, {ID: "changes", Name: "old"}}
	earlier.Fleet.Tasks = []fleet.Task{{ID: "task"}}
	later := earlier.Fork()
	later.Fleet.Quads = []fleet.Quad{{ID: "stays"}, {ID: "changes", Name: "new"}}
	later.Fleet.TestFlights = []fleet.TestFlight{{ID: "flight"}}
	later.Fleet.Title = "other"
	got := stock.Compared(earlier, later)
	assert.Equal(t, []stock.Ref{{Kind: stock.KindTestFlight, ID: "flight"}}, got.New)
	assert.Equal(t, []stock.Ref{{Kind: stock.KindQuad, ID: "goes"}}, got.Gone)
	require.Len(t, got.Changed, 2, "the fleet's title, and a quad's name")
	assert.Equal(t, []stock.FieldChange{{Path: "name", Before: "old", After: "new"}}, got.Changed[1].Fields)
	assert.Empty(t, stock.Compared(later, later).Changed)
}

// A finished swap is to be looked at again after its first packs; finished once more, that is
// open again, and there is one of it.
func TestAFinishedSwapIsLookedAtAgain(t *testing.T) {
	st := stock.New()
	st.Fleet.Quads = []fleet.Quad{{ID: "quad", Name: "Quad", Next: &fleet.Fit{}}}
	require.NoError(t, st.Finish("quad", stock.Done{}))
	require.Len(t, st.Fleet.Tasks, 1)
	assert.Equal(t, "the first three packs", st.Fleet.Tasks[0].After)
	require.NoError(t, st.Do(st.Fleet.Tasks[0].ID, "2026-05-12"))
	st.Fleet.Quads[0].Next = &fleet.Fit{}
	require.NoError(t, st.Finish("quad", stock.Done{}))
	require.Len(t, st.Fleet.Tasks, 1)
	assert.Empty(t, st.Fleet.Tasks[0].Done)
	assert.Error(t, st.Do("nothing", ""))
}

// A flight begins with what the quad carries; a second one of a day is called so, and is another
// even at the same moment.
func TestAFlightBegins(t *testing.T) {
	st := stock.New()
	st.Fleet.Courses = []fleet.Course{{ID: "mill"}}
	st.Fleet.Kit = []fleet.Kit{{ID: "unit", Model: "one", Firmware: "1.0"},
		{ID: "eyes", Model: "visor", Firmware: "2.0", Antennas: []string{"round"}}}
	st.Fleet.Quads = []fleet.Quad{{ID: "quad", Now: fleet.Fit{AirUnit: &fleet.Slot{Kit: "unit"},
		Goggles: &fleet.Slot{Kit: "eyes"}, Pack: "lipo", Antennas: &fleet.Antennas{Models: []string{"stick"}}}}}
	first, err := st.Begin("quad", "mill", "2026-05-12", "101500")
	require.NoError(t, err)
	assert.Equal(t, fleet.Carried{AirUnit: "one", AirFirmware: "1.0", Antennas: []string{"stick"}, Goggles: "visor",
		GogglesFirmware: "2.0", GogglesAntennas: []string{"round"}, Pack: "lipo"}, first.Carried)
	second, err := st.Begin("quad", "mill", "2026-05-12", "101500")
	require.NoError(t, err)
	assert.NotEqual(t, first.ID, second.ID)
	assert.Equal(t, []string{"2026-05-12", "2026-05-12, flight 2"}, []string{first.Label(), second.Label()})
	_, err = st.Begin("quad", "moon", "2026-05-12", "101500")
	assert.Error(t, err)
}
