package pins

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
	"yokeswap/core/measure/wire"
)

// nearMM is how close two pads lie for solder to bridge them easily, from middle to middle
// (from memory).
const nearMM unit.Millimetres = 2

// pinStepMM is how far apart the pins of a part are drawn whose pads nobody has placed.
const pinStepMM = 2

// OutlinePicture is the board with its pads where they lie, what is wired to it beside
// it, and the wires from pad to pad.
type OutlinePicture struct {
	Pieces []OutlinePiece `json:"pieces"` // the board first
	Wires  []OutlineWire  `json:"wires"`
	// Unplaced are the places of the board that a wire goes to and nobody has placed.
	Unplaced []string `json:"unplaced"`
}

// OutlinePiece is the board, or a part.
type OutlinePiece struct {
	Node   string       `json:"node"`
	Label  string       `json:"label"`
	XMM    float64      `json:"xMM"`
	YMM    float64      `json:"yMM"`
	Placed bool         `json:"placed"` // else its pins are drawn in a row
	Pads   []OutlinePad `json:"pads"`
}

// OutlinePad is a pad of a piece.
type OutlinePad struct {
	Words   string  `json:"words"`
	Printed string  `json:"printed,omitempty"`
	XMM     float64 `json:"xMM"`
	YMM     float64 `json:"yMM"`
	Back    bool    `json:"back"`
	Wired   bool    `json:"wired"`
}

// OutlineWire joins a pad of a part with one of the board.
type OutlineWire struct {
	Piece int           `json:"piece"` // of the part
	Pad   int           `json:"pad"`   // of that piece
	To    int           `json:"to"`    // pad of the board
	Paint string        `json:"paint"` // its colour on screen; empty: not stated
	Level verdict.Level `json:"level"`
	Words string        `json:"words"`
}

// DrawOutline draws the wiring from pad to pad; nil where nobody has placed the pads of
// the board.
func DrawOutline(c fleet.Case) *OutlinePicture {
	board, ok := c.Board()
	if !ok || !board.Outline.Drawn() {
		return nil
	}
	l := partOf(c)
	pic := &OutlinePicture{Pieces: []OutlinePiece{{
		Node:   fleet.NodeBoard,
		Label:  board.Label(),
		XMM:    float64(*board.Outline.XMM),
		YMM:    float64(*board.Outline.YMM),
		Placed: true,
	}}, Wires: []OutlineWire{}, Unplaced: []string{}}
	for _, p := range board.Outline.Pads {
		words := strings.TrimPrefix(l.words(p.At), "the ")
		pic.Pieces[0].Pads = append(pic.Pieces[0].Pads, outlinePad(p, words))
	}
	runs := netlist.All(c)
	on := place(runs, board.Outline)
	for _, run := range runs {
		if run.Plug != nil && len(run.Conns) > 0 {
			pic.wire(c, run, on[run.Node])
		}
	}
	return pic
}

// soldered is one wire of a part: a pin can have several.
type soldered struct {
	pin int
	to  string
}

func wireOf(c *netlist.Conn) soldered { return soldered{c.Pin, c.Terminal} }

// onPads says which pad of a board's outline each wire of a part is soldered to.
type onPads map[soldered]int

// place finds the pad for each soldered wire. Of several of one name it is the free one
// nearest to the part's others, so that its wires lie together.
func place(runs []*netlist.Run, board *gear.Outline) map[string]onPads {
	all, taken := map[string]onPads{}, map[int]bool{}
	for _, run := range runs {
		on := onPads{}
		all[run.Node] = on
		var only []int
		each(run, func(c *netlist.Conn) { // those there is one of
			if at := padsOf(board, c.Terminal); len(at) == 1 {
				on[wireOf(c)], taken[at[0]] = at[0], true
				only = append(only, at[0])
			}
		})
		x, y := middle(only, board)
		each(run, func(c *netlist.Conn) {
			if at := padsOf(board, c.Terminal); len(at) > 1 {
				slices.SortStableFunc(at, func(a, b int) int {
					if taken[a] != taken[b] {
						return map[bool]int{false: -1, true: 1}[taken[a]]
					}
					return cmp.Compare(away(board.Pads[a], x, y), away(board.Pads[b], x, y))
				})
				on[wireOf(c)], taken[at[0]] = at[0], true
			}
		})
	}
	return all
}

// each goes through the wires of a part that are soldered to the board.
func each(run *netlist.Run, do func(c *netlist.Conn)) {
	for i := range run.Conns {
		if c := &run.Conns[i]; c.Slot == 0 && c.Live() {
			do(c)
		}
	}
}

