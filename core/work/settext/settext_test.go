package settext_test

import (
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
	"yokeswap/core/work/settext"
)

// words is a grammar of our own: a line for each form a maker's could have.
func words() *gear.SettingsText {
	return &gear.SettingsText{
		Enter: "!", Prompt: ">", List: "all", Save: "keep", Leave: "go", Refused: "no",
		Remark: ";", End: "; end", Head: []string{"of {firmware} {version}", "board {board}"},
		Lines: []gear.SettingsLine{
			{Form: "with {name}", Group: "feature", Value: "yes"},
			{Form: "without {name}", Group: "feature", Value: "no"},
			{Form: "motor {name} turns {value}", Group: "motor"},
			{Form: "{name} is {value}"},
		},
		Words: []gear.SettingsWord{
			{Name: "feature *", Sets: gear.SetsOther, Label: "a feature"},
			{Name: "motor *", Sets: gear.SetsMotors},
			{Name: "lamp-motor", Sets: gear.SetsOther},
			{Name: "pin-*", Sets: gear.SetsPins},
			{Name: "gone", Sets: gear.SetsFailsafe, Label: "when the link is lost", Factory: "drop",
				Values: []gear.SettingsValue{{Is: "drop", Label: "motors off"}}},
			{Name: "power", Sets: gear.SetsPower, Factory: "1", Values: []gear.SettingsValue{
				{Is: "1", MW: new(unit.Milliwatts(25))}, {Is: "2", MW: new(unit.Milliwatts(800))}, {Is: "3", Label: "most"}}},
			{Name: "band", Sets: gear.SetsBand, Values: []gear.SettingsValue{{Is: "a", Band: "5.8"}, {Is: "b", Band: "1.2"}, {Is: "c"}}},
			{Name: "country", Sets: gear.SetsRegion, Values: []gear.SettingsValue{{Is: "H", Region: "home"}, {Is: "F", Region: "far"}, {Is: "X"}}},
			{Name: "rate", Sets: gear.SetsFlight, Factory: "60"},
			{Name: "unsaid"},
		},
	}
}

// flown is a quad whose unit sends on 5.8 GHz over an antenna of a stated gain.
func flown(edit func(set *gear.Set)) fleet.Case {
	set := sample.Set()
	set.Regions = []gear.Region{{Entry: gear.Entry{ID: "home", Name: "home", Source: gear.Source{Text: "law", Date: "2026"}},
		Limits: []gear.PowerLimit{{Band: "5.8", MaxEIRPMW: new(unit.Milliwatts(200))}}}}
	if edit != nil {
		edit(set)
	}
	return sample.Case(set, []fleet.Kit{sample.Own("second", "2.3", "")},
		fleet.Fit{AirUnit: &fleet.Slot{Kit: "second"}, Antennas: sample.Pair(), Board: "board"})
}

const head = "; of FLYS 4.5\n; board mill\n"

func text(lines ...string) string { return head + strings.Join(append(lines, "; end"), "\n") + "\n" }

func read(t *testing.T, w *gear.SettingsText, s string) settext.Text {
	t.Helper()
	out, err := settext.Read(w, s)
	require.NoError(t, err)
	return out
}

func TestALineIsReadByItsForm(t *testing.T) {
	got := read(t, words(), text("with osd", "  without   lamp ", "motor 2 turns in", "gone is drop", "", "; a remark", "hum"))
	assert.Equal(t, "FLYS", got.Firmware)
	assert.Equal(t, "mill", got.Board)
	assert.EqualValues(t, "4.5", got.Version)
	assert.False(t, got.Cut || got.Mixed)
	var said []string
	for _, l := range got.Lines {
		said = append(said, fmt.Sprintf("%d %s=%s", l.Number, l.Key, l.Value))
	}
	assert.Equal(t, []string{"3 feature osd=yes", "4 feature lamp=no", "5 motor 2=in", "6 gone=drop", "9 ="}, said)
	again := read(t, words(), strings.ReplaceAll(text("gone is drop"), "\n", "\r\n"))
	assert.Equal(t, 3, again.Lines[0].Number, "ends of lines of another system")
}

