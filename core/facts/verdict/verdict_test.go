package verdict_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"yokeswap/core/facts/verdict"
)

func TestLevelsFromBestToWorst(t *testing.T) {
	order := []verdict.Level{verdict.Fits, verdict.Caution, verdict.Change, verdict.Unknown, verdict.Unfit, "nonsense", ""}
	for i, better := range order {
		for k, worse := range order {
			assert.Equal(t, i < k && better.Rank() != worse.Rank(), worse.WorseThan(better), "%q against %q", worse, better)
		}
	}
	assert.Equal(t, verdict.Unknown, verdict.WorstOf(verdict.Fits, verdict.Unknown, verdict.Change))
	assert.Equal(
		t,
		verdict.Unfit,
		verdict.Worst([]verdict.Finding{{Level: verdict.Caution}, {Level: verdict.Unfit}, {Level: verdict.Fits}}),
	)
	assert.Equal(
		t,
		verdict.Level("nonsense"),
		verdict.Worst([]verdict.Finding{{Level: "nonsense"}}),
		"a level nobody knows is no fits",
	)
}

func TestWhatIsMissingIsSaid(t *testing.T) {
	f := verdict.CannotTell(
		verdict.Power,
		"power.unknown",
		"the unit",
		verdict.Missing{Label: "highest input voltage"},
		verdict.Missing{Label: "cells"},
	)
	assert.Equal(t, "unknown: highest input voltage; cells", f.Says)
	assert.Equal(t, verdict.Unknown, f.Level)
	assert.Len(t, f.Missing, 2)
}
