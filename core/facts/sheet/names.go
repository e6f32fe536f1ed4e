package sheet

import (
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"yokeswap/core/facts/gear"
)

var (
	coaxNames = regexp.MustCompile(`(?i)\b(U\.FL|MMCX|RP-SMA|SMA)\b`)
	counts    = regexp.MustCompile(`(?i)\b(one|two|four|1|2|4|ein|eine|zwei|vier|une|deux|quatre)\s*[x×]?\s*` +
		`(?:\w+\s+)?(?:antenna|antenn)\w*|\bantenn\w*\s*[:=|]\s*(\d)\b`)
	series     = regexp.MustCompile(`\b([A-Z]{2})\s?-?(1[.,]0|1[.,]25|1[.,]5|2[.,]0)\b`)
	pinCounts  = regexp.MustCompile(`(?i)\b(\d{1,2})[\s-]?(?:pins?|p|polig|broches|way)\b`)
	hands      = regexp.MustCompile(`\b(RHCP|LHCP)\b|(?i:\blinear(?:ly)?\b)`)
	chemistry  = regexp.MustCompile(`(?i)\b(li-?po|li-?hv|li-?ion|li-?fe(?:po4?)?)\b`)
	packNames  = regexp.MustCompile(`\b(\d{1,2})S(\d)P\b`)
	screwNames = regexp.MustCompile(`\bM(1\.6|2\.5|2|3)\s*[x×*]\s*(\d+)\b`)
	releases   = regexp.MustCompile(`(?i)(?:\b(?:requires?|needs?|firmware|release)[\s:]*(?:version\s*)?[≥>]?=?\s*v?` +
		`|\bv|\bversion\s+)(\d+(?:\.\d+)+)\+?` +
		`(?:\s*(?:or|oder|ou)\s+(?:later|newer|above|higher|neuer|höher|plus récent))?`)
)

var countWords = map[string]float64{
	"one": 1, "two": 2, "four": 4,
	"ein": 1, "eine": 1, "zwei": 2, "vier": 4,
	"une": 1, "deux": 2, "quatre": 4,
}

// named adds what words in a line say of a field, at a match; with a note it is asked.
type named func(m []int, field string, value any, shows, note string)

// names reads what is said by words alone.
func (r *reader) names(line string, start int) {
	add := func(m []int, field string, value any, shows, note string) {
		r.add(Found{
			Words: line[m[0]:m[1]],
			At:    start + m[0],
			Field: field,
			Value: value,
			Shows: shows,
			Ask:   note != "",
			Note:  note,
		})
	}
	lower := strings.ToLower(line) // a plain search first: most lines have none of this
	has := func(words ...string) bool {
		return slices.ContainsFunc(words, func(w string) bool { return strings.Contains(lower, w) })
	}
	if slices.Contains(wired, r.kind) && series.MatchString(line) {
		r.seriesName(line, add)
	}
	if slices.Contains(activated, r.kind) && has("activ", "aktiv") {
		activationWords(line, add)
	}
	switch r.kind {
	case gear.KindAirUnit:
		r.radioNames(line, "radio.", has, add)
	case gear.KindGoggles:
		r.radioNames(line, "receive.", has, add)
	case gear.KindAntenna:
		if has("u.fl", "mmcx", "sma") {
			r.plugName(line, "plug", add)
		}
		if m := hands.FindStringSubmatchIndex(line); m != nil {
			add(m, "polarisation", handOf(line[m[0]:m[1]]), line[m[0]:m[1]], "")
		}
	case gear.KindReceiver:
		receiverWords(line, lower, add)
	case gear.KindPack:
		packWords(line, add)
	case gear.KindScrew:
		if m := screwNames.FindStringSubmatchIndex(line); m != nil {
			length, _ := strconv.ParseFloat(group(line, m, 2), 64)
			add(m, "size", "M"+group(line, m, 1), "M"+group(line, m, 1), "")
			add(m, "lengthMM", length, short(length)+" mm", "")
		}
	}
}

// radioNames reads how many antennas a device has, their plug, and the release it asks for.
func (r *reader) radioNames(line, port string, has func(words ...string) bool, add named) {
	if m := found(counts, line, has("antenn")); m != nil {
		word := strings.ToLower(group(line, m, 1) + group(line, m, 2))
		n, ok := countWords[word]
		if !ok {
			n, _ = strconv.ParseFloat(word, 64)
		}
		if n > 0 {
			add(m, port+"antennas", n, short(n)+" antennas", "")
		}
	}
	if has("u.fl", "mmcx", "sma") {
		r.plugName(line, port+"plug", add)
	}
	can := has("requ", "need", "firmware", "release", "version", "v1", "v2", "v3", "v4")
	if m := found(releases, line, can); m != nil {
		add(m, "", nil, fmt.Sprintf("release %s or later", group(line, m, 1)),
			"a release belongs to a statement about a pair, or to what the canvas needs: enter it there")
	}
}

