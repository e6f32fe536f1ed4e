package console_test

import (
	"context"
	"errors"
	"io"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/console"
	"yokeswap/core/facts/gear"
	"yokeswap/core/work/settext"
	"yokeswap/core/work/setup"
	"yokeswap/msp"
	"yokeswap/sim"
)

func words() *gear.SettingsText {
	return &gear.SettingsText{
		Enter: "!text", Prompt: ">", List: "all", Save: "keep", Leave: "go", Refused: "no:",
		Remark: ";", End: "; end", Head: []string{"of {firmware} {version}", "board {board}"},
		Lines: []gear.SettingsLine{{Form: "{name} is {value}"}},
		Words: []gear.SettingsWord{
			{Name: "rate", Sets: gear.SetsFlight, Factory: "60"},
			{Name: "gone", Sets: gear.SetsFailsafe, Factory: "drop"},
			{Name: "angle", Sets: gear.SetsFlight, Factory: "0"},
			{Name: "craft-name", Sets: gear.SetsOther},
		},
	}
}

// board is a stand-in that speaks text, away for a moment only when it reboots.
func board(t *testing.T, f sim.Faults) (*sim.FlightBoard, msp.Dial) {
	runs := &gear.FlightFirmware{Variant: "FLYS", Text: words()}
	b, err := sim.NewFlightBoard(setup.State{Variant: "FLYS", Version: "4.5.1", Board: "mill", Name: "Hen", RXMap: "AETR"}, runs, "")
	require.NoError(t, err)
	t.Cleanup(func() { b.Close() })
	f.RebootMS, f.SaveMS = 60, 5
	b.Break(f)
	return b, func(ctx context.Context) (io.ReadWriteCloser, error) { return msp.Open(ctx, b.Address()) }
}

func byVariant(variant string) *gear.SettingsText {
	if variant == "FLYS" {
		return words()
	}
	return nil
}

func tells(t *testing.T, dial msp.Dial) string {
	t.Helper()
	b, err := console.Read(t.Context(), dial, byVariant)
	require.NoError(t, err)
	return b.Text
}

func TestABoardTellsItsText(t *testing.T) {
	_, dial := board(t, sim.Faults{})
	text := tells(t, dial)
	got, err := settext.Read(words(), text)
	require.NoError(t, err)
	assert.Equal(t, "mill", got.Board)
	assert.EqualValues(t, "4.5.1", got.Version)
	assert.False(t, got.Cut)
	assert.Contains(t, text, "rate is 60")
	assert.Contains(t, text, "craft-name is Hen")
	state, err := msp.ReadOnce(t.Context(), dial)
	require.NoError(t, err, "it speaks MSP again")
	assert.Equal(t, "Hen", state.Name)
}

func TestABoardThatTellsNoText(t *testing.T) {
	_, dial := board(t, sim.Faults{NoText: true})
	ctx, cancel := context.WithTimeout(t.Context(), 400*time.Millisecond)
	defer cancel()
	_, err := console.Read(ctx, dial, byVariant)
	require.Error(t, err)
	_, err = console.Read(t.Context(), dial, func(string) *gear.SettingsText { return nil })
	require.ErrorIs(t, err, console.ErrNoText)
	_, armed := board(t, sim.Faults{Armed: true})
	_, err = console.Read(t.Context(), armed, byVariant)
	assert.ErrorContains(t, err, "armed")
}

// load sends lines to a board and gives the report, how often it was kept, and what the
// board tells afterwards with its power off and on.
func load(t *testing.T, dial msp.Dial, keep error, lines ...string) (r console.Loaded, kept int) {
	sent, err := settext.Read(words(), strings.Join(lines, "\n"))
	require.NoError(t, err)
	r = console.Load{
		Dial:  dial,
		Words: byVariant,
		Want: func(b console.Board) ([]settext.Line, string) {
			if len(lines) == 0 {
				return nil, "nothing is wanted"
			}
			return sent.Lines, ""
		},
		Keep: func(console.Board) error { kept++; return keep },
		After: func(before, after string, lines []settext.Line) (settext.Aftermath, error) {
			was, err := settext.Read(words(), before)
			require.NoError(t, err)
			is, err := settext.Read(words(), after)
			require.NoError(t, err)
			return settext.After(caseOf(), words(), was, is, lines), nil
		},
	}.Do(t.Context())
	return r, kept
}

