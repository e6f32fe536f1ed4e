package sheet

import (
	"cmp"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"
)

// quantity is one or two numbers with a unit.
type quantity struct {
	at, end int // in the line
	low     float64
	high    float64 // the same as low where there is one number
	unit    string  // V, A, W, mW, g, mm, MHz, mAh, S, dBi, °, µF, ms, %, AWG
	atMost  bool
	atLeast bool
	several []float64 // "25/200/600 mW"
	wasDBm  bool
}

// twoNumbers says whether it is a range.
func (q *quantity) twoNumbers() bool { return q.low != q.high }

const (
	number = `\d+(?:[.,]\d+)?`
	units  = `Wh|VDC|volts?|Volts?|V|v|mAh|mA|Ah|A|amps?|mW|milliwatts?|W|[Ww]atts?|dBm|dBi|` +
		`grams?|Gramm|grammes?|g|G|mm|cm|GHz|MHz|[µu]F|S|cells?|Zellen|°|deg(?:rees)?|ms|%|AWG`
	to    = `\s*(?:-|–|—|~|\.{2,3}|…|to\b|bis\b|à|and\b)\s*`
	signs = `[<≤]=?|[>≥]=?|max(?:\.|imum|imal)?|min(?:\.|imum|imal)?|` +
		`up to|bis zu|jusqu['’]à|at least|at most|mindestens|höchstens|from|ab`
)

var (
	quantities = regexp.MustCompile(
		`\b(` + number + `)\s*((?:` + units + `)\b|°|%)?(?:` + to + `(` + number + `))?\s*((?:` + units +
			`)\b|°|%)(\s*(?i:max\.?|min\.?|maximum|minimum)\b)?(?:\s*(?:±|\+/-)\s*` + number + `\s*(?:g|mm|V|%)?)?`,
	)
	signBefore = regexp.MustCompile(`(?i:(?:^|[^a-z])(` + signs + `)[\s:]*)$`)
	bracketed  = regexp.MustCompile(
		`[\(\[](` + units + `)[\)\]]\s*[:=|\t,]?\s*(` + number + `)(?:` + to + `(` + number + `))?`,
	)
	wholes = regexp.MustCompile(`\d+`)
	rows   = regexp.MustCompile(`\b(\d+(?:\s*[/,|]\s*\d+){1,8})\s*(mW)\b`)
)

// mostSign is how far before a number its sign can stand, in bytes.
const mostSign = 16

// stepsIn are powers in a row: "25/200/600 mW".
func stepsIn(line string) (list []quantity) {
	if !strings.Contains(line, "mW") { // a plain search first: most lines have none
		return nil
	}
	for _, m := range rows.FindAllStringSubmatchIndex(line, -1) {
		q := quantity{at: m[0], end: m[1], unit: "mW"}
		for _, part := range wholes.FindAllString(line[m[2]:m[3]], -1) {
			value, _ := strconv.ParseFloat(part, 64)
			q.several = append(q.several, value)
			q.high = math.Max(q.high, value)
		}
		q.low = q.high
		list = append(list, q)
	}
	return list
}

// quantitiesIn are the quantities of a line in their order.
func quantitiesIn(line string) (list []quantity) {
	taken := func(at, end int) bool {
		for _, q := range list {
			if at < q.end && end > q.at {
				return true
			}
		}
		return false
	}
	list = append(list, stepsIn(line)...)
	for _, m := range every(bracketed, line, strings.ContainsAny(line, "([")) {
		q, ok := made(m[0], m[1], group(line, m, 2), group(line, m, 3), "", group(line, m, 1), "")
		if ok && !taken(m[0], m[1]) {
			list = append(list, q)
		}
	}
	for _, m := range quantities.FindAllStringSubmatchIndex(line, -1) {
		if taken(m[0], m[1]) {
			continue
		}
		sign, at := group(line, m, 5), m[0]
		window := max(0, at-mostSign)
		if s := signBefore.FindStringSubmatchIndex(line[window:at]); s != nil {
			sign, at = line[window+s[2]:window+s[3]], window+s[2]
		}
		first, second, firstUnit := group(line, m, 1), group(line, m, 3), group(line, m, 2)
		if second != "" && !fromTo(line, m) { // "5 V and 9 V" are two; of "5 and 9 V" the last has its unit
			if q, ok := made(at, m[5], first, "", "", firstUnit, sign); ok && firstUnit != "" {
				list = append(list, q)
			}
			at, first, second, firstUnit, sign = m[6], second, "", "", ""
		}
		q, ok := made(at, m[1], first, second, firstUnit, group(line, m, 4), sign)
		if ok {
			list = append(list, q)
		}
	}
	slices.SortStableFunc(list, func(a, b quantity) int { return cmp.Compare(a.at, b.at) })
	return list
}

