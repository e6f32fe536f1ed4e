//go:build !race

package core_test

const raced = false
