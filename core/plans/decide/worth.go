package decide

import (
	"fmt"
	"math"
	"slices"

	"yokeswap/core/facts/fleet"
)

// Criterion is one thing that counts for what a quad is flown for.
type Criterion string

// The criteria.
const (
	Records  Criterion = "records"  // it films by itself
	Picture  Criterion = "picture"  // in the goggles
	Range    Criterion = "range"    // of the picture
	Latency  Criterion = "latency"  // of the sticks
	Grams    Criterion = "grams"    // what it weighs more
	Visitors Criterion = "visitors" // it flies with the goggles that are there
	WayBack  Criterion = "way-back" // nothing is done for good
	AsItIs   Criterion = "as-it-is" // nothing is done to it
	Flies    Criterion = "flies"    // its link stands
	Middle   Criterion = "middle"   // its unit is to be had new and used
)

// CriterionRow is a row of the register of criteria.
type CriterionRow struct {
	ID    Criterion `json:"id"`
	Title string    `json:"title"`
	Says  string    `json:"says"` // what it asks
}

// Criteria is the register, in the order it is read.
var Criteria = []CriterionRow{
	{Records, "films by itself", "whole where its recording replaces an action camera"},
	{Picture, "picture in the goggles", "bit rate as a share of the best that any unit here has"},
	{Range, "range", "range the pairing states, as a share of the best here"},
	{Latency, "sticks at once", "the shortest lag here as a share of its own"},
	{Grams, "light", "whole where it weighs no more than today, nothing at a tenth more"},
	{Visitors, "flies with the goggles there are", "goggles owned it links with, as a share of all"},
	{WayBack, "a way back", "whole where no step of it is for good"},
	{AsItIs, "stays as it is", "whole where nothing is done to it"},
	{Flies, "flies digital", "whole where its link stands"},
	{
		Middle,
		"middle generation",
		"whole where another of its unit is to be had new and used: the newest is not yet used, the oldest no longer new",
	},
}

// Weights say how much each criterion counts; absent: not at all.
type Weights map[Criterion]int

// Purpose is a row of the register of purposes: what a quad is flown for and what counts there.
type Purpose struct {
	ID      fleet.Purpose `json:"id"`
	Title   string        `json:"title"`
	Why     string        `json:"why"`
	Weights Weights       `json:"weights"`
}

// Purposes is the register. The weights are common practice as a start, to be read and changed.
var Purposes = []Purpose{
	{fleet.Films, "films by itself", "the recording is what it is flown for",
		Weights{Records: 5, Picture: 3, Grams: 1, Range: 1, WayBack: 1}},
	{fleet.Carries, "carries an action camera", "the other camera films; the link has to hold",
		Weights{Range: 4, Picture: 2, Latency: 1, Grams: 1, WayBack: 1}},
	{fleet.Inspects, "inspects", "what is far and small has to be seen",
		Weights{Picture: 4, Range: 4, Records: 2, WayBack: 1}},
	{fleet.Races, "races", "late sticks and grams lose",
		Weights{Latency: 5, Grams: 4, Visitors: 1}},
	{fleet.Trains, "trains", "visitors look along and nothing may be lost for good",
		Weights{Visitors: 5, WayBack: 3, Picture: 1}},
	{fleet.Fun, "for fun", "a bit of everything",
		Weights{Picture: 3, Range: 1, Latency: 1, Grams: 1, Visitors: 1, WayBack: 1}},
	{fleet.NoPurpose, "none", "it lies in the drawer", Weights{}},
}

// PurposeOf is the purpose of a quad; for fun where none is stated.
func PurposeOf(q *fleet.Quad) Purpose {
	at := slices.IndexFunc(Purposes, func(p Purpose) bool { return p.ID == q.Purpose })
	if at < 0 {
		at = slices.IndexFunc(Purposes, func(p Purpose) bool { return p.ID == fleet.Fun })
	}
	return Purposes[at]
}

