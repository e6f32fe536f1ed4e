package core_test

import (
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Each line of docs/promises.md names tests that are there.
func TestEveryPromiseHasItsTest(t *testing.T) {
	there := map[string]bool{}
	function := regexp.MustCompile(`(?m)^func (Test\w+)\(`)
	require.NoError(t, filepath.WalkDir("..", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() && (d.Name() == "node_modules" || d.Name() == ".git") {
			return filepath.SkipDir
		}
		if !strings.HasSuffix(path, "_test.go") {
			return nil
		}
		text, err := os.ReadFile(path)
		for _, found := range function.FindAllSubmatch(text, -1) {
			there[string(found[1])] = true
		}
		return err
	}))
	text, err := os.ReadFile("../docs/promises.md")
	require.NoError(t, err)
	promises := 0
	for line := range strings.Lines(string(text)) {
		cells := strings.Split(line, "|")
		if len(cells) != 5 || strings.HasPrefix(cells[1], "---") || strings.Contains(cells[3], "held by") {
			continue
		}
		promises++
		named := regexp.MustCompile("`(Test\\w+)`").FindAllStringSubmatch(cells[3], -1)
		assert.NotEmpty(t, named, line)
		for _, name := range named {
			assert.True(t, there[name[1]], "%s is named and not there", name[1])
		}
	}
	assert.Greater(t, promises, 25)
}
