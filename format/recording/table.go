package recording

import (
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"

	"yokeswap/core/facts/sheet"
)

var inBrackets = regexp.MustCompile(`^(.*?)\s*[\[(]([^\])]*)[\])]\s*$`)

// timeNames are what recorders call their clock.
var timeNames = []string{"time", "t", "zeit", "temps", "timestamp", "elapsed", "seconds", "ms", "uhrzeit", "clock"}

// readTable reads a table: a row of names, one column of which is the time, and rows of
// numbers below it.
func readTable(b *builder, text string) error {
	comma := sheet.Separator(text)
	r := csv.NewReader(strings.NewReader(text))
	r.Comma, r.FieldsPerRecord, r.LazyQuotes, r.TrimLeadingSpace = comma, -1, true, true
	head, err := r.Read()
	if errors.Is(err, io.EOF) {
		return &Wrong{Says: "it is empty"}
	}
	if err != nil {
		return &Wrong{1, err.Error()}
	}
	columns, clockAt, err := headings(head)
	if err != nil {
		return err
	}
	scale := 1.0
	if columns[clockAt].unit == "ms" || strings.EqualFold(columns[clockAt].name, "ms") {
		scale = 0.001
	}
	for {
		row, err := r.Read()
		if errors.Is(err, io.EOF) {
			return nil
		}
		line, _ := r.FieldPos(0)
		if err != nil {
			return &Wrong{line, "its fields cannot be told apart: " + err.Error()}
		}
		if len(row) <= clockAt || slices.IndexFunc(row, func(f string) bool { return strings.TrimSpace(f) != "" }) < 0 {
			continue
		}
		at, ok := timeOf(row[clockAt], comma)
		if !ok {
			return &Wrong{line, fmt.Sprintf("expected a time under %q, found %s", head[clockAt], quoted(row[clockAt]))}
		}
		var values []value
		for i, field := range row {
			if i == clockAt || i >= len(columns) || columns[i].name == "" {
				continue
			}
			if n, ok := numberOf(field, comma); ok {
				values = append(values, value{columns[i].name, columns[i].unit, n})
			}
		}
		if err := b.add(line, at*scale, values); err != nil {
			return err
		}
	}
}

// headings are the names and units of the columns, and which one is the time.
func headings(head []string) (columns []value, clockAt int, err error) {
	clockAt = -1
	numbers := 0
	for i, field := range head {
		c := value{name: strings.TrimSpace(field)}
		if m := inBrackets.FindStringSubmatch(c.name); m != nil {
			c.name, c.unit = m[1], m[2]
		}
		if _, isNumber := numberOf(c.name, ','); isNumber {
			numbers++
		}
		columns = append(columns, c)
		if clockAt < 0 && slices.Contains(timeNames, strings.ToLower(c.name)) {
			clockAt = i
		}
	}
	switch {
	case len(head) < 2:
		return nil, 0, &Wrong{1, "expected a row of names with commas, semicolons or tabs between, found " + quoted(head[0])}
	case numbers > len(head)/2:
		return nil, 0, &Wrong{1, "expected names in the first row, found numbers"}
	case clockAt < 0:
		return nil, 0, &Wrong{1, "no column is called a time: expected one of " + strings.Join(timeNames, ", ")}
	}
	return columns, clockAt, nil
}

func numberOf(field string, comma rune) (float64, bool) {
	field = strings.TrimSpace(field)
	if comma != ',' && strings.Count(field, ",") == 1 && !strings.Contains(field, ".") {
		field = strings.Replace(field, ",", ".", 1)
	}
	n, err := strconv.ParseFloat(field, 64)
	return n, err == nil && n == n && n < 1e300 && n > -1e300
}

// timeOf is a time in the unit of its column: a number, a clock, or a moment.
func timeOf(field string, comma rune) (float64, bool) {
	field = strings.TrimSpace(field)
	if n, ok := numberOf(field, comma); ok {
		return n, true
	}
	for _, form := range []string{time.RFC3339Nano, "2006-01-02 15:04:05.999", "15:04:05.999", "04:05.999"} {
		if at, err := time.Parse(form, strings.Replace(field, ",", ".", 1)); err == nil {
			if at.Year() > 0 {
				return float64(at.UnixMilli()) / 1000, true
			}
			return float64(at.Hour())*3600 + float64(at.Minute())*60 + float64(at.Second()) + float64(at.Nanosecond())/1e9, true
		}
	}
	return 0, false
}