// What is held back, and why; the rest loads (common practice).
func TestWhatMayBeLoaded(t *testing.T) {
	board := text("gone is drop", "power is 1", "band is a", "country is H", "rate is 60", "motor 1 turns in", "pin-lamp is B6",
		"unsaid is 1", "feature-x is 2", "lamp-motor is 1")
	for _, c := range []struct {
		line, held string // held: part of why; empty: it loads
		edit       func(set *gear.Set)
	}{
		{"rate is 70", "", nil},
		{"gone is return", "", nil},
		{"with osd", "", nil},
		{"lamp-motor is 2", "", nil},
		{"motor 1 turns out", "it moves motors", nil},
		{"pin-lamp is C8", "it moves pins", nil},
		{"unsaid is 2", "nobody has stated what it moves", nil},
		{"feature-x is 3", "nobody has stated what it moves", nil},
		{"hum", "no form of line", nil},
		{"power is 1 ", "same", nil},
		{"save is it", "no form of line", nil}, // a word of the dialogue that looks like a line
		{"rate is 7\x03", "no form of line", nil},
		{"rate is\t70", "no form of line", nil},
		{"power is 2", "allows 200 mW", nil},
		{"power is 3", `which transmit power "3" of power stands for`, nil},
		{"power is 4", `which transmit power "4" of power stands for`, nil},
		{"band is b", "limit on 1.2 GHz", nil},
		{"band is c", `which band "c" of band stands for`, nil},
		{"country is F", "another region", nil},
		{"country is X", "which region", nil},
		{"power is 2", "", func(s *gear.Set) { s.Regions[0].Limits[0].MaxEIRPMW = new(unit.Milliwatts(5000)) }},
		{"power is 2", "unknown: limit on 5.8 GHz", func(s *gear.Set) { s.Regions[0].Limits = nil }},
		{"power is 2", "unknown", func(s *gear.Set) { s.Regions = nil }},
		{"power is 2", "unknown: gain on 5.8 GHz", func(s *gear.Set) {
			s.Regions[0].Limits[0].MaxEIRPMW = new(unit.Milliwatts(5000))
			for i := range s.Antennas {
				s.Antennas[i].Bands[0].GainDBi = nil
			}
		}},
	} {
		t.Run(c.line, func(t *testing.T) {
			w := words()
			w.Save = "save is it"
			got := settext.Compare(flown(c.edit), w, read(t, w, board), read(t, w, text(c.line)))
			require.Empty(t, got.Refused)
			row := got.Rows[0]
			switch c.held {
			case "":
				assert.Empty(t, row.Held)
				assert.True(t, row.Loads)
			case "same":
				assert.Equal(t, settext.Same, row.State)
				assert.False(t, row.Loads)
			default:
				assert.Contains(t, row.Held, c.held)
				assert.False(t, row.Loads)
				lines, ok := got.Picked(read(t, w, text(c.line)), []int{row.Line})
				assert.False(t, ok, "picked all the same: %v", lines)
			}
		})
	}
}

// A band is held against the power the board has and the one the text sets, whichever is
// loaded; a power against both bands. A lawful power is not kept off by an unlawful one
// that it replaces.
func TestPowerAndBandTogether(t *testing.T) {
	law := func(s *gear.Set) {
		s.Regions[0].Limits = append(s.Regions[0].Limits, gear.PowerLimit{Band: "1.2", MaxEIRPMW: new(unit.Milliwatts(10))})
		for i := range s.Antennas {
			wide := s.Antennas[i].Bands[0]
			wide.Band = "1.2"
			s.Antennas[i].Bands = append(s.Antennas[i].Bands, wide)
		}
	}
	held := func(board, wanted string) map[string]string {
		w := words()
		out := map[string]string{}
		for _, row := range settext.Compare(flown(law), w, read(t, w, board), read(t, w, wanted)).Rows {
			out[row.Key] = row.Held
		}
		return out
	}
	assert.Contains(t, held(text("power is 1", "band is a"), text("band is b"))["band"], "allows 10 mW")
	assert.Contains(t, held(text("power is 2", "band is b"), text("power is 1"))["power"], "allows 10 mW", "25 mW on 1.2 GHz")
	assert.Empty(t, held(text("power is 2", "band is a"), text("power is 1"))["power"], "it takes the power down")
	both := held(text("power is 1", "band is b"), text("power is 2", "band is a"))
	assert.Contains(t, both["power"], "allows")
	assert.Contains(t, both["band"], "allows 200 mW", "with 800 mW it is not lawful on either")
}

