package sheet

import (
	"cmp"
	"fmt"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"yokeswap/core/facts/gear"
)

// about says what words a line is about, in the languages read.
type about []string

// The words of a subject. A word ends where a letter does not follow; "eingang*" goes on, and
// "in$" counts as the last word alone: "it inverts in software, 5 V" is about no input.
var (
	supplyWords = about{"input*", "supply*", "power supply", "voltage", "working voltage", "operating*", "powered",
		"feed", "vin", "in$", "takes",
		"eingang*", "spannung*", "versorgung*", "betriebs*", "tension*", "alimentation", "entrée"}
	absoluteWords = about{"absolute*", "abs", "never", "absolut*", "absolue*"}
	momentWords   = about{"surge*", "spike*", "transient*"}
	outputWords   = about{"output", "out", "outputs", "bec", "regulated",
		"ausgang*", "ausgänge", "sortie*", "provides", "gives", "delivers"}
	sendWords = about{"transmit*", "transmission power", "tx power", "rf power", "output power", "transmitter*", "eirp",
		"rf output",
		"sendeleistung", "puissance d'émission", "puissance"}
	drawWords    = about{"consumption", "power draw", "draws", "draw", "leistungsaufnahme", "verbrauch", "consommation"}
	massWords    = about{"weight", "weighs", "mass", "gewicht*", "wiegt", "poids", "masse"}
	holeWords    = about{"mount*", "hole*", "pattern*", "montage*", "loch*", "bohr*", "perçage", "fixation", "trous"}
	cameraWords  = about{"camera*", "kamera*", "caméra", "lens"}
	widthWords   = about{"width", "wide", "breite", "breit", "largeur"}
	cableWords   = about{"cable*", "coax*", "lead*", "kabel*", "câble", "ribbon"}
	currentWords = about{"current", "rating", "strom", "courant"}
	ratingWords  = about{"max*", "output", "rated", "rating", "continuous", "maximal*"}
	idleWords    = about{"quiescent", "idle", "standby", "no-load", "input", "ruhe*", "leerlauf*", "repos"}
	stackWords   = about{"stack*", "tower*"}
	barrelWords  = about{"barrel*", "hülse*", "douille*"}
	ceramicWords = about{"ceramic*", "capacit*", "keramik*", "céramique"}
	withWords    = about{"with", "without", "incl*", "excl*", "mit", "ohne", "inkl*", "avec", "sans"}
	pitchWords   = about{"pitch", "raster", "pas"}
	beamWords    = about{"beam*", "beamwidth", "angle", "öffnungswinkel", "fov", "ouverture"}
	efficiency   = about{"efficiency", "efficient", "wirkungsgrad", "rendement"}
	latencyWords = about{"latency", "latenz", "delay", "latence"}
	signalWords  = about{"uart*", "logic*", "signal*", "serial", "level", "pegel", "niveau", "rx", "tx", "sbus"}
)

func (a about) in(words string) bool {
	for _, w := range a {
		stem, open := strings.CutSuffix(w, "*")
		stem, last := strings.CutSuffix(stem, "$")
		for at := 0; ; {
			i := strings.Index(words[at:], stem)
			if i < 0 {
				break
			}
			i += at
			end := i + len(stem)
			if (i == 0 || !letter(words[i-1])) && (open || end == len(words) || !letter(words[end])) &&
				(!last || strings.Trim(words[end:], " :=|\t([") == "") {
				return true
			}
			at = end
		}
	}
	return false
}

func letter(b byte) bool { return b >= 'a' && b <= 'z' || b >= 0x80 }

// context is the words around a quantity.
type context struct{ before, after string }

// says that a subject is named before the quantity, else after it.
func (c context) says(a about) bool { return a.in(c.before) || a.in(c.after) }

var products = regexp.MustCompile(
	`\b(\d+(?:[.,]\d+)?)\s*(?:mm)?\s*[x×*]\s*(\d+(?:[.,]\d+)?)(?:\s*(?:mm)?\s*[x×*]\s*(\d+(?:[.,]\d+)?))?\s*(mm|cm)?`,
)