func padsOf(o *gear.Outline, at string) (list []int) {
	for i, p := range o.Pads {
		if p.At == at {
			list = append(list, i)
		}
	}
	return list
}

// middle is where some pads lie on average; the board's own middle where there are none.
func middle(pads []int, o *gear.Outline) (x, y float64) {
	if len(pads) == 0 {
		return float64(*o.XMM) / 2, float64(*o.YMM) / 2
	}
	for _, i := range pads {
		x += float64(o.Pads[i].XMM) / float64(len(pads))
		y += float64(o.Pads[i].YMM) / float64(len(pads))
	}
	return x, y
}

func away(p gear.PadPlace, x, y float64) float64 {
	return math.Hypot(float64(p.XMM)-x, float64(p.YMM)-y)
}

func outlinePad(p gear.PadPlace, words string) OutlinePad {
	return OutlinePad{Words: words, Printed: p.Printed, XMM: float64(p.XMM), YMM: float64(p.YMM), Back: p.Back}
}

// wire adds a part and its soldered wires.
func (pic *OutlinePicture) wire(c fleet.Case, run *netlist.Run, on onPads) {
	l := partLoom(c, run)
	if run.Node == fleet.NodeAirUnit {
		l, _ = newLoom(c)
	}
	piece := pieceOf(run)
	at := len(pic.Pieces)
	each(run, func(conn *netlist.Conn) {
		to, placed := on[wireOf(conn)]
		if !placed {
			if words := strings.TrimPrefix(l.words(conn.Terminal), "the "); !slices.Contains(pic.Unplaced, words) {
				pic.Unplaced = append(pic.Unplaced, words)
			}
			return
		}
		pic.Pieces[0].Pads[to].Wired = true
		piece.Pads[conn.Pin-1].Wired = true
		level, says := l.judgeLine(conn)
		words := fmt.Sprintf("%s of %s to %s", PinWords(conn.Function), run.Label(), pic.Pieces[0].Pads[to].Words)
		if says != "" {
			words += ": " + says
		}
		pic.Wires = append(pic.Wires, OutlineWire{
			Piece: at,
			Pad:   conn.Pin - 1,
			To:    to,
			Paint: wire.Paint(conn.Colour),
			Level: level,
			Words: words,
		})
	})
	pic.Pieces = append(pic.Pieces, piece)
}

// pieceOf is a part with its pins in their order: where they lie, or in a row where
// nobody has placed all of them, or a header is on them.
func pieceOf(run *netlist.Run) OutlinePiece {
	piece := OutlinePiece{Node: run.Node, Label: run.Label()}
	all := run.Outline.Drawn() && run.Row == nil
	for n := range run.Plug.Pins {
		all = all && len(run.Outline.Places(gear.AtPin(n+1))) > 0
	}
	if !all {
		piece.XMM, piece.YMM = 2*pinStepMM, float64(len(run.Plug.Pins)+1)*pinStepMM
	} else {
		piece.XMM, piece.YMM, piece.Placed = float64(*run.Outline.XMM), float64(*run.Outline.YMM), true
	}
	for n, function := range run.Plug.Pins {
		words := fmt.Sprintf("pin %d, %s", n+1, PinWords(function))
		if function == "" {
			words = fmt.Sprintf("pin %d, nothing there", n+1)
		}
		if all {
			piece.Pads = append(piece.Pads, outlinePad(run.Outline.Places(gear.AtPin(n + 1))[0], words))
			continue
		}
		piece.Pads = append(piece.Pads, OutlinePad{Words: words, XMM: pinStepMM, YMM: float64(n+1) * pinStepMM})
	}
	return piece
}

// nearby says what lies beside the pad of the board that a wire is soldered to, where it
// is placed: what is printed there, its side, and what solder may bridge to.
func (l *loom) nearby(c *netlist.Conn, on onPads) (printed string, beside []string) {
	at, placed := on[wireOf(c)]
	if !placed {
		return "", nil
	}
	p := l.board.Outline.Pads[at]
	var where []string
	words := strings.ReplaceAll(strings.TrimPrefix(l.words(c.Terminal), "the "), " ", "")
	if p.Printed != "" && !strings.EqualFold(p.Printed, words) {
		where = append(where, "printed "+p.Printed)
	}
	if p.Back {
		where = append(where, "underneath")
	}
	printed = strings.Join(where, ", ")
	for _, n := range l.board.Outline.Near(p, nearMM) {
		if n.At != c.Terminal { // two of one name may touch
			beside = append(beside, fmt.Sprintf("%s, %s off", strings.TrimPrefix(l.words(n.At), "the "), n.MM))
		}
	}
	return printed, beside
}
