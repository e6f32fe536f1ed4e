package format_test

import (
	"encoding/json"
	"fmt"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/gates/pins"
	"yokeswap/core/plans/swap"
	"yokeswap/format"
	"yokeswap/internal/builds"
	"yokeswap/internal/outside"
)

// expression reads S-expressions with a reader of the npm registry (s-expression) and
// writes them as JSON, one line a circuit.
const expression = `
const parse = require('s-expression');
const text = require('fs').readFileSync(0, 'utf8');
for (const one of JSON.parse(text)) console.log(JSON.stringify(parse(one)));
`

// The circuit of builds drawn at random, read back by a general reader of S-expressions,
// net by net.
func TestTheCircuitIsReadBackByAGeneralReader(t *testing.T) {
	node := outside.Program(t, "node")
	root, err := filepath.Abs("..")
	require.NoError(t, err)
	st := builds.Demo()
	var circuits, want []string
	for seed := range uint64(200) {
		alone := builds.Alone(seed, st.Library(), st.Fleet)
		c := fleet.NewCase(st.Library(), alone, &alone.Quads[0])
		if seed == 0 {
			c.Quad.Name = `a "quoted" \ name (with brackets)`
		}
		circuits = append(circuits, string(format.Circuit(c)))
		nets, _ := netlist.Whole(c)
		for _, n := range nets {
			var pins []string
			for _, p := range n.Pins {
				pins = append(pins, fmt.Sprintf("%s.%d.%s", p.Node, p.N, p.Name))
			}
			want = append(want, strings.Join(pins, " "))
		}
	}
	in, err := json.Marshal(circuits)
	require.NoError(t, err)
	read := exec.Command(node, "-e", expression)
	read.Dir, read.Stdin = root, strings.NewReader(string(in))
	out, err := read.Output()
	require.NoError(t, err, "npm packages: make build")
	lines := strings.Split(strings.TrimSpace(string(out)), "\n")
	require.Len(t, lines, len(circuits))
	var is []string
	for _, line := range lines {
		var tree []any
		require.NoError(t, json.Unmarshal([]byte(line), &tree))
		assert.Equal(t, "export", tree[0])
		for _, net := range child(tree, "nets")[1:] {
			var pins []string
			for _, entry := range net.([]any) {
				n, ok := entry.([]any)
				if !ok || n[0] != "node" {
					continue
				}
				pin, function := value(n, "pin"), value(n, "pinfunction")
				if pin == function {
					pin = "0"
				}
				pins = append(pins, fmt.Sprintf("%s.%s.%s", value(n, "ref"), pin, function))
			}
			is = append(is, strings.Join(pins, " "))
		}
	}
	assert.Equal(t, want, is)
	assert.Greater(t, len(is), 800, "nets compared")
}

func child(tree []any, name string) []any {
	at := slices.IndexFunc(tree, func(e any) bool {
		list, ok := e.([]any)
		return ok && list[0] == name
	})
	return tree[at].([]any)
}

// value is the text of a child; the reader keeps a quoted text in an object.
func value(tree []any, name string) string { return fmt.Sprint(child(tree, name)[1]) }

// A netlist that is written is read as the wiring it was written of, for builds drawn at
// random: applied, it changes nothing; and applied to the same build without its wires, it
// brings them back.
func TestANetlistComesBackAsItWent(t *testing.T) {
	st := builds.Demo()
	compared := 0
	for seed := range uint64(200) {
		alone := builds.Alone(seed, st.Library(), st.Fleet)
		c := fleet.NewCase(st.Library(), alone, &alone.Quads[0])
		if c.Fit.AirUnit == nil || c.Fit.Board == "" || c.Fit.Harness != "" {
			continue
		}
		text, err := format.Netlist(pins.DrawAll(c))
		require.NoError(t, err)
		bare := c
		bare.Fit = new(c.Fit.Clone())
		bare.Fit.Wires = nil
		for i := range bare.Fit.Parts {
			bare.Fit.Parts[i].Wires = nil
		}
		patch, err := format.ReadNetlist(text, bare)
		require.NoError(t, err, "seed %d", seed)
		after := bare.With(patch)
		assert.Equal(t, levels(c), levels(after), "seed %d", seed)
		was, is := netlist.All(c), netlist.All(after)
		for i := range was {
			assert.Equal(t, ends(was[i]), ends(is[i]), "seed %d", seed)
			compared += len(was[i].Conns)
		}
	}
	assert.Greater(t, compared, 100)
}

func levels(c fleet.Case) string {
	j := swap.Judge(c)
	return string(j.Gate("pins").Level)
}

func ends(r *netlist.Run) (list []string) {
	for _, w := range r.Conns {
		list = append(list, fmt.Sprintf("%d>%s", w.Pin, w.Terminal))
	}
	slices.Sort(list)
	return list
}

func places(wires []fleet.Wire) (list []string) {
	for _, w := range wires {
		list = append(list, fmt.Sprintf("%d>%s", w.Pin, w.To))
	}
	slices.Sort(list)
	return list
}

// What is no netlist, or speaks of what is not there, is named with its row.
func TestAWrongNetlistIsNamedByItsRow(t *testing.T) {
	st := builds.Demo()
	f := fleet.NewIndex(st.Fleet)
	q, _ := f.Quad("wallower")
	c := fleet.NewCase(st.Library(), f, q)
	for name, wrong := range map[string]struct{ text, path, says string }{
		"nothing":      {"", "row 1", "heading"},
		"other table":  {"a,b\n1,2\n", "row 1", `column "part"`},
		"no such part": {"part,from_pin,place\nnix,1,10v\n", "row 2", `no part "nix"`},
		"no pin":       {"part,from_pin,place\ngps,x,10v\n", "row 2", "pin"},
		"pin nought":   {"part,from_pin,place\ngps,0,10v\n", "row 2", "pin"},
		"no gauge":     {"part,from_pin,place,awg\ngps,1,10v,99\n", "row 2", "gauge"},
		"no length":    {"part,from_pin,place,length_mm\ngps,1,10v,-3\n", "row 2", "length"},
		"a torn row":   {"part,from_pin,place\n\"gps,1\n", "row 2", "row"},
	} {
		_, err := format.ReadNetlist([]byte(wrong.text), c)
		var problems format.Problems
		require.ErrorAs(t, err, &problems, name)
		assert.Equal(t, wrong.path, problems[0].Path, name)
		assert.Contains(t, problems[0].Says, wrong.says, name)
	}
	patch, err := format.ReadNetlist([]byte("\ufeffplace,part,note,from_pin\n'5v,gps,x,1\nground,gps,,2\n"), c)
	require.NoError(t, err, "columns in any order, a mark at the start")
	assert.Equal(t, []string{"1>5v", "2>ground"}, places(patch.Parts[0].Wires))
}

func FuzzReadNetlist(f *testing.F) {
	st := builds.Demo()
	index := fleet.NewIndex(st.Fleet)
	q, _ := index.Quad("wallower")
	c := fleet.NewCase(st.Library(), index, q)
	f.Add([]byte("part,from_pin,place\ngps,1,5v\n"))
	f.Fuzz(func(t *testing.T, text []byte) {
		if patch, err := format.ReadNetlist(text, c); err == nil {
			swap.Judge(c.With(patch))
		}
	})
}
