package power

import (
	"fmt"
	"strings"

	"yokeswap/core/measure/unit"
)

// bare is a voltage without its unit, for "7.2 to 17.8 V".
func bare(v unit.Volts) string { return strings.TrimSuffix(v.String(), " V") }

func margin(v unit.Volts) string {
	switch unit.Compare(v, 0) {
	case 0:
		return "none to spare"
	case -1:
		return v.String()
	}
	return "+" + v.String()
}

func signed(x float64, digits int) string { return fmt.Sprintf("%+.*f", digits, x) }
