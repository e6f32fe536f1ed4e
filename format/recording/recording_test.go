package recording_test

import (
	"errors"
	"math"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/text/encoding/charmap"
	"golang.org/x/text/encoding/unicode"

	"yokeswap/core/work/prove"
	"yokeswap/format/recording"
)

// column finds a column by its measure, of the first part.
func column(t *testing.T, rec *prove.Recording, m prove.Measure) []float64 {
	t.Helper()
	for i, c := range rec.Columns {
		if c.Guess == m {
			return rec.Parts[0].Values[i]
		}
	}
	require.Fail(t, "no such column", "%s in %v", m, rec.Columns)
	return nil
}

// Each manner of writing comes to the same numbers.
func TestMannersOfWriting(t *testing.T) {
	for name, text := range map[string]string{
		"pairs with colons": "1\n00:00:00,000 --> 00:00:01,000\nRate:24.5Mbps Delay:31ms Pack:16.2V Away:120m\n\n" +
			"2\n00:00:01,000 --> 00:00:02,000\nRate:12Mbps Delay:40ms Pack:16.1V Away:160m\n\n",
		"words and bars": "1\r\n00:00:00,000 --> 00:00:01,000\r\nbit rate 24.5 Mbit/s | delay 31 ms\r\npack 16.2 V | distance 120 m\r\n" +
			"\r\n2\r\n00:00:01,000 --> 00:00:02,000\r\nbit rate 12 Mbit/s | delay 40 ms\r\npack 16.1 V | distance 160 m\r\n",
		"letters run together, colours, no empty line": "1\n00:00:00.000 --> 00:00:01.000\n<font color=\"#fff\">BR24.5 LAT31 BATT16.2 DIST120</font>\n" +
			"2\n00:00:01.000 --> 00:00:02.000\n{\\an8}BR12 LAT40 BATT16.1 DIST160\n",
		"a table":                   "time,bitrate (Mbit/s),delay (ms),voltage (V),distance (m)\n0,24.5,31,16.2,120\n1,12,40,16.1,160\n",
		"a table with semicolons":   "Zeit;Datenrate [Mbit/s];Latenz [ms];Spannung [V];Entfernung [m]\n0,0;24,5;31;16,2;120\n1,0;12;40;16,1;160\n",
		"moments and kilobits":      "timestamp\trate (kbit/s)\tlatency (ms)\tpack (mV)\tdistance (km)\n2026-05-12T10:00:00Z\t24500\t31\t16200\t0.12\n2026-05-12T10:00:01Z\t12000\t40\t16100\t0.16\n",
		"milliseconds of a counter": "ms,bitrate,latency,pack voltage,dist\n1000,24.5,31,16.2,120\n2000,12,40,16.1,160\n",
	} {
		rec, notes, err := recording.Read([]byte(text))
		require.NoError(t, err, name)
		assert.Empty(t, notes, name)
		require.Len(t, rec.Parts, 1, name)
		require.Len(t, rec.Parts[0].TimesS, 2, name)
		assert.InDelta(t, 1, rec.Parts[0].TimesS[1]-rec.Parts[0].TimesS[0], 1e-9, name)
		for m, want := range map[prove.Measure][]float64{prove.BitRate: {24.5, 12}, prove.Delay: {31, 40},
			prove.Voltage: {16.2, 16.1}, prove.Distance: {120, 160}} {
			got := column(t, rec, m)
			for i := range want {
				scale := 1.0
				for _, c := range rec.Columns {
					if c.Guess == m {
						scale = prove.Scale(m, c.Unit)
					}
				}
				assert.InDelta(t, want[i], got[i]*scale, 1e-9, "%s, %s", name, m)
			}
		}
	}
}

// The letters of other encodings are read as well.
func TestEncodings(t *testing.T) {
	text := "Zeit;Verzögerung [ms];Entfernung [m]\n0;31;120\n1;40;160\n"
	small, err := charmap.Windows1252.NewEncoder().String(text)
	require.NoError(t, err)
	wide, err := unicode.UTF16(unicode.BigEndian, unicode.UseBOM).NewEncoder().String(text)
	require.NoError(t, err)
	for name, data := range map[string]string{"UTF-8": text, "with its mark": "\ufeff" + text, "Windows-1252": small, "UTF-16": wide} {
		rec, _, err := recording.Read([]byte(data))
		require.NoError(t, err, name)
		assert.Equal(t, "Verzögerung", rec.Columns[0].Name, name)
		assert.Equal(t, prove.Delay, rec.Columns[0].Guess, name)
	}
}

