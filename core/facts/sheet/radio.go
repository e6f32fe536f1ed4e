package sheet

import (
	"slices"
	"strings"

	"yokeswap/core/facts/gear"
)

func (r *reader) power(found finding, q *quantity, c context) {
	if r.kind != gear.KindAirUnit {
		return
	}
	if len(q.several) > 1 {
		steps := make([]any, len(q.several))
		words := make([]string, len(q.several))
		for i, s := range q.several {
			steps[i], words[i] = s, short(s)
		}
		r.add(found("radio.stepsMW", steps, strings.Join(words, ", ")+" mW"))
	}
	f := found("radio.maxMW", q.high, short(q.high)+" mW at most")
	switch {
	case c.says(about{"eirp"}):
		f.Ask, f.Note = true, "EIRP counts the antenna in: is the power without it known?"
	case !c.says(sendWords) && !q.wasDBm && len(q.several) < 2:
		f.Ask, f.Note = true, "the words do not say that this is what it sends with"
	case q.wasDBm && !c.says(sendWords) && !q.atMost:
		f.Ask, f.Note = true, "is this what it sends with?"
	}
	r.add(f)
}

// bandOf is the band frequencies lie in, by its name in GHz; empty: none that is flown on.
func bandOf(q *quantity) string {
	switch {
	case q.low >= 2390 && q.high <= 2500:
		return "2.4"
	case q.low >= 5150 && q.high <= 6000:
		return "5.8"
	}
	return ""
}

// frequency names the band it lies in.
func (r *reader) frequency(found finding, q *quantity) {
	band := bandOf(q)
	field := map[gear.Kind]string{gear.KindAirUnit: "radio.bands", gear.KindGoggles: "receive.bands"}[r.kind]
	switch {
	case band == "":
		return
	case r.kind == gear.KindAntenna:
		f := found("bands", []any{map[string]any{"band": band}}, "for "+band+" GHz")
		f.Joins = true
		r.tuned = append(r.tuned, f)
		return
	case field == "":
		return
	}
	for i := range r.found {
		if have, ok := r.found[i].Value.([]any); ok && r.found[i].Field == field {
			if !slices.Contains(have, any(band)) { // two bands are one list
				r.found[i].Value = append(slices.Clone(have), band)
				r.found[i].Shows += " and " + band + " GHz"
			}
			return
		}
	}
	r.add(found(field, []any{band}, "the band of "+band+" GHz"))
}

// bands puts together what an antenna is for and what it gains there: one gain is of the one
// band that is named; of several, or none, it is asked.
func (r *reader) bands() {
	named := map[string]Found{}
	for _, f := range r.tuned {
		band, _ := f.Value.([]any)[0].(map[string]any)["band"].(string)
		if _, twice := named[band]; !twice {
			named[band] = f
		}
	}
	if len(r.gains) == 1 && len(named) == 1 {
		for band := range named {
			gain := r.gains[0]
			gain.Value = []any{map[string]any{"band": band, "gainDBi": gain.Value}}
			gain.Shows += " on " + band + " GHz"
			r.add(gain)
		}
		return
	}
	for _, f := range named {
		r.add(f)
	}
	for _, gain := range r.gains {
		gain.Value = []any{map[string]any{"band": "5.8", "gainDBi": gain.Value}}
		gain.Shows += " on 5.8 GHz"
		gain.Ask, gain.Note = true, "on which band?"
		r.add(gain)
	}
}

// gain keeps what an antenna gains until it is known where.
func (r *reader) gain(found finding, q *quantity) {
	if r.kind == gear.KindAntenna && !q.twoNumbers() {
		r.gains = append(r.gains, found("bands", q.low, short(q.low)+" dBi"))
	}
}
