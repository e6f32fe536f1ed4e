package gear

import (
	"slices"
	"strconv"
	"strings"

	"yokeswap/core/measure/unit"
)

// SettingsText is how a flight firmware writes its settings line by line, and how it is
// talked to in them over its serial port. It is the maker's grammar, as data.
type SettingsText struct {
	// Enter makes a port that speaks MSP speak text; Prompt ends each of its answers.
	Enter  string `json:"enter,omitempty"`
	Prompt string `json:"prompt,omitempty"`
	// List has it tell all settings, Save keep them and reboot, Leave reboot without.
	List  string `json:"list,omitempty"`
	Save  string `json:"save,omitempty"`
	Leave string `json:"leave,omitempty"`
	// Refused begins the answer to a line that was not taken.
	Refused string `json:"refused,omitempty"`
	// Remark begins a line that sets nothing; End is the last line of a whole text.
	Remark string `json:"remark,omitempty"`
	End    string `json:"end,omitempty"`
	// Head are the forms of the lines that say what a text is of: {firmware}, {version},
	// {board}. They may stand behind a remark.
	Head  []string       `json:"head,omitempty"`
	Lines []SettingsLine `json:"lines,omitempty"`
	Words []SettingsWord `json:"words,omitempty"`
}

// SettingsLine is the form of a line that sets something: {name} in it is a word without
// spaces, {value} all that is left. Of two settings of one Group with one name a board
// keeps the last.
type SettingsLine struct {
	Form  string `json:"form"`
	Group string `json:"group,omitempty"`
	Value string `json:"value,omitempty"` // of a form without {value}
}

// SettingKind is what a setting moves.
type SettingKind string

// The kinds. Motors and pins are never loaded as text; power, band and region only where
// the law of the region lets them; failsafe and arming are read again afterwards.
const (
	SetsMotors   SettingKind = "motors"
	SetsPins     SettingKind = "pins"
	SetsPower    SettingKind = "power"
	SetsBand     SettingKind = "band"
	SetsRegion   SettingKind = "region"
	SetsArming   SettingKind = "arming"
	SetsFailsafe SettingKind = "failsafe"
	SetsPorts    SettingKind = "ports"
	SetsReceiver SettingKind = "receiver"
	SetsOSD      SettingKind = "osd"
	SetsFlight   SettingKind = "flight"
	SetsOther    SettingKind = "other"
)

// SettingsWord is what is known of a setting: Name is its group and name as lines have
// them; a * at its end stands for any rest.
type SettingsWord struct {
	Name    string          `json:"name"`
	Label   string          `json:"label,omitempty"`
	Sets    SettingKind     `json:"sets,omitempty"`
	Factory string          `json:"factory,omitempty"` // as the release comes
	Values  []SettingsValue `json:"values,omitempty"`
	// UART1 is the number that stands for UART 1, where the word's * is that of a serial port;
	// nil: it is of none.
	UART1 *int `json:"uart1,omitempty"`
}

// SettingsValue is what a value of a setting means: a power, a band or a region where the
// word sets one, a function where it sets what a serial port does.
type SettingsValue struct {
	Is     string           `json:"is"`
	Label  string           `json:"label,omitempty"`
	MW     *unit.Milliwatts `json:"mw,omitempty"`
	Band   Band             `json:"band,omitempty"`
	Region string           `json:"region,omitempty"`
	// Function is one of the functions of serial ports, or NoFunction.
	Function string `json:"function,omitempty"`
}

// NoFunction is that of a port that does nothing.
const NoFunction = "none"

// Speaks says whether all is stated that talking to a board takes.
func (t *SettingsText) Speaks() bool {
	return t != nil && t.Enter != "" && t.Prompt != "" && t.List != "" && t.Save != "" && t.Leave != "" && t.Refused != ""
}

// Word is what is known of a setting: its own word, else the longest that ends in * and
// covers it; false where nothing is.
func (t *SettingsText) Word(key string) (SettingsWord, bool) {
	var best SettingsWord
	found := false
	for _, w := range t.Words {
		if w.Name == key {
			return w, true
		}
		stem, open := strings.CutSuffix(w.Name, "*")
		if open && strings.HasPrefix(key, stem) && (!found || len(w.Name) > len(best.Name)) {
			best, found = w, true
		}
	}
	return best, found
}

// UART is the serial port, from 1, that a setting of the word is of; false where it is of none.
func (w *SettingsWord) UART(key string) (int, bool) {
	stem, open := strings.CutSuffix(w.Name, "*")
	if w.UART1 == nil || !open {
		return 0, false
	}
	n, err := strconv.Atoi(strings.TrimPrefix(key, stem))
	return n - *w.UART1 + 1, err == nil && n >= *w.UART1
}

// Value is what a value of the word means; false where nobody has stated it.
func (w *SettingsWord) Value(is string) (SettingsValue, bool) {
	if i := slices.IndexFunc(w.Values, func(v SettingsValue) bool { return v.Is == is }); i >= 0 {
		return w.Values[i], true
	}
	return SettingsValue{}, false
}
