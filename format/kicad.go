package format

import (
	"bytes"
	"fmt"
	"strconv"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
)

// pinTypes are the words of circuit editors for what pins do.
var pinTypes = map[gear.Electric]string{
	gear.Passive:  "passive",
	gear.Grounded: "power_in",
	gear.Takes:    "power_in",
	gear.Gives:    "power_out",
	gear.Drives:   "output",
	gear.Listens:  "input",
	gear.Shares:   "bidirectional",
}

// Circuit writes all of a fit's wiring as the netlist that KiCad and other open circuit
// editors read (S-expressions, export version E): the parts, and what is joined.
func Circuit(c fleet.Case) []byte {
	nets, parts := netlist.Whole(c)
	var out bytes.Buffer
	fmt.Fprintf(&out, "(export (version %s)\n  (design (source %s) (tool %s))\n  (components", quoted("E"),
		quoted(c.Quad.Label()), quoted("Yoke Swap"))
	for _, p := range parts {
		fmt.Fprintf(&out, "\n    (comp (ref %s) (value %s))", quoted(p.Node), quoted(p.Label))
	}
	out.WriteString(")\n  (nets")
	for i, n := range nets {
		fmt.Fprintf(&out, "\n    (net (code %s) (name %s)", quoted(strconv.Itoa(i+1)), quoted(n.Name(i+1)))
		for _, p := range n.Pins {
			pin := p.Name
			if p.N > 0 {
				pin = strconv.Itoa(p.N)
			}
			fmt.Fprintf(&out, "\n      (node (ref %s) (pin %s) (pinfunction %s) (pintype %s))", quoted(p.Node), quoted(pin),
				quoted(p.Name), quoted(pinTypes[p.Electric]))
		}
		out.WriteString(")")
	}
	out.WriteString("))\n")
	return out.Bytes()
}

// quoted is a text as an S-expression holds it.
func quoted(text string) string {
	text = strings.NewReplacer(`\`, `\\`, `"`, `\"`, "\n", " ", "\r", " ").Replace(text)
	return `"` + text + `"`
}
