package web

import (
	"cmp"
	"context"
	"encoding/json"
	"fmt"
	"maps"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/work/prove"
	"yokeswap/format/recording"
	"yokeswap/sim"
	"yokeswap/store"
)

// RecordingLine is a recording in the list of a test flight.
type RecordingLine struct {
	ID   int64     `json:"id"`
	Name string    `json:"name"`
	At   time.Time `json:"at"`
}

// RecordingView is one recording, as it is drawn.
type RecordingView struct {
	RecordingLine
	Columns []prove.RecordedColumn `json:"columns"`
	// Means says which column tells which measure, by its name.
	Means prove.Means    `json:"means"`
	Notes []string       `json:"notes"`
	Parts []RecordedPart `json:"parts"`
	Part  int            `json:"part" doc:"the one that is drawn"`
	// Curves are of the part that is drawn, by measure; Over are bit rates over distance.
	Curves []RecordedCurve      `json:"curves"`
	Over   []prove.DrawnPoint   `json:"over"`
	Worst  []prove.Passage      `json:"worst" doc:"passages in which the bit rate is lowest on the whole, the worst first"`
	Gaps   []prove.RecordingGap `json:"gaps"`
	Marks  []prove.SpotMark     `json:"marks"`
}

// RecordedPart is one flight of a recording.
type RecordedPart struct {
	FromLine int     `json:"fromLine"`
	FromS    float64 `json:"fromS"`
	ToS      float64 `json:"toS"`
	Samples  int     `json:"samples"`
}

// RecordedCurve is a measure over time.
type RecordedCurve struct {
	Measure prove.Measure      `json:"measure"`
	Unit    string             `json:"unit"`
	Points  []prove.DrawnPoint `json:"points"`
}

// The units measures are drawn in.
var measureUnits = map[prove.Measure]string{prove.BitRate: "Mbit/s", prove.Delay: "ms", prove.Voltage: "V",
	prove.Distance: "m"}

const (
	curvePoints  = 600
	worstSeconds = 5
	worstMany    = 3
	mostMarks    = 500
)

// recordingsPath ends the address that takes a file as it is.
const recordingsPath = "/recordings"

func (s *server) registerRecordings(api huma.API) {
	const all = "/api/flights/{flight}" + recordingsPath
	const one = all + "/{id}"
	huma.Get(api, all, s.recordings)
	huma.Post(api, all, s.keepRecording, func(o *huma.Operation) { o.MaxBodyBytes = recording.LargestBytes + 1 })
	huma.Post(api, "/api/flights/{flight}/invent", s.inventRecording)
	huma.Get(api, one, s.recording)
	huma.Put(api, one, s.sayRecording)
	huma.Delete(api, one, s.dropRecording)
}

func (s *server) recordings(_ context.Context, in *struct {
	Flight string `path:"flight"`
}) (*answer[[]RecordingLine], error) {
	kept, err := s.store.Recordings(in.Flight)
	if err != nil {
		return nil, problem(err)
	}
	list := make([]RecordingLine, len(kept))
	for i, k := range kept {
		list[i] = RecordingLine{k.ID, k.Name, k.At}
	}
	return reply(list), nil
}

// flown finds a test flight with its course.
func (s *server) flown(id string) (*fleet.TestFlight, *fleet.Course, error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, nil, problem(err)
	}
	t, ok := snap.Fleet.TestFlight(id)
	if !ok {
		return nil, nil, notFound("test flight", id)
	}
	course, ok := snap.Fleet.Course(t.Course)
	if !ok {
		return nil, nil, notFound("course", t.Course)
	}
	return t, course, nil
}

// keepRecording reads a recording through and keeps it as it came; one that cannot be read is
// refused whole.
func (s *server) keepRecording(_ context.Context, in *struct {
	Flight  string `path:"flight"`
	Name    string `query:"name" maxLength:"200" doc:"of the file"`
	RawBody []byte `contentType:"application/octet-stream"`
}) (*answer[RecordingView], error) {
	if _, _, err := s.flown(in.Flight); err != nil {
		return nil, err
	}
	return s.takeRecording(in.Flight, cmp.Or(in.Name, "recording"), in.RawBody)
}

// inventRecording keeps what an invented recorder would have written down.
func (s *server) inventRecording(_ context.Context, in *struct {
	Flight string `path:"flight"`
}) (*answer[RecordingView], error) {
	t, course, err := s.flown(in.Flight)
	if err != nil {
		return nil, err
	}
	return s.takeRecording(in.Flight, "invented recording.srt", []byte(sim.Recording(course, t, 1)))
}

func (s *server) takeRecording(flight, name string, body []byte) (*answer[RecordingView], error) {
	rec, _, err := recording.Read(body)
	if err != nil {
		return nil, huma.Error422UnprocessableEntity(fmt.Sprintf("%s cannot be read: %s. Nothing was kept.", name, err))
	}
	means, err := s.store.MeansOf(rec.Signature())
	if err != nil {
		return nil, problem(err)
	}
	if means == "" {
		means = encoded(rec.Guessed())
	}
	id, err := s.store.Keep(store.Kept{Flight: flight, Name: name, At: time.Now(), Signature: rec.Signature(),
		Means: means, Marks: "[]", Body: body})
	if err != nil {
		return nil, problem(err)
	}
	return s.recordingView(flight, id, -1)
}

func encoded(v any) string {
	text, err := json.Marshal(v)
	if err != nil {
		return "null" // maps and lists of plain values: cannot be
	}
	return string(text)
}

