package gear_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"yokeswap/core/facts/gear"
	"yokeswap/core/internal/sample"
)

func TestTheLibraryFindsByIdAndKind(t *testing.T) {
	lib := gear.NewLibrary(sample.Set())
	first, ok := gear.Find[*gear.AirUnit](lib, "first")
	assert.True(t, ok)
	assert.Equal(t, gear.KindAirUnit, first.Kind())
	_, ok = gear.Find[*gear.Goggles](lib, "first")
	assert.False(t, ok, "an air unit is no pair of goggles")
	_, ok = lib.Item("nix")
	assert.False(t, ok)
	assert.Equal(t, "nix", lib.Label("nix"))
	assert.Len(t, gear.All[*gear.Pack](lib), 4)
	assert.Len(t, lib.Pairings("first", "old-eyes"), 1)
	assert.Empty(t, lib.Pairings("old-eyes", "first"))
}

func TestEveryListOfASetIsListedAndTakesItsOwn(t *testing.T) {
	set := sample.Set()
	var copied gear.Set
	total := 0
	for _, list := range set.Lists() {
		for _, item := range list.Items {
			copied.Add(item)
			total++
		}
	}
	again := gear.Set{Format: set.Format, Version: set.Version, ID: set.ID, Title: set.Title}
	for _, list := range copied.Lists() {
		for _, item := range list.Items {
			again.Add(item)
		}
	}
	assert.Equal(t, *set, again)
	assert.Len(t, gear.NewLibrary(set).Items(), total)
}

func TestAValueMayHaveASourceOfItsOwn(t *testing.T) {
	e := gear.Entry{
		Source:       gear.Source{Kind: gear.Maker, Text: "rev B"},
		ValueSources: map[string]gear.Source{"input.maxV": {Kind: gear.Measured, Date: "2026-03-01"}},
	}
	assert.Equal(t, "maker's sheet, rev B", e.SourceOf("input.minV").String())
	assert.Equal(t, "measured, 2026-03-01", e.SourceOf("input.maxV").String())
	assert.Equal(t, "source not stated", gear.Source{}.String())
}

func TestWhatIsNotStatedIsNil(t *testing.T) {
	set := sample.Set()
	assert.Nil(t, (&gear.Device{}).ActivationNeeded())
	assert.False(t, *set.AirUnits[0].ActivationNeeded())
	assert.Nil(t, set.Goggles[0].SwitchKeeps("b", "c"))
	assert.False(t, *set.Goggles[0].SwitchKeeps("a", "b"))
	assert.True(t, *set.Goggles[0].SwitchKeeps("b", "a"))
	_, ok := set.AirUnits[0].Release("")
	assert.False(t, ok)
	r, ok := set.AirUnits[0].Release("1.0.6.0")
	assert.True(t, ok)
	assert.Equal(t, "1.0.6", string(r.Version))
}

// A band by another name is taken as 2 % to each side; what is no frequency is none.
func TestTheEndsOfABand(t *testing.T) {
	low, high, ok := gear.Band("1.2").Ends()
	assert.True(t, ok)
	assert.InDelta(t, 1176, float64(low), 1e-9)
	assert.InDelta(t, 1224, float64(high), 1e-9)
	for _, none := range []gear.Band{"", "high", "0", "-1"} {
		_, _, ok := none.Ends()
		assert.False(t, ok, none)
	}
}

// An entry of a kind there is not, or none at all, changes no list.
func TestNothingIsPutWhereThereIsNoList(t *testing.T) {
	s := &gear.Set{Packs: []gear.Pack{{Entry: gear.Entry{ID: "a"}}}}
	told := 0
	tell := func(_, _ gear.Item) { told++ }
	s.Put("nonsense", []gear.Item{&gear.Pack{Entry: gear.Entry{ID: "b"}}}, tell)
	s.Put(gear.KindPack, nil, tell)
	assert.Zero(t, told)
	assert.Len(t, s.Packs, 1)
	assert.Nil(t, s.Screws)
	s.Put(gear.KindScrew, nil, tell)
	assert.Nil(t, s.Screws, "no list is made for nothing")
}

