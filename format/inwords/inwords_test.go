package inwords_test

import (
	"encoding/json"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/sheet"
	"yokeswap/demo"
	"yokeswap/format"
	"yokeswap/format/inwords"
	"yokeswap/trade"
)

func plain(t *testing.T, item gear.Item) map[string]any {
	t.Helper()
	raw, err := json.Marshal(item)
	require.NoError(t, err)
	entry := map[string]any{}
	require.NoError(t, json.Unmarshal(raw, &entry))
	return entry
}

// Whatever is entered of the demo and of the trade shelf can be written down and read back.
func TestEverySheetIsReadBack(t *testing.T) {
	raw, err := demo.Files.ReadFile(demo.Names[0])
	require.NoError(t, err)
	doc, err := format.Read(raw)
	require.NoError(t, err)
	names := inwords.Names{}
	var items []gear.Item
	for _, s := range []*gear.Set{doc.Set, trade.Shelf()} {
		for _, list := range s.Lists() {
			for _, item := range list.Items {
				names.Put(string(item.Kind()), item.Head().ID, item.Head().Label())
				items = append(items, item)
			}
		}
	}
	for _, item := range items {
		want := plain(t, item)
		form, _ := format.FormOf(string(item.Kind()))
		text, err := inwords.Write(form, item, names)
		require.NoError(t, err)
		found := inwords.Read(form, text, names)
		got := map[string]any{"id": want["id"]}
		if name, named := want["name"]; named {
			got["name"] = name // the heading says it
		}
		for _, f := range found {
			assert.Equal(t, f.Words, strings.TrimSpace(text[f.At:f.At+len(f.Words)]))
			if f.Field != "" {
				inwords.Put(got, f.Field, f.Value)
			}
			if f.Ask {
				assert.Equal(t, sheet.AgainstDrawing, f.Note, text)
			}
		}
		round, err := json.Marshal(got)
		require.NoError(t, err)
		wanted, err := json.Marshal(want)
		require.NoError(t, err)
		assert.JSONEq(t, string(wanted), string(round), text)
		reading, err := sheet.Read(item.Kind(), text, nil, found...)
		require.NoError(t, err)
		for _, f := range reading.Found { // a name may hold a number: it is asked
			assert.True(t, f.Ask || slices.ContainsFunc(found, func(g sheet.Found) bool { return g.Field == f.Field }), f)
		}
	}
}

// said is what is read as "field=value", what is asked with a question mark behind.
func said(t *testing.T, kind gear.Kind, text string) (list []string) {
	t.Helper()
	names := inwords.Names{}
	names.Put("connector", "sh-6", "SH 1.0 mm, 6 pins")
	names.Put("connector", "ufl", "U.FL")
	names.Put("connector", "other-ufl", "u.fl")
	form, known := format.FormOf(string(kind))
	require.True(t, known)
	for _, f := range inwords.Read(form, text, names) {
		assert.Equal(t, f.Words, text[f.At:f.At+len(f.Words)])
		value, err := json.Marshal(f.Value)
		require.NoError(t, err)
		line := f.Field + "=" + string(value)
		if f.Ask {
			line += "?"
			assert.NotEmpty(t, f.Note)
		}
		list = append(list, line)
	}
	return list
}