// line reads one line of the text, which begins at a byte of it.
func (r *reader) line(line string, start int) {
	if !strings.ContainsAny(line, "0123456789") {
		r.names(line, start)
		return
	}
	plain := []byte(line)
	for _, m := range every(products, line, strings.ContainsAny(line, "x×*")) {
		if r.product(line, m, start) {
			blank(plain, m[0], m[1])
		}
	}
	r.names(line, start)
	if slices.Contains(wired, r.kind) {
		blankPins(line, plain)
	}
	list := quantitiesIn(string(plain))
	for i := range list {
		q := &list[i]
		from, end := 0, len(line)
		if i > 0 {
			from = list[i-1].end
		}
		if i+1 < len(list) {
			end = list[i+1].at
		}
		c := context{strings.ToLower(line[from:q.at]), strings.ToLower(line[q.end:end])}
		c.after = upTo(c.after)
		if i > 0 && !strings.ContainsAny(c.before, ":=|\t") && len(strings.Fields(c.before)) < 2 {
			c.before = strings.ToLower(line[:q.at]) // "Output: 9 V / 2 A": both are of the output
		}
		r.quantity(line, start, q, c, list[i+1:])
	}
}

var clauses = regexp.MustCompile(`[,;.|\t\n]| (?:and|und|et) `)

// upTo is what follows a quantity and may still be about it: to the next mark, or the next "and".
func upTo(after string) string {
	if cut := clauses.FindStringIndex(after); cut != nil {
		return after[:cut[0]]
	}
	return after
}

// product reads "25.5 x 25.5 mm": holes where the words say so; a size otherwise, which has
// no field.
func (r *reader) product(line string, m []int, start int) bool {
	lower := strings.ToLower(line)
	mm := group(line, m, 4) != ""
	if !mm && r.grid(line, lower, m, start) {
		return true
	}
	if !mm && !holeWords.in(lower) {
		return false // "2 x antennas", "M2x6"
	}
	field := map[gear.Kind]string{
		gear.KindAirUnit: "mount.patterns",
		gear.KindBoard:   "patterns",
		gear.KindFrame:   "bays",
	}[r.kind]
	if field == "" || group(line, m, 3) != "" {
		return true
	}
	scale := 1.0
	if group(line, m, 4) == "cm" {
		scale = 10
	}
	x, okX := parse(group(line, m, 1), "mm")
	y, okY := parse(group(line, m, 2), "mm")
	if !okX || !okY || x <= 0 || y <= 0 {
		return true
	}
	holes := map[string]any{"xMM": x * scale, "yMM": y * scale}
	if s := screwOf(line, m[1]); s != "" {
		holes["screw"] = s
	}
	size := short(x*scale) + " × " + short(y*scale)
	f := Found{
		Words: line[m[0]:m[1]],
		At:    start + m[0],
		Field: field,
		Value: []any{holes},
		Shows: "holes " + size + " mm" + withScrew(holes),
	}
	if r.kind == gear.KindFrame {
		f.inFrame(clauseOf(lower, m[0]), size)
	}
	if !holeWords.in(lower) {
		f.Ask, f.Note = true, "the words do not say whether these are its holes or its size"
	}
	r.add(f)
	return true
}

// clauseOf is what stands before a place of a line, from the last mark or "and" on.
func clauseOf(line string, at int) string {
	from := 0
	for _, cut := range clauses.FindAllStringIndex(line[:at], -1) {
		from = cut[1]
	}
	return line[from:at]
}

// inFrame says which holes of a frame they are: those of the stack, or of a place of their own.
func (f *Found) inFrame(line, size string) {
	if stackWords.in(line) {
		f.Field = "stackPatterns"
		return
	}
	id := "at-" + strings.NewReplacer(" × ", "x", ".", "-").Replace(size)
	f.Value = []any{map[string]any{"id": id, "name": "place with " + size, "patterns": f.Value}}
	f.Shows = "a place with " + f.Shows
}