func (s *server) recording(_ context.Context, in *struct {
	Flight string `path:"flight"`
	ID     int64  `path:"id"`
	Part   int    `query:"part" minimum:"0" doc:"which flight of it, from 1; absent: the longest"`
}) (*answer[RecordingView], error) {
	return s.recordingView(in.Flight, in.ID, in.Part-1)
}

// opened is a recording, read.
func (s *server) opened(flight string, id int64) (store.Kept, *prove.Recording, []string, error) {
	kept, ok, err := s.store.Recording(flight, id)
	if err != nil {
		return kept, nil, nil, problem(err)
	}
	if !ok {
		return kept, nil, nil, notFound("recording", fmt.Sprint(id))
	}
	rec, notes, err := recording.Read(kept.Body)
	if err != nil {
		return kept, nil, nil, huma.Error422UnprocessableEntity(kept.Name + " cannot be read: " + err.Error())
	}
	return kept, rec, notes, nil
}

// recordingView draws a recording; a part below 0 is the longest.
func (s *server) recordingView(flight string, id int64, part int) (*answer[RecordingView], error) {
	kept, rec, notes, err := s.opened(flight, id)
	if err != nil {
		return nil, err
	}
	view := RecordingView{RecordingLine: RecordingLine{kept.ID, kept.Name, kept.At}, Columns: rec.Columns,
		Means: prove.Means{}, Notes: append([]string{}, notes...), Marks: []prove.SpotMark{}}
	if err := json.Unmarshal([]byte(kept.Means), &view.Means); err != nil {
		return nil, problem(fmt.Errorf("read what the columns of recording %d mean: %w", id, err))
	}
	if err := json.Unmarshal([]byte(kept.Marks), &view.Marks); err != nil {
		return nil, problem(fmt.Errorf("read the marks of recording %d: %w", id, err))
	}
	longest := 0
	for i := range rec.Parts {
		p := &rec.Parts[i]
		view.Parts = append(view.Parts, RecordedPart{p.FromLine, p.TimesS[0], p.TimesS[len(p.TimesS)-1], len(p.TimesS)})
		if len(p.TimesS) > len(rec.Parts[longest].TimesS) {
			longest = i
		}
	}
	if part < 0 || part >= len(rec.Parts) {
		part = longest
	}
	view.Part = part
	view.draw(rec, &rec.Parts[part])
	return reply(view), nil
}

// draw adds the curves of a part, its worst passages and its gaps.
func (v *RecordingView) draw(rec *prove.Recording, p *prove.Part) {
	v.Curves, v.Over, v.Worst, v.Gaps = []RecordedCurve{}, []prove.DrawnPoint{}, []prove.Passage{}, p.Gaps()
	for _, m := range prove.Measures {
		if at, scale, ok := rec.Telling(v.Means, m); ok {
			v.Curves = append(v.Curves, RecordedCurve{m, measureUnits[m], p.Curve(at, curvePoints, scale)})
		}
	}
	rate, scale, ok := rec.Telling(v.Means, prove.BitRate)
	if !ok {
		return
	}
	for _, w := range p.Worst(rate, worstSeconds, worstMany) {
		w.Value *= scale
		v.Worst = append(v.Worst, w)
	}
	if over, overScale, ok := rec.Telling(v.Means, prove.Distance); ok {
		v.Over = p.CurveOver(over, rate, curvePoints/4, overScale, scale)
	}
}

// sayRecording says which column tells what, and where spots were passed: what was lowest
// there is read off.
func (s *server) sayRecording(_ context.Context, in *struct {
	Flight string `path:"flight"`
	ID     int64  `path:"id"`
	Body   struct {
		Means prove.Means      `json:"means"`
		Marks []prove.SpotMark `json:"marks"`
		Part  int              `json:"part" minimum:"0" doc:"the one to draw"`
	}
}) (*answer[RecordingView], error) {
	_, course, err := s.flown(in.Flight)
	if err != nil {
		return nil, err
	}
	_, rec, _, err := s.opened(in.Flight, in.ID)
	if err != nil {
		return nil, err
	}
	maps.DeleteFunc(in.Body.Means, func(_ prove.Measure, column string) bool { return column == "" })
	if err := in.Body.Means.Check(rec); err != nil {
		return nil, huma.Error422UnprocessableEntity(err.Error() + ".")
	}
	if len(in.Body.Marks) > mostMarks {
		return nil, huma.Error422UnprocessableEntity(fmt.Sprintf("No more than %d marks are kept.", mostMarks))
	}
	marks := append([]prove.SpotMark{}, in.Body.Marks...)
	for i := range marks {
		if err := marks[i].Read(course, rec, in.Body.Means); err != nil {
			return nil, huma.Error422UnprocessableEntity(err.Error() + ".")
		}
	}
	if _, err := s.store.Say(in.Flight, in.ID, encoded(in.Body.Means), encoded(marks)); err != nil {
		return nil, problem(err)
	}
	return s.recordingView(in.Flight, in.ID, in.Body.Part)
}

func (s *server) dropRecording(_ context.Context, in *struct {
	Flight string `path:"flight"`
	ID     int64  `path:"id"`
}) (*struct{}, error) {
	switch gone, err := s.store.DropRecording(in.Flight, in.ID); {
	case err != nil:
		return nil, problem(err)
	case !gone:
		return nil, notFound("recording", fmt.Sprint(in.ID))
	}
	return nil, nil
}
