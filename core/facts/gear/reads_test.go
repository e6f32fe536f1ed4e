package gear_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"yokeswap/core/facts/gear"
)

// Whatever way a library is asked, what leaves something open is noted as read, and nothing else.
func TestWhatIsLookedUpIsNoted(t *testing.T) {
	open := func(id string, values ...string) gear.Entry {
		e := gear.Entry{ID: id, Ranges: []gear.Range{{Value: "massG", Low: 1, High: 2}}}
		for _, value := range values {
			e.Variants = append(e.Variants, gear.Variant{Value: value, Region: "shire", Text: "other"})
		}
		return e
	}
	tried, untried := gear.Pairing{AirUnit: "u", Goggles: "g"}, gear.Pairing{AirUnit: "u", Goggles: "none", Untested: true}
	tried.Entry, untried.Entry = open("tried", "note"), open("untried", "note")
	set := func(unit gear.Entry) *gear.Set {
		return &gear.Set{
			AirUnits: []gear.AirUnit{{Device: gear.Device{Entry: unit}}, {Device: gear.Device{Entry: gear.Entry{ID: "settled"}}}},
			Parts:    []gear.Part{{Entry: open("p")}},
			Pairings: []gear.Pairing{tried, untried},
		}
	}
	anywhere := func(string) string { return "" }
	all := []string{"u", "p", "tried", "untried"}
	for name, of := range map[string]struct {
		unit gear.Entry
		ask  func(l *gear.Library)
		read []string
	}{
		"nothing":                  {open("u"), func(*gear.Library) {}, nil},
		"an item":                  {open("u"), func(l *gear.Library) { l.Item("u") }, []string{"u"}},
		"what is settled":          {open("u"), func(l *gear.Library) { l.Item("settled") }, nil},
		"what is not there":        {open("u"), func(l *gear.Library) { gear.Find[*gear.Part](l, "q") }, nil},
		"of a type":                {open("u"), func(l *gear.Library) { gear.Find[*gear.Part](l, "p") }, []string{"p"}},
		"of another type":          {open("u"), func(l *gear.Library) { gear.Find[*gear.Part](l, "u") }, []string{"u"}},
		"all of a type":            {open("u"), func(l *gear.Library) { gear.All[*gear.AirUnit](l) }, []string{"u"}},
		"everything":               {open("u"), func(l *gear.Library) { l.Items() }, all},
		"a statement":              {open("u"), func(l *gear.Library) { l.Pairings("u", "g") }, []string{"tried"}},
		"an untried pair":          {open("u"), func(l *gear.Library) { l.Untested("u", "none") }, []string{"untried"}},
		"its statements":           {open("u"), func(l *gear.Library) { l.PairingCounts() }, all},
		"a chart":                  {open("u"), func(l *gear.Library) { l.Chart("u") }, []string{"u"}},
		"a name":                   {open("u"), func(l *gear.Library) { l.Label("u") }, nil},
		"a name that is left open": {open("u", "name"), func(l *gear.Library) { l.Label("u") }, []string{"u"}},
		"in another region":        {open("u"), func(l *gear.Library) { l.Under("shire", anywhere).Item("u") }, []string{"u"}},
		"what is open":             {open("u"), func(l *gear.Library) { l.Open(func(func(string)) {}) }, all},
		"what it might be": {open("u"), func(l *gear.Library) {
			l.With(&gear.Part{Entry: gear.Entry{ID: "p"}}).Item("settled")
		}, all},
	} {
		lib, reads := gear.NewLibrary(set(of.unit)).Watched()
		of.ask(lib)
		var read []string
		for _, id := range append(all, "settled", "q") {
			if reads.Has(id) {
				read = append(read, id)
			}
		}
		assert.Equal(t, of.read, read, name)
	}
}

// What is made of a watched library and kept is not watched: others read it, at the same time.
func TestWhatIsKeptIsNotWatched(t *testing.T) {
	u := gear.AirUnit{Device: gear.Device{Entry: gear.Entry{ID: "u", Ranges: []gear.Range{{Value: "massG", Low: 1, High: 2}}}}}
	lib := gear.NewLibrary(&gear.Set{AirUnits: []gear.AirUnit{u}})
	watched, reads := lib.Watched()
	anywhere := func(string) string { return "" }
	watched.Under("", anywhere)
	lib.Under("", anywhere).Item("u")
	assert.False(t, reads.Has("u"))
}