var gridWords = about{
	"canvas", "grid", "osd*", "character*", "columns", "zeichen*", "raster*", "grille*", "caractère*",
}

// grid reads the columns and rows of a canvas: "OSD canvas 53 x 20".
func (r *reader) grid(line, lower string, m []int, start int) bool {
	columns, rows := group(line, m, 1), group(line, m, 2)
	whole := strings.Trim(columns+rows, "0123456789") == "" && len(rows) == 2 && (len(columns) == 2 || len(columns) == 3)
	if r.kind != gear.KindAirUnit || !whole || group(line, m, 3) != "" || !gridWords.in(lower) {
		return false
	}
	r.add(Found{
		Words: line[m[0]:m[1]],
		At:    start + m[0],
		Field: "osd.grid",
		Value: columns + "x" + rows,
		Shows: "a canvas of " + columns + " × " + rows,
	})
	return true
}

var screwSizes = regexp.MustCompile(`\bM(?:1\.6|2\.5|2|3)\b`)

// screwOf is the screw of the holes that end at a byte of the line: the one named behind
// them, before any other holes; else the only one of the line.
func screwOf(line string, end int) string {
	behind := screwSizes.FindString(line[end:])
	between, _, _ := strings.Cut(line[end:], behind)
	if all := screwSizes.FindAllString(line, 2); len(all) == 1 || behind != "" && !products.MatchString(between) {
		return cmp.Or(behind, all[0])
	}
	return ""
}

func withScrew(holes map[string]any) string {
	if s, ok := holes["screw"].(string); ok {
		return ", " + s
	}
	return ""
}

func short(x float64) string { return strconv.FormatFloat(x, 'f', -1, 64) }

// quantity gives one quantity to the field its words name.
func (r *reader) quantity(line string, start int, q *quantity, c context, next []quantity) {
	found := func(field string, value any, shows string) Found {
		return Found{Words: line[q.at:q.end], At: start + q.at, Field: field, Value: value, Shows: shows}
	}
	if q.low > q.high {
		f := found("", nil, "")
		f.Ask, f.Note = true, "the range is upside down"
		r.add(f)
		return
	}
	switch q.unit {
	case "V":
		r.volts(found, q, c, next)
	case "S":
		r.cells(found, q, c)
	case "mW":
		r.power(found, q, c)
	case "W":
		r.watts(found, q, c)
	case "MHz":
		r.frequency(found, q)
	case "g":
		r.mass(found, q, c)
	case "G": // in capitals it may be anything
		if c.says(massWords) {
			r.mass(found, q, c)
		}
	case "mm":
		r.length(found, q, c)
	default:
		r.oneValue(found, q, c)
	}
}

// oneValue gives quantities to fields that hold one number of that unit.
func (r *reader) oneValue(found finding, q *quantity, c context) {
	switch q.unit {
	case "mAh":
		if r.kind == gear.KindPack {
			r.add(found("capacityMAH", q.low, short(q.low)+" mAh"))
		}
	case "Wh":
		if r.kind == gear.KindGoggles && !q.twoNumbers() {
			r.add(found("batteryWh", q.low, short(q.low)+" Wh"))
		}
	case "µF":
		if r.kind == gear.KindCapacitor && !q.twoNumbers() {
			r.add(found("uf", q.low, short(q.low)+" µF"))
		} else if r.takes("input.ceramicUF") && c.says(ceramicWords) {
			r.add(found("input.ceramicUF", q.low, short(q.low)+" µF"))
		}
	case "A":
		if r.kind == gear.KindRegulator && c.says(currentWords) && !q.twoNumbers() {
			f := found("maxA", q.low, short(q.low)+" A out")
			if !c.says(ratingWords) || c.says(idleWords) {
				f.Ask, f.Note = true, "is this the current it may give?"
			}
			r.add(f)
		}
	case "dBi":
		r.gain(found, q)
	case "°":
		if r.kind == gear.KindAntenna && c.says(beamWords) {
			r.add(found("beamDeg", q.low, short(q.low)+"°"))
		}
	case "%":
		if r.kind == gear.KindRegulator && c.says(efficiency) && !q.twoNumbers() {
			r.add(found("efficiency", math.Round(q.low*10)/1000, short(q.low)+" %"))
		}
	case "ms":
		if r.kind == gear.KindReceiver && c.says(latencyWords) && !q.twoNumbers() {
			r.add(found("latencyMS", q.low, short(q.low)+" ms"))
		}
	}
}