// What a settings text's words are known by: the word itself before the longest that covers
// it; a value by what stands in the line.
func TestWordsOfASettingsText(t *testing.T) {
	text := &gear.SettingsText{Words: []gear.SettingsWord{
		{Name: "a*", Label: "short"}, {Name: "ab*", Label: "longer"}, {Name: "abc", Label: "itself"},
		{Name: "x", Values: []gear.SettingsValue{{Is: "1", Label: "one"}, {Is: "2"}}},
	}}
	for key, label := range map[string]string{"abc": "itself", "abd": "longer", "ac": "short", "a": "short"} {
		word, ok := text.Word(key)
		assert.True(t, ok)
		assert.Equal(t, label, word.Label, key)
	}
	_, ok := text.Word("b")
	assert.False(t, ok)
	word, _ := text.Word("x")
	first, ok := word.Value("1")
	assert.True(t, ok)
	assert.Equal(t, "one", first.Label)
	_, ok = word.Value("3")
	assert.False(t, ok)
	var none *gear.SettingsText
	assert.False(t, none.Speaks())
	assert.False(t, text.Speaks())
}

func TestGridsAreColumnsAndRows(t *testing.T) {
	for grid, fine := range map[gear.Grid]bool{"53x20": true, "0x20": false, "53x0": false, "x": false, "5x": false, "x5": false,
		"53": false, "ax9": false, "9xa": false, "-5x-5": false} {
		_, _, ok := grid.Size()
		assert.Equal(t, fine, ok, grid)
	}
}

// Guides of a language are listed once, the usual one always.
func TestLanguagesAreListedOnce(t *testing.T) {
	guides := []gear.Guide{{Language: "nl"}, {Language: "nl"}, {Language: "en"}}
	set := &gear.Set{Goggles: []gear.Goggles{{Device: gear.Device{Entry: gear.Entry{ID: "a"}, Guides: guides}},
		{Device: gear.Device{Entry: gear.Entry{ID: "b"}, Guides: guides}}}}
	assert.Equal(t, []string{"en", "nl"}, gear.Languages(gear.NewLibrary(set)))
}

// A library with another statement in place of one holds that one alone beside the others.
func TestALibraryWithAnotherStatement(t *testing.T) {
	set := &gear.Set{Pairings: []gear.Pairing{
		{Entry: gear.Entry{ID: "p"}, AirUnit: "u", Goggles: "g"}, {Entry: gear.Entry{ID: "q"}, AirUnit: "u", Goggles: "g"}}}
	other := gear.NewLibrary(set).With(&gear.Pairing{Entry: gear.Entry{ID: "p"}, AirUnit: "u", Goggles: "g", Mode: "m"})
	var said []string
	for _, p := range other.Pairings("u", "g") {
		said = append(said, p.ID+p.Mode)
	}
	assert.ElementsMatch(t, []string{"q", "pm"}, said)
}

// A used one is offered at the first price that is stated and not bound to its former owner.
func TestAUsedOne(t *testing.T) {
	deal := func(kind gear.DealKind, price float64, locked *bool) gear.Deal {
		return gear.Deal{Kind: kind, Offer: gear.Offer{Price: &price, Currency: "EUR"}, Locked: locked}
	}
	e := gear.Entry{Deals: []gear.Deal{
		deal(gear.DealNew, 10, nil),
		deal(gear.DealResale, 20, nil),
		deal(gear.DealUsed, 30, new(true)),
		{Kind: gear.DealUsed},
	}}
	assert.Nil(t, e.UsedOffer())
	e.Deals = append(e.Deals, deal(gear.DealUsed, 40, nil), deal(gear.DealUsed, 50, new(false)))
	assert.InDelta(t, 40, *e.UsedOffer().Price, 1e-9)
}