// Without a line that says it, the unit's own highest power and all its bands count.
func TestPowerThatNoLineSays(t *testing.T) {
	w := words()
	got := settext.Compare(flown(nil), w, read(t, w, text("band is c")), read(t, w, text("band is a")))
	assert.Contains(t, got.Rows[0].Held, "With 500 mW")
	got = settext.Compare(flown(nil), w, read(t, w, text("rate is 1")), read(t, w, text("power is 1")))
	assert.Empty(t, got.Rows[0].Held)
	got = settext.Compare(flown(nil), w, read(t, w, text("rate is 1")), read(t, w, text("power is 2")))
	assert.Contains(t, got.Rows[0].Held, "on 5.8 GHz")
}

// The unit that is on the quad until the swap is done has to keep to the law as well.
func TestBothFitsKeepToTheLaw(t *testing.T) {
	c := flown(nil)
	w := words()
	compare := func() string {
		return settext.Compare(c, w, read(t, w, text("power is 2", "band is a")), read(t, w, text("power is 1"))).Rows[0].Held
	}
	assert.Empty(t, compare())
	c.Quad.Now = fleet.Fit{AirUnit: &fleet.Slot{Model: "first"}}
	assert.Contains(t, compare(), "antenna of Quad for 5.8 GHz", "nobody has stated what is on it now")
}

// What analog video is on the quad until the swap is done would take a power as well, and
// what that sends is not judged here.
func TestPowerWhereAnalogVideoIsOnIt(t *testing.T) {
	c := flown(nil)
	w := words()
	c.Quad.Now = fleet.Fit{Analog: "analog"}
	got := settext.Compare(c, w, read(t, w, text("power is 2")), read(t, w, text("power is 1")))
	assert.Contains(t, got.Rows[0].Held, "analog video")
	c.Quad.Now = fleet.Fit{}
	assert.True(t, settext.Compare(c, w, read(t, w, text("power is 2")), read(t, w, text("power is 1"))).Rows[0].Loads)
}

// Whatever of the grammar is not stated, nothing is let through that was not: without its
// last line nobody can tell a whole text from a cut one.
func TestAGrammarWithLessRefusesMore(t *testing.T) {
	for name, less := range map[string]func(w *gear.SettingsText){
		"no end":    func(w *gear.SettingsText) { w.End = "" },
		"no remark": func(w *gear.SettingsText) { w.Remark = "" },
		"no head":   func(w *gear.SettingsText) { w.Head = nil },
		"no board":  func(w *gear.SettingsText) { w.Head = w.Head[:1] },
	} {
		w := words()
		less(w)
		for _, wanted := range []string{text("rate is 7"), head + "rate is 7"} {
			got := settext.Compare(flown(nil), w, read(t, w, text("rate is 60")), read(t, w, wanted))
			assert.NotEmpty(t, got.Refused, "%s: %q", name, wanted)
		}
	}
}