type finding func(field string, value any, shows string) Found

// fed are the kinds that have an input window.
var fed = []gear.Kind{
	gear.KindAirUnit, gear.KindGoggles, gear.KindReceiver, gear.KindBoard, gear.KindPart, gear.KindRegulator,
}

// takes says whether the kind has a field.
func (r *reader) takes(field string) bool {
	if strings.HasPrefix(field, "input.") {
		return slices.Contains(fed, r.kind)
	}
	return true
}

func (r *reader) volts(found finding, q *quantity, c context, next []quantity) {
	out := outputWords.in(c.before) || !supplyWords.in(c.before) && outputWords.in(c.after)
	switch {
	case r.kind == gear.KindCapacitor:
		if !q.twoNumbers() && !c.says(momentWords) {
			r.add(found("ratedV", q.low, "rated for "+short(q.low)+" V"))
		}
	case out && r.kind == gear.KindRegulator && !q.twoNumbers():
		r.add(found("outV", q.low, short(q.low)+" V out"))
		r.rating(found, next)
	case out && r.kind == gear.KindBoard && !q.twoNumbers():
		pad := map[string]any{"id": strings.ReplaceAll(short(q.low), ".", "v") + "v", "name": short(q.low) + " V pad",
			"kind": "regulated", "outV": q.low}
		shows := short(q.low) + " V pad"
		if len(next) > 0 && next[0].unit == "A" {
			pad["maxA"] = next[0].low
			shows += ", " + short(next[0].low) + " A"
		}
		f := found("pads", []any{pad}, shows)
		f.Ask, f.Note = true, "hold it against the drawing: which pad it is"
		r.add(f)
	case out, signalWords.in(c.before) && !supplyWords.in(c.before): // what a signal swings to is no supply
	case !r.takes("input.maxV"):
	default:
		r.window(found, q, c)
	}
}

// rating is the current named right behind an output's voltage.
func (r *reader) rating(found finding, next []quantity) {
	if len(next) > 0 && next[0].unit == "A" && !next[0].twoNumbers() {
		f := found("maxA", next[0].low, short(next[0].low)+" A out")
		r.add(f)
	}
}

// window fills the ends of the input window.
func (r *reader) window(found finding, q *quantity, c context) {
	add := func(field string, value float64, shows string) {
		f := found(field, value, shows)
		if !c.says(supplyWords) {
			f.Ask, f.Note = true, "the words do not say what this voltage is"
		}
		r.add(f)
	}
	switch {
	case (c.says(absoluteWords) || c.says(momentWords)) && !q.twoNumbers():
		f := found("input.absoluteMaxV", q.low, "never more than "+short(q.low)+" V")
		if !c.says(absoluteWords) {
			f.Ask, f.Note = true, "is this what it survives, or what is kept off it?"
		}
		r.add(f)
	case q.twoNumbers():
		add("input.minV", q.low, "from "+short(q.low)+" V")
		add("input.maxV", q.high, "up to "+short(q.high)+" V")
	case q.atMost:
		add("input.maxV", q.low, "up to "+short(q.low)+" V")
	case q.atLeast:
		add("input.minV", q.low, "from "+short(q.low)+" V")
	default:
		f := found("input.maxV", q.low, short(q.low)+" V")
		f.Ask, f.Note = true, "one voltage alone is no window: is it the highest?"
		r.add(f)
	}
}