// activated are the kinds that may have to be activated once.
var activated = []gear.Kind{gear.KindAirUnit, gear.KindGoggles, gear.KindController}

var (
	notActivated = regexp.MustCompile(`(?i)\b(?:no activation|without activation` +
		`|activation (?:is )?not (?:needed|required|necessary)|need not be activated` +
		`|keine aktivierung|ohne aktivierung|muss nicht aktiviert|sans activation)\b`)
	toActivate = regexp.MustCompile(`(?i)\b(?:activation (?:is )?(?:needed|required|necessary)` +
		`|(?:must|has to|have to|needs? to) be activated|(?:requires?|needs?) (?:an )?activation` +
		`|aktivierung (?:ist )?(?:nötig|notwendig|erforderlich)|muss (?:erst |zuerst )?aktiviert` +
		`|activation (?:nécessaire|requise|obligatoire)|doit être activée?)`)
)

// activationWords reads whether a new device has to be activated.
func activationWords(line string, add named) {
	if m := notActivated.FindStringSubmatchIndex(line); m != nil {
		add(m, "activation.needed", false, "needs no activating", "")
	} else if m := toActivate.FindStringSubmatchIndex(line); m != nil {
		add(m, "activation.needed", true, "a new one needs activating", "")
	}
}

// wired are the kinds with a plug or pads of their own.
var wired = []gear.Kind{gear.KindAirUnit, gear.KindReceiver, gear.KindPart}

// seriesName reads a wire connector by its series, pitch and number of pins: "SH 1.0 mm, 6 pin".
func (r *reader) seriesName(line string, add named) {
	m, pins := series.FindStringSubmatchIndex(line), pinCounts.FindStringSubmatch(line)
	if pins == nil {
		return
	}
	pitch := strings.ReplaceAll(group(line, m, 2), ",", ".")
	name := fmt.Sprintf("%s %s mm, %s pins", group(line, m, 1), pitch, pins[1])
	if id, known := r.connectors[strings.ToLower(name)]; known {
		add(m, "plug.connector", id, name, "")
	}
}

// plugName reads a coax plug by its name.
func (r *reader) plugName(line, field string, add named) {
	m := coaxNames.FindStringSubmatchIndex(line)
	if m == nil {
		return
	}
	name := group(line, m, 1)
	if id, known := r.connectors[strings.ToLower(name)]; known {
		add(m, field, id, name, "")
	} else {
		add(m, "", nil, name, "no connector of that name is on your shelf: the trade shelf has the usual ones")
	}
}

var inversion = regexp.MustCompile(`(?i)\b(not |non[- ]?|un|nicht |pas )?(?:inverted|invertiert|inversé)\b`)

var oneWire = regexp.MustCompile(`(?i)\bsbus\b`)

// receiverWords reads whether a receiver's signal is inverted, and what SBUS says of that:
// one wire, inverted (common practice; both are asked).
func receiverWords(line, lower string, add named) {
	said := inversion.FindStringSubmatchIndex(line)
	if said != nil {
		add(said, "inverted", group(line, said, 1) == "", line[said[0]:said[1]], "")
	}
	if m := found(oneWire, line, strings.Contains(lower, "sbus")); m != nil {
		add(m, "fullDuplex", false, "one signal wire", "SBUS comes on one wire as a rule: does yours?")
		if said == nil {
			add(m, "inverted", true, "inverted", "SBUS is inverted as a rule: is yours?")
		}
	}
}

// packWords reads the chemistry and the cells of a pack.
func packWords(line string, add named) {
	if m := chemistry.FindStringSubmatchIndex(line); m != nil {
		plain := strings.ReplaceAll(strings.ToLower(line[m[0]:m[1]]), "-", "")
		is := map[string]string{"lipo": "lipo", "lihv": "lihv", "liion": "liion"}[plain]
		if is == "" {
			is = "lifepo"
		}
		add(m, "chemistry", is, line[m[0]:m[1]], "")
	}
	if m := packNames.FindStringSubmatchIndex(line); m != nil {
		series, _ := strconv.ParseFloat(group(line, m, 1), 64)
		parallel, _ := strconv.ParseFloat(group(line, m, 2), 64)
		add(m, "cells", series, short(series)+" cells", "")
		add(m, "parallel", parallel, short(parallel)+" in parallel", "")
	}
}

// found is where something stands in a line, looked for where it can be at all.
func found(what *regexp.Regexp, line string, can bool) []int {
	if !can {
		return nil
	}
	return what.FindStringSubmatchIndex(line)
}

// handOf is the polarisation of the words for it: rhcp, lhcp or linear.
func handOf(words string) string { return strings.TrimSuffix(strings.ToLower(words), "ly") }
