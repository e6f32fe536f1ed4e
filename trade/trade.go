// Package trade carries the trade shelf: things that belong to no maker, each with what
// its values rest on, in the open gear pack format. It is a shelf to copy from: what is
// taken becomes one's own, and a later version of the program changes nothing of it.
//
// Source: the standard or rule that each entry names; "practice" where it says so. Values
// that could burn something, such as input windows and ratings of modules, are left out:
// they are on one's own sheet.
package trade

import (
	_ "embed"
	"fmt"
	"sync"

	"yokeswap/core/facts/gear"
	"yokeswap/format"
)

//go:embed trade.gear.json
var pack []byte

// Shelf is the gear pack. It is shared, and not to be changed.
var Shelf = sync.OnceValue(func() *gear.Set {
	doc, err := format.Read(pack)
	if err != nil {
		panic(fmt.Sprintf("read the trade shelf that ships with the program: %v", err))
	}
	return doc.Set
})
