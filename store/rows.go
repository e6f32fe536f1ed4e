package store

import "time"

// The rows. A body is an entry as JSON, in the shape of the open formats; the
// columns beside it are what the database itself has to know.

type setRow struct {
	ID       string `gorm:"primaryKey"`
	Position int
	Revision int64
	Title    string
	License  string
}

func (setRow) TableName() string { return "gear_packs" }

type gearRow struct {
	ID       string `gorm:"primaryKey"`
	Set      string `gorm:"column:gear_pack;not null;index"`
	Kind     string `gorm:"not null"`
	Position int
	Revision int64
	Body     string
}

func (gearRow) TableName() string { return "gear" }

type fleetRow struct {
	ID       int `gorm:"primaryKey"`
	Revision int64
	Body     string // the fleet's head as JSON: title, gear packs, goals
}

func (fleetRow) TableName() string { return "fleets" }

// entryRow is kit, a spare or a quad.
type entryRow struct {
	Kind     string `gorm:"primaryKey"`
	ID       string `gorm:"primaryKey"`
	Position int
	Revision int64
	Body     string
	Life     int64 // quads: the revision that brought it
}

func (entryRow) TableName() string { return "fleet_entries" }

type benchRow struct {
	Quad  string `gorm:"primaryKey"`
	Life  int64  `gorm:"primaryKey;autoIncrement:false"`
	Step  string `gorm:"primaryKey"`
	Done  bool
	Value *float64
	At    time.Time
}

func (benchRow) TableName() string { return "bench_records" }

// counterRow counts the changes to everything.
type counterRow struct {
	ID       int `gorm:"primaryKey"`
	Revision int64
}

func (counterRow) TableName() string { return "counters" }
