package web

import (
	"context"
	"encoding/json"
	"fmt"
	"strings"
	"time"

	"yokeswap/core/facts/stock"
	"yokeswap/format"
	"yokeswap/store"
)

// Changes is a page of what was changed, the newest first, each to be taken back.
type Changes struct {
	Changes []ChangeView `json:"changes"`
	Before  int64        `json:"before,omitempty" doc:"ask for the page before this one; absent: there is none"`
}

// ChangeView is one change in words.
type ChangeView struct {
	ID      int64     `json:"id" doc:"to take it back with"`
	At      time.Time `json:"at"`
	Who     string    `json:"who"`
	Says    string    `json:"says"`
	Details []string  `json:"details"`
}

// changes lists what was changed in sentences.
func (s *server) changes(_ context.Context, in *struct {
	Before int64 `query:"before"`
	Count  int   `query:"count" minimum:"0" maximum:"200"`
}) (*answer[Changes], error) {
	count := in.Count
	if count == 0 {
		count = store.DefaultPage
	}
	list, err := s.store.Changes(in.Before, count)
	if err != nil {
		return nil, problem(err)
	}
	out := Changes{Changes: []ChangeView{}}
	for _, c := range list {
		v := ChangeView{ID: c.ID, At: c.At, Who: c.Who, Details: []string{}}
		var touched []string
		for _, e := range c.Entries {
			touched = append(touched, touchedWords(e))
			v.Details = append(v.Details, detailsOf(e)...)
		}
		if more := c.Of - len(c.Entries); more > 0 {
			touched = append(touched, fmt.Sprintf("%d more", more))
		}
		v.Says = c.Does + ": " + strings.Join(touched, ", ")
		v.Details = v.Details[:min(len(v.Details), mostDetails)]
		out.Changes = append(out.Changes, v)
	}
	if len(list) == count {
		out.Before = list[len(list)-1].ID
	}
	return reply(out), nil
}

// mostDetails bounds the values told of one change.
const mostDetails = 12

// touchedWords names an entry and what became of it.
func touchedWords(e store.Touched) string {
	body := e.After
	became := ""
	switch {
	case e.Before == nil:
		became = " (new)"
	case e.After == nil:
		became, body = " (taken out)", e.Before
	}
	return format.WordOf(e.Kind) + " " + nameIn(body, e.ID) + became
}

func nameIn(body json.RawMessage, id string) string {
	var named struct {
		Name string `json:"name"`
	}
	if json.Unmarshal(body, &named) == nil && named.Name != "" {
		return named.Name
	}
	return id
}

// detailsOf says which values of an entry that was there before are others now.
func detailsOf(e store.Touched) (list []string) {
	if e.Before == nil || e.After == nil {
		return nil
	}
	for _, f := range stock.Compare(e.Before, e.After) {
		before, after := f.Before, f.After
		if before == "" {
			before = "not stated"
		}
		if after == "" {
			after = "not stated"
		}
		list = append(list, fmt.Sprintf("%s: %s → %s", f.Path, format.Short(before), format.Short(after)))
	}
	return list
}
