package sheet

import (
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"yokeswap/core/facts/gear"
)

// pinNames are what is printed at the pins of an air unit, as sheets call them.
var pinNames = map[string]string{
	"vcc": gear.PinSupply, "vin": gear.PinSupply, "v+": gear.PinSupply, "bat": gear.PinSupply, "batt": gear.PinSupply,
	"vbat": gear.PinSupply, "power": gear.PinSupply, "+": gear.PinSupply, "supply": gear.PinSupply,
	"3v3": gear.PinSupply, "5v": gear.PinSupply, "9v": gear.PinSupply, "10v": gear.PinSupply, "12v": gear.PinSupply,
	"gnd": gear.PinGround, "ground": gear.PinGround, "g": gear.PinGround, "-": gear.PinGround, "masse": gear.PinGround,
	"rx": gear.PinUARTRX, "uart_rx": gear.PinUARTRX, "uart-rx": gear.PinUARTRX, "rxd": gear.PinUARTRX,
	"tx": gear.PinUARTTX, "uart_tx": gear.PinUARTTX, "uart-tx": gear.PinUARTTX, "txd": gear.PinUARTTX,
	"sbus": gear.PinRCOut, "rc": gear.PinRCOut,
	"rc-out": gear.PinRCOut, "rc_out": gear.PinRCOut, "rcout": gear.PinRCOut,
}

var numbered = regexp.MustCompile(`(?i)\b(?:pin\s*)?([1-9]|1[0-2])(\s*[:.)=|\t-]\s*)([A-Za-z0-9+_-]+)`)

// numberedIn are the numbers with a name behind in a text; of "3.5V" and "3-5V" none: that is a
// voltage.
func numberedIn(text string) (list [][]int) {
	start := 0
	for line := range strings.Lines(text) {
		for _, m := range numbered.FindAllStringSubmatchIndex(line, -1) {
			between := group(line, m, 2)
			if digit(line[m[6]]) && (between == "-" || between == ".") {
				continue
			}
			for i := range m {
				m[i] += start
			}
			list = append(list, m)
		}
		start += len(line)
	}
	return list
}

func digit(b byte) bool { return b >= '0' && b <= '9' }

// pinRows reads the order of pins, on one line or one pin a line. It is always asked: it
// counts once it has been held against the drawing.
func (r *reader) pinRows() {
	if !slices.Contains(wired, r.kind) {
		return
	}
	pins := map[int]string{}
	first, end, twice := -1, 0, ""
	for _, m := range numberedIn(r.text) {
		function, ok := r.pin(group(r.text, m, 3))
		if !ok {
			continue
		}
		n, _ := strconv.Atoi(group(r.text, m, 1))
		if was, there := pins[n]; there && was != function {
			twice = strconv.Itoa(n)
		}
		pins[n] = function
		if first < 0 {
			first = m[0]
		}
		end = m[1]
	}
	if len(pins) < 2 {
		r.pinList()
		return
	}
	most := 0
	for n := range pins {
		most = max(most, n)
	}
	if most > len(pins)+2 {
		return // numbers of something else
	}
	order := make([]any, most)
	for i := range order {
		order[i] = pins[i+1]
	}
	r.secondGround(order)
	note := AgainstDrawing
	for i := range order {
		if order[i] == "" {
			note = fmt.Sprintf("what pin %d is was not understood, and it is left empty; ", i+1) + note
		}
	}
	if twice != "" {
		note = "pin " + twice + " is named twice; " + note
	}
	r.addPins(first, end, order, note)
}

// pin is what a pin of that name does, on things of the kind that is read. The signal pin of
// a receiver is its own output: it talks to the board.
func (r *reader) pin(name string) (function string, ok bool) {
	function, ok = pinNames[strings.ToLower(name)]
	if function == gear.PinRCOut && r.kind != gear.KindAirUnit {
		function = gear.PinUARTTX
	}
	return function, ok
}

// blankPins takes out of a line what stands at its pins: "2: 5V" is a name, no window.
func blankPins(line string, plain []byte) {
	for _, m := range numberedIn(line) {
		if _, ok := pinNames[strings.ToLower(group(line, m, 3))]; ok {
			blank(plain, m[0], m[1])
		}
	}
	for _, m := range every(pinLine, line, namesPins(line)) {
		blank(plain, m[2], m[3])
	}
}

// AgainstDrawing is why an order of pins is always asked.
const AgainstDrawing = "hold the order against the drawing of your own before it counts: a wrong pin destroys the unit"

func (r *reader) addPins(at, end int, order []any, note string) {
	r.add(Found{
		Words: r.text[at:end],
		At:    at,
		Field: "plug.pins",
		Value: order,
		Shows: shown(order),
		Ask:   true,
		Note:  note,
	})
}

var pinLine = regexp.MustCompile(
	`(?i)\b(?:pin ?out|pins|pinbelegung|belegung|brochage)\s*[:=]?\s*` +
		`([A-Za-z0-9+_-]+(?:\s*[,/|>\s]\s*[A-Za-z0-9+_-]+){2,11})`,
)

// namesPins says whether a line of pins can be in a text at all.
func namesPins(text string) bool {
	lower := strings.ToLower(text)
	return strings.Contains(lower, "pin") || strings.Contains(lower, "belegung") || strings.Contains(lower, "brochage")
}

var pinWords = regexp.MustCompile(`[A-Za-z0-9+_-]+`)

// pinList reads "Pinout: VCC, GND, RX, TX".
func (r *reader) pinList() {
	for _, m := range every(pinLine, r.text, namesPins(r.text)) {
		var order []any
		for _, word := range pinWords.FindAllString(group(r.text, m, 1), -1) {
			function, ok := r.pin(word)
			if !ok {
				break
			}
			order = append(order, function)
		}
		r.secondGround(order)
		if len(order) >= 3 {
			r.addPins(m[0], m[1], order, AgainstDrawing)
		}
	}
}

// secondGround says of a second ground that it belongs to the sticks' pair, as a function
// has one pin (common practice; it is asked with the rest).
func (r *reader) secondGround(order []any) {
	if r.kind != gear.KindAirUnit {
		return
	}
	if first := slices.Index(order, any(gear.PinGround)); first >= 0 {
		if second := slices.Index(order[first+1:], any(gear.PinGround)); second >= 0 {
			order[first+1+second] = gear.PinRCGround
		}
	}
}

func shown(order []any) string {
	words := make([]string, len(order))
	for i, pin := range order {
		words[i] = strconv.Itoa(i+1) + " " + strings.ReplaceAll(pin.(string), "-", " ")
	}
	return strings.Join(words, ", ")
}