// Labels as people copy them; what is not understood is left to the grammar, or asked.
func TestValuesBehindTheirLabels(t *testing.T) {
	for text, want := range map[string][]string{
		"Mass: 46 g":             {"massG=46"},
		"mass (g)\t46,5":         {"massG=46.5"},
		"| mass | 46 g |":        {"massG=46"},
		"mass = 46":              {"massG=46"},
		"mass: 46 kg":            nil,
		"mass: about 46 g":       nil,
		"mass 46 g":              nil,
		"how many antennas: 2":   {"radio.antennas=2"},
		"how many antennas: 2.5": nil,
		"its recording replaces an action camera: Yes": {"camera.records=true"},
		"RC output inverted: nein":                     {"rcOut.inverted=false"},
		"RC output inverted: perhaps":                  nil,
		"camera screws: M2":                            {`camera.screw="M2"`},
		"camera screws: M7":                            nil,
		"its plug: sh 1.0 mm, 6 pins":                  {`plug.connector="sh-6"`},
		"its plug: a strange one":                      {"=null?"},
		"antenna plug: U.FL":                           {"=null?"},
		"antenna plug: ufl":                            {`radio.plug="ufl"`},
		"power settings: 25; 200; 600":                 {"radio.stepsMW=[25,200,600]"},
		"power settings: 25, low":                      nil,
		"pins: supply, ground, –, uart-tx":             {`plug.pins=["supply","ground","","uart-tx"]?`},
		"understands: displayport, smoke":              nil,
		"hole patterns: 25.5 x 25.5 mm":                nil,
		"name: Fenland":                                nil,
		"shows a canvas on firmware: >=1.2\nmass: 4 g": {`osd.canvas="\u003e=1.2"`, "massG=4"},
		"hole patterns:\n- across: 20 mm; along: 20 mm; screw: M2\n- across: 25.5 mm; along: 25.5 mm": {
			`mount.patterns=[{"screw":"M2","xMM":20,"yMM":20},{"xMM":25.5,"yMM":25.5}]`},
		"hole patterns:\n- across: 20 mm; along: twenty":                  {"=null?"},
		"hole patterns:\n- across: 20 mm\n  along: 20 mm":                 {`mount.patterns=[{"xMM":20,"yMM":20}]`},
		"hole patterns:\n- across: 20 mm; along: 20 mm\n  as you like it": {`mount.patterns=[{"xMM":20,"yMM":20}]?`},
		"hole patterns:\n\nmass: 4 g":                                     {"massG=4"},
		"reached on the side:\n- of: usb; value: left":                    {`mount.access={"usb":"left"}`},
		"releases:\n- version: 1.0\n- version: 1.2; one-way: yes; note: \"back; only by hand\"": {
			`releases=[{"version":"1.0"},{"note":"back; only by hand","oneWay":true,"version":"1.2"}]`},
		"releases:\n- 1.0 mends the fan\n- 1.1 is new": nil,
		"releases:\n- version: newest":                 {"=null?"},
		"releases:\n- version: newest\n- version: 1.0": {`releases=[{"version":"1.0"}]?`},
	} {
		assert.Equal(t, want, said(t, gear.KindAirUnit, text), text)
	}
	assert.Equal(t, []string{
		`pads=[{"id":"9-v-pad","kind":"regulated","name":"9 V pad","outV":9},{"id":"9-v-pad-2","kind":"pack","name":"9 V pad"},{"id":"3","kind":"pack"}]`,
	}, said(t, gear.KindBoard, "power pads:\n• name: 9 V pad; carries: regulated; output voltage: 9 V\n• name: 9 V pad; carries: pack\n• carries: pack"))
}

// A list in other words than ours is left to the grammar, every line of it.
func TestAListInOtherWordsIsLeft(t *testing.T) {
	text := "power pads:\n- BEC 9 V / 2 A\nmass: 8 g"
	form, _ := format.FormOf(string(gear.KindBoard))
	reading, err := sheet.Read(gear.KindBoard, text, nil, inwords.Read(form, text, nil)...)
	require.NoError(t, err)
	var fields []string
	for _, f := range reading.Found {
		fields = append(fields, f.Field)
	}
	assert.Equal(t, []string{"pads", "massG"}, fields)
}

// Whatever is pasted, what is told stands in it, and nothing falls over.
func FuzzRead(f *testing.F) {
	f.Add("mass: 46 g\nhole patterns:\n- across: 20 mm; along: \"2;0\"\n  - screw: M2", uint8(0))
	f.Add("| name | \"x\\\" |\nreached on the side:\n- of: usb; value: left", uint8(3))
	forms := format.Forms()
	f.Fuzz(func(t *testing.T, text string, n uint8) {
		for _, found := range inwords.Read(forms[int(n)%len(forms)], text, nil) {
			if text[found.At:found.At+len(found.Words)] != found.Words {
				t.Fatalf("%q does not stand at %d of %q", found.Words, found.At, text)
			}
		}
	})
}

// Goal: a pasted page of 10 kB in less than 10 ms, the grammar's part included.
func BenchmarkRead10kB(b *testing.B) {
	form, _ := format.FormOf(string(gear.KindAirUnit))
	page := strings.Repeat("Input voltage: 7.4-26.4 V, weight 46 g\nmass: 46 g\nhole patterns:\n- across: 20 mm; along: 20 mm\n", 100)
	for b.Loop() {
		if _, err := sheet.Read(gear.KindAirUnit, page, nil, inwords.Read(form, page, nil)...); err != nil {
			b.Fatal(err)
		}
	}
	b.SetBytes(int64(len(page)))
}
