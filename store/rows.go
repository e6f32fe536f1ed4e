package store

import "time"

// The rows. A body is an entry as JSON, in the shape of the open formats; the
// columns beside it are what the database itself has to know.

type setRow struct {
	ID       string `gorm:"primaryKey" json:"id"`
	Position int    `json:"position"`
	Revision int64  `json:"revision"`
	Title    string `json:"title"`
	License  string `json:"license"`
}

func (setRow) TableName() string { return "gear_packs" }

type gearRow struct {
	ID       string `gorm:"primaryKey" json:"id"`
	Set      string `gorm:"column:gear_pack;not null;index" json:"gearPack"`
	Kind     string `gorm:"not null" json:"kind"`
	Position int    `json:"position"`
	Revision int64  `json:"revision"`
	Body     string `json:"body"`
}

func (gearRow) TableName() string { return "gear" }

type fleetRow struct {
	ID       int    `gorm:"primaryKey" json:"id"`
	Revision int64  `json:"revision"`
	Body     string `json:"body"` // the fleet's head as JSON: title, gear packs, goals
}

func (fleetRow) TableName() string { return "fleets" }

// entryRow is kit, a spare or a quad.
type entryRow struct {
	Kind     string `gorm:"primaryKey" json:"kind"`
	ID       string `gorm:"primaryKey" json:"id"`
	Position int    `json:"position"`
	Revision int64  `json:"revision"`
	Body     string `json:"body"`
	Life     int64  `json:"life,omitempty"` // quads: the revision that brought it
}

func (entryRow) TableName() string { return "fleet_entries" }

type benchRow struct {
	Quad  string    `gorm:"primaryKey" json:"quad"`
	Life  int64     `gorm:"primaryKey;autoIncrement:false" json:"life,omitempty"`
	Step  string    `gorm:"primaryKey" json:"step"`
	Done  bool      `json:"done"`
	Value *float64  `json:"value,omitempty"`
	At    time.Time `json:"at"`
}

func (benchRow) TableName() string { return "bench_records" }

// counterRow counts the changes to everything.
type counterRow struct {
	ID       int   `gorm:"primaryKey" json:"id"`
	Revision int64 `json:"revision"`
}

func (counterRow) TableName() string { return "counters" }