// every is where something stands in a line, looked for where it can be at all.
func every(it *regexp.Regexp, line string, can bool) [][]int {
	if !can {
		return nil
	}
	return it.FindAllStringSubmatchIndex(line, -1)
}

var between = regexp.MustCompile(`(?i)\b(?:between|zwischen|entre)\W*$`)

// fromTo says whether the two numbers of a match are the ends of a range: those with an "and"
// between them are behind a "between" alone, those of two kinds are none: "1.8 dBi à 5.8 GHz".
func fromTo(line string, m []int) bool {
	_, firstUnit := plainUnit(group(line, m, 2))
	_, unit := plainUnit(group(line, m, 4))
	if firstUnit != "" && firstUnit != unit {
		return false
	}
	return !strings.Contains(line[m[3]:m[6]], "and") || between.MatchString(line[:m[0]])
}

func group(line string, m []int, n int) string {
	if m[2*n] < 0 {
		return ""
	}
	return line[m[2*n]:m[2*n+1]]
}

// made is the quantity in the program's own unit; false where its two units differ.
func made(at, end int, first, second, firstUnit, unit, sign string) (quantity, bool) {
	q := quantity{at: at, end: end}
	scale, plain := plainUnit(unit)
	firstScale := scale
	if firstUnit != "" {
		other := ""
		if firstScale, other = plainUnit(firstUnit); other != plain {
			return q, false
		}
	}
	q.unit = plain
	low, ok := parse(first, unit)
	if !ok {
		return q, false
	}
	q.low = low * firstScale
	q.high = q.low
	if second != "" {
		high, ok := parse(second, unit)
		if !ok {
			return q, false
		}
		q.high = high * scale
	}
	if unit == "dBm" {
		q.low, q.high, q.wasDBm, q.unit = milliwatts(q.low), milliwatts(q.high), true, "mW"
	}
	sign = strings.ToLower(strings.TrimSpace(sign))
	switch {
	case sign == "":
	case strings.ContainsAny(sign, "<≤"), strings.HasPrefix(sign, "max"), sign == "up to", sign == "bis zu",
		strings.HasPrefix(sign, "jusqu"), sign == "at most", sign == "höchstens":
		q.atMost = true
	default:
		q.atLeast = true
	}
	return q, true
}

// milliwatts of a power in dBm.
func milliwatts(dBm float64) float64 { return math.Round(math.Pow(10, dBm/10)*10) / 10 }

// parse reads a number with a decimal point or comma; three digits behind a comma are
// thousands where the unit has large numbers.
func parse(text, unit string) (float64, bool) {
	if whole, part, comma := strings.Cut(text, ","); comma {
		if len(part) == 3 && (unit == "mAh" || unit == "mW" || unit == "MHz") {
			text = whole + part
		} else {
			text = whole + "." + part
		}
	}
	value, err := strconv.ParseFloat(text, 64)
	return value, err == nil && value < 1e7
}

// plainUnit is the program's own unit for a written one, and how many of it that is.
func plainUnit(unit string) (scale float64, plain string) {
	switch lower := strings.ToLower(unit); {
	case lower == "v" || lower == "vdc" || strings.HasPrefix(lower, "volt"):
		return 1, "V"
	case unit == "mAh":
		return 1, "mAh"
	case unit == "Ah":
		return 1000, "mAh"
	case unit == "mA":
		return 0.001, "A"
	case unit == "A" || strings.HasPrefix(lower, "amp"):
		return 1, "A"
	case unit == "mW" || strings.HasPrefix(lower, "milliwatt"):
		return 1, "mW"
	case unit == "W" || strings.HasPrefix(lower, "watt"):
		return 1, "W"
	case unit == "GHz":
		return 1000, "MHz"
	case unit == "cm":
		return 10, "mm"
	case strings.HasPrefix(lower, "gram") || unit == "g":
		return 1, "g"
	case lower == "s" || strings.HasPrefix(lower, "cell") || lower == "zellen":
		return 1, "S"
	case unit == "uF" || unit == "µF":
		return 1, "µF"
	case strings.HasPrefix(lower, "deg") || unit == "°":
		return 1, "°"
	}
	return 1, unit
}
