//go:build race

package core_test

// raced: the nets over thousands of builds run without the race detector.
const raced = true
