package format_test

import (
	"fmt"
	"runtime"
	"runtime/debug"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/format"
)

// repeated is text over and over, numbered, with commas between, up to a size.
func repeated(text string, size int) string {
	var out strings.Builder
	for n := 0; out.Len() < size; n++ {
		if n > 0 {
			out.WriteByte(',')
		}
		if strings.Contains(text, "%d") {
			fmt.Fprintf(&out, text, n)
		} else {
			out.WriteString(text)
		}
	}
	return out.String()
}

const eightMB = 8 << 20

// hostile make files of 8 MB that take as much as can be. Each is made when it is read: with
// all of them in memory the collector would let as much again lie about.
func hostile() map[string]func() string {
	source := `"source":{"kind":"maker"}`
	var releases []string
	for n := range 500 {
		releases = append(releases, fmt.Sprintf(`{"version":"1.%d"}`, n))
	}
	device := `{"id":"d%d",` + source + `,"releases":[` + strings.Join(releases, ",") + `]}`
	return map[string]func() string{
		"zeros for quads":      func() string { return fleetFile(`"quads":[` + repeated("0", eightMB) + `]`) },
		"wrong quads":          func() string { return fleetFile(`"quads":[` + repeated(`{"x":%d}`, eightMB) + `]`) },
		"quads of nothing":     func() string { return fleetFile(`"quads":[` + repeated(`{"id":"q%d","now":{}}`, eightMB) + `]`) },
		"lists in lists":       func() string { return fleetFile(`"quads":[` + repeated("["+repeated("[]", 1000)+"]", eightMB) + `]`) },
		"fields":               func() string { return fleetFile(`"quads":[{` + repeated(`"f%d":0`, eightMB) + `}]`) },
		"fields of the file":   func() string { return fleetFile(repeated(`"f%d":0`, eightMB)) },
		"one text":             func() string { return fleetFile(`"quads":[{"id":"` + strings.Repeat("q", eightMB) + `"}]`) },
		"one number":           func() string { return fleetFile(`"quads":[{"id":"q","auwG":` + strings.Repeat("7", eightMB) + `}]`) },
		"one field name":       func() string { return fleetFile(`"` + strings.Repeat("q", eightMB) + `":1`) },
		"values in the goals":  func() string { return fleetFile(`"values":[` + repeated(`"v%d"`, eightMB) + `]`) },
		"air units":            func() string { return gearPack(`"airUnits":[` + repeated(device, eightMB) + `]`) },
		"air units as allowed": func() string { return gearPack(`"airUnits":[` + repeated(device, len(device)*99) + `]`) },
		"goggles as allowed":   func() string { return gearPack(`"goggles":[` + repeated(device, len(device)*99) + `]`) },
		"channels as allowed": func() string {
			return gearPack(
				`"bandPlans":[` + repeated(`{"id":"p%d",`+source+`,"channels":[`+channels(64)+`]}`, eightMB*9/10) + `]`,
			)
		},
		"depth":            func() string { return fleetFile(`"quads":` + strings.Repeat(`[`, eightMB)) },
		"depth of objects": func() string { return fleetFile(`"quads":` + strings.Repeat(`{"a":`, eightMB/5)) },
	}
}

func channels(n int) string {
	var list []string
	for i := range n {
		list = append(list, fmt.Sprintf(`{"id":"c%d","mhz":%d,"widthMHz":20}`, i, 5000+i))
	}
	return strings.Join(list, ",")
}

// most is the most memory a function holds while it runs.
func most(do func()) (bytes uint64) {
	defer debug.SetGCPercent(debug.SetGCPercent(100)) // as a program that is run has it
	runtime.GC()
	var before runtime.MemStats
	runtime.ReadMemStats(&before)
	done := make(chan bool)
	peak := make(chan uint64)
	go func() {
		var most uint64
		for {
			select {
			case <-done:
				peak <- most
				return
			case <-time.After(2 * time.Millisecond):
				var now runtime.MemStats
				runtime.ReadMemStats(&now)
				if now.HeapAlloc > before.HeapAlloc {
					most = max(most, now.HeapAlloc-before.HeapAlloc)
				}
			}
		}
	}()
	do()
	close(done)
	return <-peak
}

// Whatever 8 MB hold, they are taken or refused with 150 MB at most, and said why.
func TestASmallFileStaysSmall(t *testing.T) {
	for name, file := range hostile() {
		t.Run(name, func(t *testing.T) {
			data := []byte(file())
			var err error
			bytes := most(func() { _, err = format.Read(data) })
			assert.Less(t, bytes, uint64(150<<20))
			if strings.HasSuffix(name, "as allowed") {
				require.NoError(t, err)
			} else {
				require.Error(t, err)
				assert.Less(t, len(err.Error()), 20_000, "what is wrong is not echoed at length")
			}
		})
	}
}

func BenchmarkReadHostile(b *testing.B) {
	for name, file := range hostile() {
		b.Run(strings.ReplaceAll(name, " ", "-"), func(b *testing.B) {
			data := []byte(file())
			for b.Loop() {
				_, _ = format.Read(data)
			}
			b.ReportMetric(5000, "goal-ms")
		})
	}
}
