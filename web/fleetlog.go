package web

import (
	"bytes"
	"cmp"
	"context"
	"encoding/csv"
	"encoding/json"
	"fmt"
	"strconv"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/stock"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/plans/swap"
	"yokeswap/core/work/bench"
	"yokeswap/format"
	"yokeswap/store"
)

// FleetLog is a page of all that has happened, the newest first.
type FleetLog struct {
	Lines  []LogLine `json:"lines"`
	Before int64     `json:"before,omitempty" doc:"ask for the page before this one; absent: there is none"`
}

// LogLine is one thing that has happened.
type LogLine struct {
	ID     int64     `json:"id"`
	At     time.Time `json:"at"`
	Who    string    `json:"who"`
	Says   string    `json:"says"`
	Kind   string    `json:"kind"` // of the entry; empty: a line of a log
	Entry  string    `json:"entry,omitempty"`
	Quad   string    `json:"quad,omitempty"`
	Change int64     `json:"change,omitempty" doc:"to take it back with; absent: it is none"`
	// Back says that it is a swap that was finished, from which the way back can be planned.
	Back bool `json:"back"`
}

// LogQuery is what is asked of the log.
type LogQuery struct {
	Find string `query:"find" maxLength:"200" doc:"letters in what was done or said, in a name or an id"`
	Quad string `query:"quad"`
	Kind string `query:"kind" doc:"of entries, or notes, readings, changes"`
	From string `query:"from" doc:"a day, yyyy-mm-dd; from its begin"`
	To   string `query:"to" doc:"a day, yyyy-mm-dd; to its end"`
}

// filter is the question as the store is asked. Names are those of today.
func (q *LogQuery) filter(snap *store.Snapshot) (store.LogFilter, error) {
	f := store.LogFilter{Find: strings.TrimSpace(q.Find), Quad: q.Quad, Kind: q.Kind}
	for _, day := range []struct {
		says string
		into *time.Time
		days int
	}{{q.From, &f.From, 0}, {q.To, &f.To, 1}} {
		if day.says == "" {
			continue
		}
		at, err := dayOf(day.says)
		if err != nil {
			return f, err
		}
		*day.into = at.AddDate(0, 0, day.days)
	}
	if f.Find == "" {
		return f, nil
	}
	for _, e := range shelf(snap).Entries {
		if len(f.Named) < mostNamed && strings.Contains(strings.ToLower(e.Name), strings.ToLower(f.Find)) {
			f.Named = append(f.Named, e.ID)
		}
	}
	return f, nil
}

// mostNamed bounds the ids a name is looked up as.
const mostNamed = 200

func (s *server) registerFleetLog(api huma.API) {
	huma.Get(api, "/api/log", s.fleetLog)
	huma.Get(api, "/api/log.csv", s.logFile("log.csv", "text/csv; charset=utf-8", asCSV))
	huma.Get(api, "/api/log.jsonl", s.logFile("log.jsonl", "application/jsonl; charset=utf-8", asLines))
	huma.Get(api, "/api/asof", s.asOf)
	huma.Post(api, "/api/quads/{quad}/back", s.planBack, holds[QuadView](api))
}

func (s *server) fleetLog(_ context.Context, in *struct {
	LogQuery
	Before int64 `query:"before"`
	Count  int   `query:"count" minimum:"0" maximum:"500"`
}) (*answer[FleetLog], error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	s.tellLater()
	f, err := in.filter(snap)
	if err != nil {
		return nil, err
	}
	f.Before, f.Count = in.Before, cmp.Or(in.Count, store.DefaultPage)
	events, err := s.store.FindEvents(f)
	if err != nil {
		return nil, problem(err)
	}
	out := FleetLog{Lines: []LogLine{}}
	named := namesOf(snap)
	for i := range events {
		out.Lines = append(out.Lines, lineOf(&events[i], named))
	}
	if len(events) == f.Count {
		out.Before = events[len(events)-1].ID
	}
	return reply(out), nil
}

// namesOf are the names of entries today.
func namesOf(snap *store.Snapshot) map[stock.Ref]string {
	names := map[stock.Ref]string{}
	for _, e := range shelf(snap).Entries {
		names[stock.Ref{Kind: e.Kind, ID: e.ID}] = e.Name
	}
	return names
}