// A text that is of something else, or not whole, is refused as a whole.
func TestATextThatIsRefused(t *testing.T) {
	board := text("rate is 60")
	for _, c := range []struct{ name, text, board, says string }{
		{"cut", head + "rate is 70\n", board, "It is cut"},
		{"cut in its last line", head + "rate is 70\n; en", board, "It is cut"},
		{"of another board", strings.Replace(text("rate is 70"), "mill", "tide", 1), board, "another board, tide; the board says mill"},
		{"of another release", strings.Replace(text("rate is 70"), "4.5", "4.6", 1), board, "another release"},
		{"of another firmware", strings.Replace(text("rate is 70"), "FLYS", "SINK", 1), board, "another flight firmware"},
		{"does not say of what", "rate is 70\n; end\n", board, "does not say which flight firmware"},
		{"does not say of which board", "; of FLYS 4.5\nrate is 70\n; end\n", board, "does not say which board"},
		{"two texts in one", text("rate is 70") + text("rate is 80"), board, "more than one text"},
		{"two heads", head + "; board tide\nrate is 70\n; end\n", board, "more than one text"},
		{"the board's own is cut", text("rate is 70"), head + "rate is 60", "What the board told is not whole"},
		{"the board does not say", text("rate is 70"), "rate is 60\n; end\n", "The board's own text does not say"},
	} {
		t.Run(c.name, func(t *testing.T) {
			w := words()
			got := settext.Compare(flown(nil), w, read(t, w, c.board), read(t, w, c.text))
			assert.Contains(t, got.Refused, c.says)
			_, ok := got.Picked(read(t, w, c.text), nil)
			assert.False(t, ok)
		})
	}
}

func TestAValueSetTwice(t *testing.T) {
	w := words()
	got := settext.Compare(flown(nil), w, read(t, w, text("rate is 60")), read(t, w, text("rate is 70", "rate is 80", "gone is x", "gone is x")))
	require.Len(t, got.Rows, 3)
	assert.Contains(t, got.Rows[0].Held, "more than one value")
	assert.Contains(t, got.Rows[1].Held, "more than one value")
	assert.True(t, got.Rows[2].Loads, "said twice, the same")
}

func TestTheWordsOfAComparison(t *testing.T) {
	w := words()
	got := settext.Compare(flown(nil), w, read(t, w, text("gone is drop", "power is 1", "rate is 60", "motor 1 turns in")),
		read(t, w, text("gone is return", "power is 1", "motor 1 turns out")))
	assert.Equal(t, "1 setting can be loaded, 1 held back, 1 already so.", got.Says)
	assert.Equal(t, "when the link is lost", got.Rows[0].Label)
	assert.Equal(t, "motors off (drop)", got.Rows[0].Found)
	assert.Equal(t, "return", got.Rows[0].Wanted)
	assert.True(t, got.Rows[0].Again)
	assert.Equal(t, "25 mW (1)", got.Rows[1].Found)
	assert.Equal(t, settext.Left, got.Rows[3].State)
	assert.Equal(t, "rate", got.Rows[3].Key)
	all := read(t, w, text("gone is return", "power is 1", "motor 1 turns out"))
	for _, numbers := range [][]int{{4}, {3, 5}, {3, 99}, {99}} {
		_, ok := got.Picked(all, numbers)
		assert.False(t, ok, "%v: what the board has, what is held back, what is no line", numbers)
	}
	lines, ok := got.Picked(all, nil)
	assert.True(t, ok)
	require.Len(t, lines, 1)
	assert.Equal(t, "gone is return", lines[0].Says)
}

// After loading, what was not taken and what changed beside are told, and failsafe and
// arming as they are now.
func TestAfterLoading(t *testing.T) {
	w := words()
	before := read(t, w, text("gone is drop", "rate is 60", "lamp-motor is 1"))
	sent := read(t, w, text("rate is 70", "gone is return")).Lines
	got := settext.After(flown(nil), w, before, read(t, w, text("gone is drop", "rate is 70", "lamp-motor is 2")), sent)
	require.Len(t, got.NotTaken, 1)
	assert.Equal(t, "gone", got.NotTaken[0].Key)
	require.Len(t, got.Beside, 1)
	assert.Equal(t, "lamp-motor", got.Beside[0].Key)
	require.Len(t, got.Again, 1)
	assert.Equal(t, "motors off (drop)", got.Again[0].Found)
	got = settext.After(flown(nil), w, before, read(t, w, text("gone is drop", "rate is 60")), nil)
	require.Len(t, got.Beside, 1, "one that is gone")
}

