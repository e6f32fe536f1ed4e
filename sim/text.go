package sim

import (
	"bytes"
	"cmp"
	"maps"
	"slices"
	"strings"

	"yokeswap/core/facts/gear"
	"yokeswap/core/work/settext"
	"yokeswap/core/work/setup"
)

// texts is what a stand-in has in its settings text: as it runs, and as it is saved.
type texts struct {
	runs   *gear.FlightFirmware
	words  *gear.SettingsText
	order  []string // of its settings
	memory map[string]string
	saved  map[string]string
}

// The settings of the text that a stand-in has over MSP as well: its features, each by its
// name behind this word, and what it calls itself.
const (
	featureGroup = "feature "
	featureOn    = "yes"
	featureOff   = "no"
	craftName    = "craft-name"
)

// newTexts is a board as its release comes, with the features and the name it has over
// MSP; nil where nobody has stated how its firmware writes settings.
func newTexts(runs *gear.FlightFirmware, s setup.State) *texts {
	if runs == nil || !runs.Text.Speaks() {
		return nil
	}
	t := &texts{runs: runs, words: runs.Text, memory: map[string]string{}}
	for _, line := range settext.Factory(runs.Text) {
		t.order = append(t.order, line.Key)
		t.memory[line.Key] = line.Value
	}
	for _, u := range s.Ports {
		if u.ID != usbPort {
			t.put("port "+string(rune('1'+u.ID)), "nothing")
		}
	}
	t.reflect(&s)
	t.saved = maps.Clone(t.memory)
	return t
}

// reflect takes into the text what a board has over MSP as well.
func (t *texts) reflect(s *setup.State) {
	t.put(craftName, cmp.Or(s.Name, "quad"))
	for _, name := range slices.Sorted(maps.Keys(t.runs.Features)) {
		t.put(featureGroup+name, onOff(s.Features&(1<<t.runs.Features[name]) != 0))
	}
}

func onOff(on bool) string {
	if on {
		return featureOn
	}
	return featureOff
}

func (t *texts) put(key, value string) {
	if _, there := t.memory[key]; !there {
		t.order = append(t.order, key)
	}
	t.memory[key] = value
}

// mirror takes what a setting is over MSP as well.
func (t *texts) mirror(s *setup.State, key, value string) {
	if bit, ok := t.runs.Features[strings.TrimPrefix(key, featureGroup)]; ok && strings.HasPrefix(key, featureGroup) {
		s.Features &^= 1 << bit
		if value == featureOn {
			s.Features |= 1 << bit
		}
	}
	if key == craftName {
		s.Name = value
	}
}

// talk is a connection that speaks text.
type talk struct {
	board *FlightBoard
	line  []byte
}

// talks says whether a connection speaks text: it does already, or the word that opens it
// has just come.
func (b *FlightBoard) talks(now *talk, heard []byte) *talk {
	b.mu.Lock()
	defer b.mu.Unlock()
	if now != nil || b.text == nil || b.faults.NoText || b.faults.Silent ||
		!bytes.HasPrefix(heard, []byte(b.text.words.Enter+"\n")) {
		return now
	}
	return &talk{board: b}
}

// hear takes what came and answers each whole line: its echo, what it says, the prompt.
func (k *talk) hear(heard []byte) (answers []byte) {
	k.line = append(k.line, heard...)
	for {
		line, rest, whole := bytes.Cut(k.line, []byte("\n"))
		if !whole {
			return answers
		}
		k.line = rest
		answer, stays := k.board.told(strings.TrimSpace(string(line)))
		answers = append(answers, line...)
		answers = append(answers, "\r\n"+answer...)
		if !stays {
			return answers
		}
		answers = append(answers, k.board.text.words.Prompt+" "...)
	}
}

// told does what a line says and gives the answer; false where the board is away then.
func (b *FlightBoard) told(line string) (answer string, stays bool) {
	b.mu.Lock()
	defer b.mu.Unlock()
	words := b.text.words
	switch line {
	case "", words.Enter:
		return "", true
	case words.List:
		return b.allText(), true
	case words.Leave:
		b.reboot()
		return "", false
	case words.Save:
		return b.saveText()
	}
	read, err := settext.Read(words, line)
	if err != nil || len(read.Lines) != 1 {
		return "", true // a remark
	}
	key, value := read.Lines[0].Key, read.Lines[0].Value
	if _, known := b.text.memory[key]; !known {
		return words.Refused + " there is no such setting\r\n", true
	}
	if b.writes++; b.faults.CutAfter > 0 && b.writes >= b.faults.CutAfter {
		b.faults.CutAfter = 0 // the cable can be put back
		b.lost()
		return "", false
	}
	if key != b.faults.Ignores {
		b.text.put(key, value)
		b.text.mirror(&b.memory, key, value)
	}
	if _, there := b.text.memory[b.faults.Moves]; there {
		b.text.put(b.faults.Moves, "9")
	}
	return "", true
}

// allText is the whole text, as the release writes it.
func (b *FlightBoard) allText() string {
	b.text.reflect(&b.memory)
	of := settext.Text{Firmware: b.memory.Variant, Version: b.memory.Version, Board: b.memory.Board}
	for _, key := range b.text.order {
		of.Lines = append(of.Lines, settext.Line{Key: key, Value: b.text.memory[key]})
	}
	text, err := settext.Write(b.text.words, of)
	if err != nil {
		return b.text.words.Refused + " " + err.Error() + "\r\n"
	}
	if b.faults.CutText {
		text = text[:strings.LastIndex(text[:len(text)/2], "\n")+1]
	}
	return strings.ReplaceAll(text, "\n", "\r\n")
}

// saveText keeps what it has and reboots.
func (b *FlightBoard) saveText() (string, bool) {
	if b.faults.RefuseSave || b.faults.Armed {
		return b.text.words.Refused + " not now\r\n", true
	}
	if !b.faults.LostSave {
		b.keepAll()
	}
	b.waits(b.takes(b.faults.SaveMS, saveIn))
	b.reboot()
	return "", false
}