// lineOf is an event in words.
func lineOf(e *store.Event, names map[stock.Ref]string) LogLine {
	line := LogLine{ID: e.ID, At: e.At, Who: e.Who, Says: e.Says, Kind: e.Kind, Entry: e.Entry, Quad: e.Quad,
		Change: e.Change, Back: e.Kind == stock.KindQuad && e.Does == finishedSwap}
	if line.Says == "" {
		of := cmp.Or(names[stock.Ref{Kind: e.Kind, ID: e.Entry}], bench.StepID(e.Entry))
		line.Says = strings.TrimSpace(e.Does + ": " + format.WordOf(e.Kind) + " " + of)
	}
	return line
}

// logFile is the whole log in a form of its own, oldest first.
func (s *server) logFile(name, contentType string, write func(out *bytes.Buffer) func(LogLine) error) func(
	context.Context, *struct{ LogQuery },
) (*download, error) {
	return func(_ context.Context, in *struct{ LogQuery }) (*download, error) {
		snap, err := s.store.Snapshot()
		if err != nil {
			return nil, problem(err)
		}
		f, err := in.filter(snap)
		if err != nil {
			return nil, err
		}
		var out bytes.Buffer
		names, line := namesOf(snap), write(&out)
		if err := s.store.EachEvent(f, func(e store.Event) error { return line(lineOf(&e, names)) }); err != nil {
			return nil, problem(err)
		}
		return &download{ContentType: contentType, ContentDisposition: `attachment; filename="` + name + `"`,
			Body: out.Bytes()}, nil
	}
}

// asCSV writes a row for each line, after a row of headings.
func asCSV(out *bytes.Buffer) func(LogLine) error {
	rows := csv.NewWriter(out)
	_ = rows.Write([]string{"at", "who", "quad", "kind", "entry", "says"}) // to memory: cannot fail
	rows.Flush()
	return func(l LogLine) error {
		err := rows.Write([]string{l.At.Format(time.RFC3339), l.Who, l.Quad, l.Kind, l.Entry, cellSafe(l.Says)})
		rows.Flush()
		return err
	}
}

// asLines writes a line of JSON for each.
func asLines(out *bytes.Buffer) func(LogLine) error {
	lines := json.NewEncoder(out)
	lines.SetEscapeHTML(false)
	return func(l LogLine) error { return lines.Encode(l) }
}

// cellSafe keeps a spreadsheet from taking a text for a formula.
func cellSafe(text string) string {
	if text != "" && strings.ContainsRune("=+-@\t\r", rune(text[0])) {
		return "'" + text
	}
	return text
}

// planBack plans what a quad flew before a swap that was finished: the way back, judged and
// taken in steps as any plan.
func (s *server) planBack(ctx context.Context, in *struct {
	Quad string `path:"quad"`
	Body struct {
		Revision int64 `json:"revision" doc:"of the quad, as read"`
		Event    int64 `json:"event" doc:"the swap that was finished"`
	}
}) (*ready[QuadView], error) {
	e, ok, err := s.store.WholeEvent(in.Body.Event)
	if err != nil {
		return nil, problem(err)
	}
	if !ok || e.Does != finishedSwap || e.Kind != stock.KindQuad || e.Entry != in.Quad {
		return nil, huma.Error404NotFound(fmt.Sprintf("Event %d is no swap of %s that was finished.", in.Body.Event, in.Quad))
	}
	var was fleet.Quad
	if err := json.Unmarshal(e.Before, &was); err != nil {
		return nil, problem(fmt.Errorf("read what %s flew before: %w", in.Quad, err))
	}
	return s.changeQuad(ctx, in.Quad, in.Body.Revision, "planned the way back", func(st *stock.Stock) error {
		return st.PlanFit(in.Quad, was.Now)
	})
}

// AsOf is the fleet as it was at the end of a day, and what is otherwise at another.
type AsOf struct {
	Day   string     `json:"day"`
	Than  string     `json:"than"` // empty: now
	Title string     `json:"title"`
	Quads []QuadThen `json:"quads"`
	// Changed is what has become of entries from one to the other.
	Changed []ChangedSince `json:"changed"`
}

// QuadThen is a quad as it was.
type QuadThen struct {
	ID       string        `json:"id"`
	Name     string        `json:"name"`
	Level    verdict.Level `json:"level"`
	Carries  CarriedWords  `json:"carries"`
	Now      verdict.Level `json:"now,omitempty" doc:"its level at the other day; absent: it was not there"`
	NowThere bool          `json:"nowThere"`
}