// Missing is never better: whatever is taken away of what is known of a word, a line that
// was held is not let through.
func TestLessKnownIsNeverLoadedSooner(t *testing.T) {
	board := text("gone is drop", "power is 1", "band is a", "country is H", "rate is 60", "motor 1 turns in", "pin-a is 1")
	wanted := text("gone is x", "power is 2", "band is b", "country is F", "rate is 1", "motor 1 turns out", "pin-a is 2")
	held := func(w *gear.SettingsText) map[string]bool {
		out := map[string]bool{}
		for _, row := range settext.Compare(flown(nil), w, read(t, w, board), read(t, w, wanted)).Rows {
			out[row.Key] = !row.Loads
		}
		return out
	}
	before := held(words())
	lost := 0
	for i := range words().Words {
		for _, less := range []func(w *gear.SettingsWord){
			func(w *gear.SettingsWord) { w.Sets = "" },
			func(w *gear.SettingsWord) { w.Values = nil },
			func(w *gear.SettingsWord) { w.Name = "another" },
			func(w *gear.SettingsWord) {
				for k := range w.Values {
					w.Values[k].MW, w.Values[k].Band, w.Values[k].Region = nil, "", ""
				}
			},
		} {
			w := words()
			less(&w.Words[i])
			for key, now := range held(w) {
				require.False(t, before[key] && !now, "%s is let through without %s", key, words().Words[i].Name)
			}
			lost++
		}
	}
	assert.Equal(t, 40, lost)
}

// A law: what is written is read back as it was, whatever stands in it.
func TestWhatIsWrittenReadsBack(t *testing.T) {
	w := words()
	for seed := range uint64(300) {
		r := rand.New(rand.NewPCG(seed, 1))
		of := settext.Text{Firmware: "FLYS", Version: "4.5", Board: "mill"}
		for range 1 + r.IntN(6) {
			key := []string{"feature osd", "motor 3", "gone", "rate"}[r.IntN(4)]
			value := []string{"yes", "1", "a b  c", "is is"}[r.IntN(4)]
			if key == "feature osd" {
				value = "no"
			}
			of.Lines = append(of.Lines, settext.Line{Key: key, Value: value})
		}
		said, err := settext.Write(w, of)
		require.NoError(t, err)
		got := read(t, w, said)
		require.False(t, got.Cut || got.Mixed)
		require.Len(t, got.Lines, len(of.Lines))
		for i := range of.Lines {
			require.Equal(t, of.Lines[i].Key, got.Lines[i].Key, said)
			require.Equal(t, of.Lines[i].Value, got.Lines[i].Value, said)
		}
	}
	_, err := settext.Write(w, settext.Text{Lines: []settext.Line{{Key: "feature osd", Value: "perhaps"}}})
	assert.ErrorContains(t, err, "no form of line")
	assert.Len(t, settext.Factory(w), 3)
}

func TestWhatIsNoText(t *testing.T) {
	_, err := settext.Read(nil, "x")
	assert.ErrorContains(t, err, "nobody has stated")
	_, err = settext.Read(words(), "a\x00b")
	assert.ErrorContains(t, err, "no text")
	_, err = settext.Read(words(), strings.Repeat("x", settext.MostBytes+1))
	assert.ErrorContains(t, err, "bytes long")
}

func FuzzRead(f *testing.F) {
	f.Add(text("with osd", "gone is drop"))
	f.Add("\r\n; end\r; of")
	f.Fuzz(func(t *testing.T, s string) {
		w := words()
		got, err := settext.Read(w, s)
		if err != nil {
			return
		}
		c := settext.Compare(flown(nil), w, read(t, w, text("rate is 60")), got)
		for _, row := range c.Rows {
			if row.Loads && (row.Key == "" || strings.HasPrefix(row.Key, "motor ")) {
				t.Errorf("%q would be loaded", row.Says)
			}
		}
	})
}