// A clock that goes back or leaps parts the recording, and it is said where; gaps stay gaps.
func TestTwoFlightsInOneFile(t *testing.T) {
	rec, notes, err := recording.Read([]byte("time,rate\n0,20\n1,19\n2,18\n0,30\n1,31\n400,8\n"))
	require.NoError(t, err)
	require.Len(t, rec.Parts, 3)
	assert.Equal(t, []int{2, 5, 7}, []int{rec.Parts[0].FromLine, rec.Parts[1].FromLine, rec.Parts[2].FromLine})
	require.Len(t, notes, 2)
	assert.Contains(t, notes[0], "At line 5 its clock goes back by 2 s")
	assert.Contains(t, notes[1], "At line 7 its clock leaps by 6:39 min")
	rec, notes, err = recording.Read([]byte("time,rate\n0,20\n1,19\n2,18\n30,17\n31,\n32,16\n"))
	require.NoError(t, err)
	assert.Empty(t, notes)
	assert.Equal(t, []prove.RecordingGap{{FromS: 2, ToS: 30}}, rec.Parts[0].Gaps())
	assert.True(t, math.IsNaN(rec.Parts[0].Values[0][4]), "what is not said is no nought")
}

// What is no recording is refused, with the place.
func TestWhatIsNoRecording(t *testing.T) {
	for text, want := range map[string]string{
		"":                                    "it is empty",
		"hello":                               "line 1: expected a row of names",
		"1,2,3\n4,5,6\n":                      "line 1: expected names in the first row, found numbers",
		"rate,delay\n1,2\n":                   "line 1: no column is called a time",
		"time,rate\nsoon,3\n":                 `line 2: expected a time under "time", found "soon"`,
		"1\n00:00:xx --> 00:00:01,000\nA 1\n": "line 2: expected a time such as",
		"1\n00:00:00,000 --> 00:00:01,000\nno numbers here\n": "there is no number under a name in it",
		"time,rate\n1,\n":       "there is no number under a name in it",
		"\x89PNG\r\n\x1a\n\x00": "it is no text",
	} {
		_, _, err := recording.Read([]byte(text))
		require.Error(t, err, "%q", text)
		assert.Contains(t, err.Error(), want, "%q", text)
		var wrong *recording.Wrong
		assert.True(t, errors.As(err, &wrong))
	}
	_, _, err := recording.Read(make([]byte, recording.LargestBytes+1))
	assert.ErrorContains(t, err, "larger than 32 MiB")
}

// Files written by hand in five manners, each with the lowest rate that stands in it.
func TestFilesInFiveManners(t *testing.T) {
	files, err := filepath.Glob("testdata/*")
	require.NoError(t, err)
	require.GreaterOrEqual(t, len(files), 5)
	lowest := map[string]float64{"bench-a.srt": 7.5, "bench-b.srt": 9.1, "field-c.csv": 6.2, "field-d.csv": 5.4, "old-e.txt": 8.8}
	for _, file := range files {
		data, err := os.ReadFile(file)
		require.NoError(t, err)
		rec, _, err := recording.Read(data)
		require.NoError(t, err, file)
		low := math.Inf(1)
		for i, c := range rec.Columns {
			if c.Guess == prove.BitRate {
				for _, v := range rec.Parts[0].Values[i] {
					if !math.IsNaN(v) {
						low = min(low, v*prove.Scale(prove.BitRate, c.Unit))
					}
				}
			}
		}
		assert.InDelta(t, lowest[filepath.Base(file)], low, 1e-9, "%s: %v", file, rec.Columns)
	}
}

// Whatever is read is whole: as many values as times in every column of every part, times in
// order within a part.
func FuzzRead(f *testing.F) {
	for _, seed := range []string{"time,rate\n0,1\n", "1\n00:00:00,000 --> 00:00:01,000\nA:1ms b 2:30\n", "\xff\xfea\x00", "t;x\n1,5;2\n",
		strings.Repeat("1\n00:00:00,0 --> x\nA 1\n", 3)} {
		f.Add([]byte(seed))
	}
	f.Fuzz(func(t *testing.T, data []byte) {
		rec, _, err := recording.Read(data)
		if err != nil {
			return
		}
		for _, p := range rec.Parts {
			require.Len(t, p.Values, len(rec.Columns))
			for i := range p.Values {
				require.Len(t, p.Values[i], len(p.TimesS))
				p.Worst(i, 5, 3)
				p.Curve(i, 100, 1)
			}
			for k := 1; k < len(p.TimesS); k++ {
				require.LessOrEqual(t, p.TimesS[k-1], p.TimesS[k])
			}
			p.Gaps()
		}
	})
}

// A recording of an hour at ten samples a second.
func BenchmarkAnHour(b *testing.B) {
	var text strings.Builder
	text.WriteString("time,rate (Mbit/s),delay (ms),pack (V),distance (m)\n")
	for i := range 36_000 {
		text.WriteString(strings.Join([]string{itoa(i, 10), itoa(200+i%90, 10), itoa(30+i%9, 1), itoa(1680-i/300, 100), itoa(i%500, 1)}, ",") + "\n")
	}
	data := []byte(text.String())
	for b.Loop() {
		rec, _, err := recording.Read(data)
		if err != nil {
			b.Fatal(err)
		}
		rec.Parts[0].Curve(0, 800, 1)
		rec.Parts[0].Worst(0, 10, 3)
	}
}

func itoa(n, per int) string { return strconv.FormatFloat(float64(n)/float64(per), 'f', -1, 64) }