// CarriedWords is what a quad carried, in words; empty: none, or not stated.
type CarriedWords struct {
	AirUnit         string `json:"airUnit,omitempty"`
	AirFirmware     string `json:"airFirmware,omitempty"`
	Antennas        string `json:"antennas,omitempty"`
	Goggles         string `json:"goggles,omitempty"`
	GogglesFirmware string `json:"gogglesFirmware,omitempty"`
	Pack            string `json:"pack,omitempty"`
	Board           string `json:"board,omitempty"`
	Wires           int    `json:"wires"`
}

// ChangedSince is what has become of one entry.
type ChangedSince struct {
	Kind   string              `json:"kind"`
	ID     string              `json:"id"`
	Name   string              `json:"name"`
	Became string              `json:"became" enum:"new,gone,changed"`
	Fields []stock.FieldChange `json:"fields"`
}

// endOf is the end of a day, or now for none.
func endOf(day string) (time.Time, error) {
	if day == "" {
		return time.Now().Add(time.Hour), nil
	}
	at, err := dayOf(day)
	return at.AddDate(0, 0, 1).Add(-time.Millisecond), err
}

// dayOf is the begin of a day, here.
func dayOf(day string) (time.Time, error) {
	at, err := time.ParseInLocation(time.DateOnly, day, time.Local)
	if err != nil {
		return at, huma.Error422UnprocessableEntity(strconv.Quote(day) + " is no day: expected one such as 2026-05-12.")
	}
	return at, nil
}

// asOf is what was true on a day, and what changed until another.
func (s *server) asOf(_ context.Context, in *struct {
	Day  string `query:"day" required:"true" doc:"yyyy-mm-dd: as it was at the end of it"`
	Than string `query:"than" doc:"yyyy-mm-dd; absent: now"`
}) (*answer[AsOf], error) {
	var states [2]*stock.Stock
	for i, day := range []string{in.Day, in.Than} {
		at, err := endOf(day)
		if err != nil {
			return nil, err
		}
		if states[i], err = s.store.AsOf(at); err != nil {
			return nil, problem(err)
		}
	}
	then, other := states[0], states[1]
	out := AsOf{Day: in.Day, Than: in.Than, Title: then.Fleet.Title, Quads: []QuadThen{}, Changed: []ChangedSince{}}
	levels := levelsOf(other)
	thens := levelsOf(then)
	for i := range then.Fleet.Quads {
		q := &then.Fleet.Quads[i]
		now, there := levels[q.ID]
		out.Quads = append(out.Quads, QuadThen{q.ID, q.Label(), thens[q.ID], carriedWords(then, q), now, there})
	}
	between := stock.Compared(then, other)
	add := func(st *stock.Stock, ref stock.Ref, became string, fields []stock.FieldChange) {
		if fields == nil {
			fields = []stock.FieldChange{}
		}
		body, _ := json.Marshal(st.Entry(ref))
		out.Changed = append(out.Changed, ChangedSince{ref.Kind, ref.ID, nameIn(body, ref.ID), became, fields})
	}
	for _, ref := range between.New {
		add(other, ref, "new", nil)
	}
	for _, ref := range between.Gone {
		add(then, ref, "gone", nil)
	}
	for _, c := range between.Changed {
		add(other, c.Ref, "changed", c.Fields)
	}
	return reply(out), nil
}

// levelsOf judges each quad of a stock.
func levelsOf(st *stock.Stock) map[string]verdict.Level {
	lib, index := st.Library(), fleet.NewIndex(st.Fleet)
	levels := make(map[string]verdict.Level, len(st.Fleet.Quads))
	for i := range st.Fleet.Quads {
		q := &st.Fleet.Quads[i]
		levels[q.ID] = swap.Judge(fleet.NewCase(lib, index, q)).Level
	}
	return levels
}

func carriedWords(st *stock.Stock, q *fleet.Quad) CarriedWords {
	lib := st.Library()
	label := func(ids ...string) string {
		var list []string
		for _, id := range ids {
			if id != "" {
				list = append(list, lib.Label(id))
			}
		}
		return strings.Join(list, ", ")
	}
	c := st.Fleet.Carries(q)
	return CarriedWords{
		AirUnit: label(c.AirUnit), AirFirmware: string(c.AirFirmware), Antennas: label(c.Antennas...),
		Goggles: label(c.Goggles), GogglesFirmware: string(c.GogglesFirmware), Pack: label(c.Pack),
		Board: label(q.Now.Board), Wires: len(q.Now.Wires),
	}
}
