package recording

import (
	"regexp"
	"strconv"
	"strings"
)

var (
	timing = regexp.MustCompile(`^\s*(\d+):(\d{1,2}):(\d{1,2})(?:[,.](\d{1,3}))?\s*-->`)
	tags   = regexp.MustCompile(`<[^>]*>|\{[^}]*\}`)
	// A number with what stands right behind it as its unit; a clock such as 03:20 is one number.
	number = regexp.MustCompile(`(\d+):(\d\d)(?::(\d\d))?|[-+]?\d+(?:[.,]\d+)?`)
	unit   = regexp.MustCompile(`^ ?(?i:(mbit/s|mbps|mb/s|kbit/s|kbps|dbm|db|mhz|ghz|km/h|m/s|mah|mw|mv|ms|km|°c|°|%|` +
		`v|a|m|s|w))(?:$|[^\p{L}\d/])`)
)

// readSubtitles reads SubRip: of each block its begin and the numbers of its lines.
func readSubtitles(b *builder, text string) error {
	lines := strings.Split(text, "\n")
	for i := 0; i < len(lines); i++ {
		m := timing.FindStringSubmatch(lines[i])
		if m == nil {
			if strings.Contains(lines[i], "-->") {
				return &Wrong{i + 1, "expected a time such as 00:00:01,000 --> 00:00:02,000, found " + quoted(lines[i])}
			}
			continue
		}
		at := i + 1
		var values []value
		for i+1 < len(lines) && strings.TrimSpace(lines[i+1]) != "" && !strings.Contains(lines[i+1], "-->") {
			i++
			if loneNumber(lines, i) {
				i--
				break // the number of the next block, where the empty line is missing
			}
			values = append(values, valuesIn(lines[i])...)
		}
		if len(values) > 0 {
			if err := b.add(at, seconds(m[1], m[2], m[3], m[4]), values); err != nil {
				return err
			}
		}
		if i+1 < len(lines) && loneNumber(lines, i+1) {
			i++
		}
	}
	return nil
}

// loneNumber says whether a line is the number of a block: digits alone, and a time below.
func loneNumber(lines []string, i int) bool {
	_, err := strconv.Atoi(strings.TrimSpace(lines[i]))
	return err == nil && i+1 < len(lines) && strings.Contains(lines[i+1], "-->")
}

func quoted(line string) string {
	line = strings.TrimSpace(line)
	if len(line) > 60 {
		line = line[:60] + "…"
	}
	return strconv.Quote(line)
}

func seconds(h, m, s, fraction string) float64 {
	total := whole(h)*3600 + whole(m)*60 + whole(s)
	if fraction != "" {
		part, _ := strconv.ParseFloat("0."+fraction, 64)
		total += part
	}
	return total
}

func whole(text string) float64 {
	n, _ := strconv.ParseFloat(text, 64) // digits, as the pattern has it
	return n
}

// valuesIn are the numbers of a line, each under the words before it.
func valuesIn(line string) (list []value) {
	line = tags.ReplaceAllString(line, " ")
	from := 0
	for _, m := range number.FindAllStringSubmatchIndex(line, -1) {
		if m[0] < from || m[0] > 0 && isLetter(line[m[0]-1]) && !isUnitEnd(line, from, m[0]) {
			continue // part of a word, as in 5G8
		}
		name := strings.Trim(strings.TrimSpace(line[from:m[0]]), " :=|;,.[]()-–\t")
		v := value{name: name}
		end := m[1]
		if m[2] >= 0 {
			v.number, v.unit = clockOf(line, m), "s"
		} else {
			v.number, _ = strconv.ParseFloat(strings.Replace(line[m[0]:m[1]], ",", ".", 1), 64)
			if u := unit.FindStringSubmatchIndex(line[end:]); u != nil {
				v.unit = line[end+u[2] : end+u[3]]
				end += u[3]
			}
		}
		from = end
		if v.name == "" {
			v.name = v.unit
		}
		if v.name != "" {
			list = append(list, v)
		}
	}
	return list
}

// clockOf is minutes and seconds, or hours, minutes and seconds, in seconds.
func clockOf(line string, m []int) float64 {
	a, b := whole(line[m[2]:m[3]]), whole(line[m[4]:m[5]])
	if m[6] < 0 {
		return a*60 + b
	}
	return a*3600 + b*60 + whole(line[m[6]:m[7]])
}

func isLetter(c byte) bool { return c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' }

// isUnitEnd says whether the letters before a number are all a name can be: "BR24".
func isUnitEnd(line string, from, at int) bool {
	return strings.TrimSpace(line[from:at]) != "" && !strings.ContainsAny(line[from:at], "0123456789")
}
