// Command mutants asks whether the tests of the core would notice a wrong line.
//
// Method: every comparison, sign, number, logical word and statement of core that can
// be turned into another that still compiles is a place. A seed draws some of them; each
// is changed alone, in an overlay (the tree itself is never touched), and judged by the
// tests of its own package and those of swap. A change that all of them let through has
// survived: either a promise lacks its test, or the line makes no difference to a
// builder; the reasons of the second kind stand in survivors.txt.
//
// Source: mutation analysis as common practice has it. `make mutants` runs it.
package main

import (
	"context"
	"flag"
	"fmt"
	"maps"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"runtime"
	"slices"
	"strings"
	"sync"
	"time"
)

// patience is how long one round of tests may take; a change that never ends is noticed.
const patience = 90 * time.Second

func main() {
	count := flag.Int("n", 300, "how many changes to try")
	seed := flag.Uint64("seed", 1, "which ones")
	floor := flag.Float64("floor", 0.85, "the share that has to be noticed, survivors with a reason left out")
	under := flag.String("under", "core", "the folder whose packages are changed")
	again := flag.String("again", "", "try only the changes whose keys stand in this file, one a line")
	flag.Parse()
	if err := run(*count, *seed, *floor, *under, *again); err != nil {
		fmt.Fprintln(os.Stderr, "mutants:", err)
		os.Exit(1)
	}
}

func run(count int, seed uint64, floor float64, under, again string) error {
	places, err := findPlaces(under)
	if err != nil {
		return err
	}
	if again != "" {
		if places, err = only(places, again); err != nil {
			return err
		}
	}
	reasons, err := readReasons(filepath.Join("internal", "mutants", "survivors.txt"))
	if err != nil {
		return err
	}
	stale := staleReasons(reasons, places)
	draw := rand.New(rand.NewPCG(seed, seed))
	draw.Shuffle(len(places), func(i, j int) { places[i], places[j] = places[j], places[i] })
	if len(places) > count {
		places = places[:count]
	}
	began := time.Now()
	for _, key := range stale {
		fmt.Printf("a reason for what is no longer there: %s\n", key)
	}
	fates := tryAll(places)
	return report(places, fates, reasons, floor, time.Since(began))
}

// only keeps the places whose keys stand in a file, one a line.
func only(places []place, path string) ([]place, error) {
	raw, err := os.ReadFile(path)
	if err != nil {
		return nil, fmt.Errorf("reading which changes to try again: %w", err)
	}
	keys := map[string]bool{}
	for line := range strings.Lines(string(raw)) {
		keys[strings.TrimPrefix(strings.TrimSpace(line), "key: ")] = true
	}
	return slices.DeleteFunc(places, func(at place) bool { return !keys[at.key()] }), nil
}

// staleReasons are the keys of reasons that no place has any more.
func staleReasons(reasons map[string]string, places []place) []string {
	left := maps.Clone(reasons)
	for _, at := range places {
		delete(left, at.key())
	}
	return slices.Sorted(maps.Keys(left))
}

// fate is what became of a change.
type fate string

const (
	noticed  fate = "noticed"
	survived fate = "survived"
	broken   fate = "does not compile"
)

func tryAll(places []place) []fate {
	fates := make([]fate, len(places))
	work := make(chan int)
	var group sync.WaitGroup
	for range runtime.NumCPU() {
		group.Go(func() {
			for i := range work {
				fates[i] = try(places[i])
				fmt.Printf("%-16s %s\n", fates[i], places[i])
			}
		})
	}
	for i := range places {
		work <- i
	}
	close(work)
	group.Wait()
	return fates
}

// try judges one change by the tests of its package and, if they let it through, of swap.
func try(at place) fate {
	dir, err := os.MkdirTemp("", "mutant")
	if err != nil {
		return broken
	}
	defer func() { _ = os.RemoveAll(dir) }()
	overlay, err := at.overlay(dir)
	if err != nil {
		return broken
	}
	for _, tests := range []string{at.pkg, "yokeswap/core/plans/swap"} {
		if verdict := test(overlay, tests); verdict != survived {
			return verdict
		}
	}
	return survived
}

func test(overlay, tests string) fate {
	ctx, cancel := context.WithTimeout(context.Background(), patience)
	defer cancel()
	cmd := exec.CommandContext(
		ctx,
		"go",
		"test",
		"-short",
		"-failfast",
		"-vet=off",
		"-count=1",
		"-overlay",
		overlay,
		tests,
	)
	cmd.WaitDelay = time.Second
	out, err := cmd.CombinedOutput()
	switch {
	case err == nil:
		return survived
	case strings.Contains(string(out), "[build failed]") || strings.Contains(string(out), "[setup failed]"):
		return broken
	}
	return noticed
}

func report(places []place, fates []fate, reasons map[string]string, floor float64, took time.Duration) error {
	var counts = map[fate]int{}
	excused, open := 0, []place{}
	for i, one := range fates {
		counts[one]++
		if one != survived {
			continue
		}
		if why := reasons[places[i].key()]; why != "" {
			excused++
			fmt.Printf("\nsurvives, and may: %s\n    %s\n", places[i], why)
			continue
		}
		open = append(open, places[i])
	}
	for _, at := range open {
		fmt.Printf("\nsurvives: %s\n    key: %s\n", at, at.key())
	}
	tried := counts[noticed] + len(open)
	if tried == 0 {
		return fmt.Errorf("nothing could be tried: no change compiled")
	}
	share := float64(counts[noticed]) / float64(tried)
	fmt.Printf("\n%d changes in %s: %d noticed (%.1f %%), %d survived (%d of them with a reason), %d did not compile\n",
		len(fates), took.Round(time.Second), counts[noticed], 100*share, counts[survived], excused, counts[broken])
	if share < floor {
		return fmt.Errorf("%.1f %% noticed, at least %.0f %% are wanted", 100*share, 100*floor)
	}
	return nil
}

// readReasons reads one survivor a line, its key and the reason after a tab.
func readReasons(path string) (map[string]string, error) {
	raw, err := os.ReadFile(path)
	if err != nil {
		return nil, fmt.Errorf("reading the reasons: %w", err)
	}
	reasons := map[string]string{}
	for line := range strings.Lines(string(raw)) {
		key, why, ok := strings.Cut(strings.TrimSpace(line), "\t")
		if ok && !strings.HasPrefix(key, "#") {
			reasons[key] = strings.TrimSpace(why)
		}
	}
	return reasons, nil
}