func TestLoadingAText(t *testing.T) {
	for _, c := range []struct {
		name    string
		faults  sim.Faults
		lines   []string
		keep    error
		outcome msp.Outcome
		says    string
		has     []string // what the board has in the end
		restore bool
	}{
		{"all is well", sim.Faults{}, []string{"rate is 70", "gone is return"}, nil, msp.Set, "reads back right",
			[]string{"rate is 70", "gone is return", "angle is 0"}, false},
		{"nothing is wanted", sim.Faults{}, nil, nil, msp.Unchanged, "nothing is wanted", []string{"rate is 60"}, false},
		{"it cannot be kept", sim.Faults{}, []string{"rate is 70"}, errors.New("the disk is full"), msp.Unchanged, "could not be kept",
			[]string{"rate is 60"}, false},
		{"a line is not taken", sim.Faults{}, []string{"rate is 70", "swirl is 3", "gone is return"}, nil, msp.NotSaved,
			"Nothing was loaded", []string{"rate is 60", "gone is drop"}, false},
		{"the power is lost on the way", sim.Faults{CutAfter: 2}, []string{"rate is 70", "gone is return", "angle is 20"}, nil,
			msp.NotSaved, "Nothing was loaded", []string{"rate is 60", "gone is drop", "angle is 0"}, false},
		{"it refuses to save", sim.Faults{RefuseSave: true}, []string{"rate is 70"}, nil, msp.NotSaved, "Nothing was loaded",
			[]string{"rate is 60"}, false},
		{"it says that it saved, and has not", sim.Faults{LostSave: true}, []string{"rate is 70"}, nil, msp.NotSaved,
			"The board did not save", []string{"rate is 60"}, false},
		{"a setting is not taken, and it says nothing", sim.Faults{Ignores: "gone"}, []string{"rate is 70", "gone is return"}, nil,
			msp.Differs, "not taken: gone", []string{"rate is 70", "gone is drop"}, true},
		{"one changes beside", sim.Faults{Moves: "angle"}, []string{"rate is 70"}, nil, msp.Differs, "changed beside: angle",
			[]string{"rate is 70", "angle is 9"}, true},
	} {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			_, dial := board(t, c.faults)
			r, kept := load(t, dial, c.keep, c.lines...)
			assert.Equal(t, c.outcome, r.Outcome, r.Says)
			assert.Contains(t, r.Says, c.says)
			assert.Equal(t, c.restore, r.Restore)
			assert.Equal(t, len(c.lines) > 0, kept == 1)
			text := tells(t, dial)
			for _, line := range c.has {
				assert.Contains(t, text, line+"\r\n")
			}
			if c.outcome == msp.Set || c.outcome == msp.Differs {
				require.Len(t, r.Aftermath.Again, 1, "failsafe is read again")
			}
		})
	}
}

// A board that goes away when it is told to save and does not come back may be saved.
func TestABoardThatDoesNotComeBack(t *testing.T) {
	b, dial := board(t, sim.Faults{})
	ctx, cancel := context.WithTimeout(t.Context(), 2*time.Second)
	defer cancel()
	report := console.Load{
		Dial:  dial,
		Words: byVariant,
		Want: func(console.Board) ([]settext.Line, string) {
			return []settext.Line{{Key: "rate", Value: "70", Says: "rate is 70"}}, ""
		},
		Keep: func(console.Board) error {
			b.Break(sim.Faults{RebootMS: 60_000})
			return nil
		},
		After: func(string, string, []settext.Line) (a settext.Aftermath, err error) { return a, nil },
	}.Do(ctx)
	assert.Equal(t, msp.NotRead, report.Outcome, report.Says)
	assert.True(t, report.Restore)
	assert.Contains(t, report.Says, "before it is armed")
}