// WorthRow is one criterion of a worth, with all that goes into it.
type WorthRow struct {
	Criterion Criterion `json:"criterion"`
	Title     string    `json:"title"`
	Weight    int       `json:"weight"`
	Share     float64   `json:"share"` // of what could be had, 0 to 1
	Says      string    `json:"says"`
	Points    int64     `json:"points"`
}

// scale is what the outcomes of a fleet are held against.
type scale struct {
	bitrate, rangeKM, lag float64
}

func (s *scale) take(o *Outcome) {
	if o.BitrateMbps != nil {
		s.bitrate = max(s.bitrate, float64(*o.BitrateMbps))
	}
	if o.RangeKM != nil {
		s.rangeKM = max(s.rangeKM, float64(*o.RangeKM))
	}
	if o.SticksLagMS != nil && *o.SticksLagMS > 0 && (s.lag == 0 || *o.SticksLagMS < s.lag) {
		s.lag = *o.SticksLagMS
	}
}

// most is what a quad of weight one can be worth.
const most = 1000

// worth adds up what an outcome is worth for a purpose, in points of 1,000 a quad and its
// weight. What is not known counts as nothing.
func (s *scale) worth(o *Outcome, weights Weights, weight int) (sum int64, rows []WorthRow) {
	all := 0
	for _, w := range weights {
		all += max(0, w)
	}
	for _, c := range Criteria {
		w := weights[c.ID]
		if w <= 0 {
			continue
		}
		share, says := s.share(c.ID, o)
		row := WorthRow{Criterion: c.ID, Title: c.Title, Weight: w, Share: share, Says: says}
		row.Points = int64(math.Round(share * float64(w*weight*most) / float64(all)))
		sum += row.Points
		rows = append(rows, row)
	}
	return sum, rows
}

// share is how much of what could be had of a criterion an outcome has, in words as well. What is
// not known is nothing.
func (s *scale) share(c Criterion, o *Outcome) (share float64, says string) {
	const unknown = "not known"
	of := func(is *float64, best float64, unit string) (float64, string) {
		if is == nil || best <= 0 {
			return 0, unknown
		}
		return *is / best, fmt.Sprintf("%.3g of %.3g %s", *is, best, unit)
	}
	yes := func(is bool, words string) (float64, string) {
		if is {
			return 1, words
		}
		return 0, "not " + words
	}
	switch {
	case c == Records && o.Records != nil:
		return yes(*o.Records, "filming by itself")
	case c == Picture:
		return of((*float64)(o.BitrateMbps), s.bitrate, "Mb/s")
	case c == Range:
		return of((*float64)(o.RangeKM), s.rangeKM, "km")
	case c == Latency && o.SticksLagMS != nil && *o.SticksLagMS > 0:
		return s.lag / *o.SticksLagMS, fmt.Sprintf("%.3g ms, at best %.3g ms", *o.SticksLagMS, s.lag)
	case c == Grams && o.MassG != nil && o.BeforeG != nil && *o.BeforeG > 0:
		more := float64(*o.MassG / *o.BeforeG)
		return max(0, 1-max(0, more)*10), fmt.Sprintf("%+.1f g on %.0f g", float64(*o.MassG), float64(*o.BeforeG))
	case c == Visitors && len(o.Goggles)+len(o.NotGoggles)+len(o.Unsure) > 0:
		all := len(o.Goggles) + len(o.NotGoggles) + len(o.Unsure)
		return float64(len(o.Goggles)) / float64(all), fmt.Sprintf("%d of %d goggles", len(o.Goggles), all)
	case c == AsItIs:
		return yes(o.untouched, "as it is")
	case c == Flies && o.flies != nil:
		return yes(*o.flies, "flying digital")
	case c == Middle && o.middle != nil:
		return yes(*o.middle, "to be had new and used")
	case c == WayBack && o.OneWay != nil:
		return yes(*o.OneWay == 0, "undone whenever one likes")
	}
	return 0, unknown
}
