package builds

import (
	"encoding/json"
	"sync"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/demo"
)

// entries are what a stock holds, as text.
type entries struct {
	Sets  []*gear.Set
	Fleet *fleet.Fleet
}

// demoText is the demo, read and checked once.
var demoText = sync.OnceValue(func() []byte {
	st := stock.New()
	if err := demo.Load(st); err != nil {
		panic(err)
	}
	text, err := json.Marshal(entries{st.Sets, st.Fleet})
	if err != nil {
		panic(err)
	}
	return text
})

// Demo is the demo in a stock of its own, to change at will.
func Demo() *stock.Stock {
	var e entries
	if err := json.Unmarshal(demoText(), &e); err != nil {
		panic(err)
	}
	st := &stock.Stock{Sets: e.Sets, Fleet: e.Fleet}
	st.Library() // indexed before several at once may ask for it
	return st
}