// cells reads a number of cells: of a pack, or of a window, which is asked.
func (r *reader) cells(found finding, q *quantity, _ context) {
	if q.low != math.Trunc(q.low) || q.low < 1 || q.high > 14 {
		return
	}
	switch {
	case r.kind == gear.KindPack && !q.twoNumbers():
		r.add(found("cells", q.low, short(q.low)+" cells"))
	case r.takes("input.maxV") && r.kind != gear.KindPack:
		note := "a window in cells: taken as lithium polymer, 4.2 V a cell full and 3.5 V when it is landed"
		full, landed := math.Round(q.high*42)/10, q.low*3.5
		high := found("input.maxV", full, fmt.Sprintf("up to %s V (%s cells full)", short(full), short(q.high)))
		high.Ask, high.Note = true, note
		r.add(high)
		if q.twoNumbers() {
			low := found("input.minV", landed, fmt.Sprintf("from %s V (%s cells landed)", short(landed), short(q.low)))
			low.Ask, low.Note = true, note
			r.add(low)
		}
	}
}

func (r *reader) watts(found finding, q *quantity, c context) {
	switch {
	case r.kind == gear.KindAirUnit && c.says(sendWords) && !c.says(drawWords):
		r.add(found("radio.maxMW", q.high*1000, short(q.high*1000)+" mW at most"))
	case !r.takes("input.peakW"):
	case c.says(about{"max*", "peak", "maximal*"}) || q.atMost:
		r.add(found("input.peakW", q.high, short(q.high)+" W at most"))
	case c.says(drawWords) || c.says(about{"typ", "typical", "average", "avg", "typisch*", "typique", "mittlere*"}):
		r.add(found("input.typicalW", q.low, short(q.low)+" W"))
		if q.twoNumbers() {
			r.add(found("input.peakW", q.high, short(q.high)+" W at most"))
		}
	}
}

func (r *reader) mass(found finding, q *quantity, c context) {
	switch r.kind {
	case gear.KindAirUnit, gear.KindReceiver, gear.KindBoard, gear.KindPart, gear.KindRegulator, gear.KindPack,
		gear.KindAntenna, gear.KindHeader, gear.KindPlate, gear.KindGoggles, gear.KindController, gear.KindFrame,
		gear.KindStandoff, gear.KindCapacitor, gear.KindBracket, gear.KindReadyQuad:
	default:
		return
	}
	if (about{"acceler*", "beschleunigung*"}).in(c.before) {
		return
	}
	f := found("massG", q.low, short(q.low)+" g")
	switch {
	case q.twoNumbers():
		f.Ask, f.Note = true, "a range: which is yours?"
	case c.says(withWords):
		f.Ask, f.Note = true, "what does this mass include?"
	case !c.says(massWords) && q.low > 1000:
		f.Ask, f.Note = true, "the words do not say that this is its mass"
	}
	r.add(f)
}

func (r *reader) length(found finding, q *quantity, c context) {
	if q.twoNumbers() {
		return
	}
	switch {
	case r.kind == gear.KindAirUnit && c.says(cameraWords) && c.says(widthWords):
		r.add(found("camera.widthMM", q.low, short(q.low)+" mm wide"))
	case r.kind == gear.KindAirUnit && c.says(cameraWords) && c.says(cableWords):
		r.add(found("camera.cableMM", q.low, short(q.low)+" mm"))
	case r.kind == gear.KindFrame && c.says(cameraWords) && c.says(widthWords):
		r.add(found("cageMM", q.low, short(q.low)+" mm between the camera plates"))
	case r.kind == gear.KindAntenna && c.says(barrelWords):
		r.add(found("barrelMM", q.low, "a barrel of "+short(q.low)+" mm"))
	case r.kind == gear.KindAntenna && c.says(cableWords):
		r.add(found("leadMM", q.low, "a lead of "+short(q.low)+" mm"))
	case r.kind == gear.KindConnector && c.says(pitchWords):
		r.add(found("pitchMM", q.low, short(q.low)+" mm"))
	}
}
