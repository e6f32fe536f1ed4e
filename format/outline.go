package format

import (
	"strconv"

	"yokeswap/core/facts/gear"
)

// checkOutline finds pads that lie beside the board or the part they are of, and that are
// none of it.
func checkOutline(ps *Problems, path string, o *gear.Outline, known func(at string) bool, expected string) {
	if o == nil {
		return
	}
	path += ".outline"
	if len(o.Pads) > 0 && o.XMM == nil {
		ps.add(path+".xMM", "its pads are placed: how wide it is belongs to that")
	}
	if len(o.Pads) > 0 && o.YMM == nil {
		ps.add(path+".yMM", "its pads are placed: how long it is belongs to that")
	}
	for i, p := range o.Pads {
		at := path + "." + indexed("pads", i)
		if !known(p.At) {
			ps.add(at+".at", "expected %s, %q is none", expected, p.At)
		}
		if o.XMM != nil && p.XMM > *o.XMM {
			ps.add(at+".xMM", "it is %s wide, the pad lies at %s", o.XMM, p.XMM)
		}
		if o.YMM != nil && p.YMM > *o.YMM {
			ps.add(at+".yMM", "it is %s long, the pad lies at %s", o.YMM, p.YMM)
		}
	}
}

// checkBoardOutline checks the places of a board's pads.
func checkBoardOutline(ps *Problems, path string, b *gear.Board) {
	checkOutline(ps, path, b.Outline, func(at string) bool {
		port, _, serial := gear.SerialPin(at)
		_, hasPort := b.UART(port)
		_, pad := b.Pad(at)
		return at == gear.PinGround || pad || b.Signal(at) || serial && hasPort
	}, "ground, tx or rx with the number of a UART of this board, the id of one of its pads or one of its signals")
}

// checkPinOutline checks the places of the pins of a part.
func checkPinOutline(ps *Problems, path string, o *gear.Outline, plug *gear.Plug) {
	checkOutline(ps, path, o, func(at string) bool {
		n, err := strconv.Atoi(at)
		return err == nil && gear.AtPin(n) == at && n >= 1 && (plug == nil || n <= len(plug.Pins))
	}, "the number of one of its pins")
}
