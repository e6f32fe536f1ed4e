//go:build !race

package swap_test

// raced: the nets over thousands of builds run without the race detector.
const raced = false
