package core_test

import (
	"encoding/json"
	"fmt"
	"os"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/stock"
	"yokeswap/format"
	"yokeswap/internal/builds"
)

// Nothing stops a view: whatever a fleet states or leaves out, all the program says and
// draws of it can be said and drawn, and written as JSON.

// viewed drives everything over a fleet.
func viewed(t *testing.T, st *stock.Stock, f *fleet.Index) {
	w := world{st.Sets, st.Library(), f, everyQuad}
	for i := range parts[:len(parts)-1] { // a decision is none: of an odd fleet it takes a minute
		text, err := json.Marshal(parts[i](w))
		require.NoError(t, err)
		if strings.Contains(string(text), `"stopped"`) {
			file, _ := format.Write(f.Fleet)
			t.Fatalf("part %d stops: %s", i, file)
		}
	}
}

func TestNothingStopsAView(t *testing.T) {
	withoutRace(t)
	st := builds.Demo()
	n, taken, cut := 150, 0, 0
	if soak, err := strconv.Atoi(os.Getenv("SOAK")); err == nil {
		n = soak
	}
	for seed := range n {
		if less, f := builds.Torn(uint64(seed), st); f != nil {
			taken++
			if less != st {
				cut++
			}
			t.Run(fmt.Sprint(seed), func(t *testing.T) { viewed(t, less, f) })
		}
	}
	if taken < n/4 {
		t.Errorf("only %d of %d fleets could stand in a file", taken, n)
	}
	if cut < taken/4 {
		t.Errorf("only %d of %d fleets stand over gear that lacks something", cut, taken)
	}
}

func FuzzViews(f *testing.F) {
	for seed := range uint64(8) {
		f.Add(seed)
	}
	st := builds.Demo()
	f.Fuzz(func(t *testing.T, seed uint64) {
		if less, fleet := builds.Torn(seed, st); fleet != nil {
			viewed(t, less, fleet)
		}
	})
}
