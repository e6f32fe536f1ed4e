// Package demo carries the Harrow Fell scenario: an invented trust with nine
// quads, in the open formats. No product stands behind any of it.
package demo

import (
	"embed"
	"fmt"

	"yokeswap/core/facts/stock"
	"yokeswap/format"
)

// Files holds the gear pack and the fleet file.
//
//go:embed *.json
var Files embed.FS

// Bundle is the settings text that came with a board of the demo's scenario.
//
//go:embed bramble-f7-bundle.txt
var Bundle string

// The demo's files, in the order they are read.
var Names = []string{"harrow-fell.gear.json", "harrow-fell.fleet.json"}

// Load takes the demo into a stock.
func Load(st *stock.Stock) error {
	for _, name := range Names {
		text, err := Files.ReadFile(name)
		if err != nil {
			return fmt.Errorf("read the demo's %s: %w", name, err)
		}
		doc, err := format.Read(text)
		if err != nil {
			return fmt.Errorf("read the demo's %s: %w", name, err)
		}
		if _, err := format.Take(st, doc); err != nil {
			return fmt.Errorf("take in the demo's %s: %w", name, err)
		}
	}
	return nil
}
