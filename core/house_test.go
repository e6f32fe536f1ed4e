package core_test

import (
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"unicode/utf8"

	"github.com/stretchr/testify/require"
)

// What is read is short: no function is over 50 lines and no line over 120 characters,
// tests aside, whose tables are as wide as what they say.
func TestFunctionsAndLinesAreShort(t *testing.T) {
	const mostLines, mostColumns = 50, 120
	files := 0
	for _, dir := range []string{"cmd", "console", "core", "demo", "format", "msp", "sim", "store", "trade", "ui", "web", "internal"} {
		err := filepath.WalkDir(filepath.Join("..", dir), func(path string, d fs.DirEntry, err error) error {
			switch {
			case err != nil || d.IsDir() && d.Name() == "node_modules":
				return skipped(err)
			case !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go"):
				return nil
			}
			files++
			text, err := os.ReadFile(path)
			require.NoError(t, err)
			for n, line := range strings.Split(string(text), "\n") {
				if utf8.RuneCountInString(line) > mostColumns {
					t.Errorf("%s:%d has more than %d characters", path, n+1, mostColumns)
				}
			}
			set := token.NewFileSet()
			file, err := parser.ParseFile(set, path, text, 0)
			require.NoError(t, err)
			for _, decl := range file.Decls {
				f, ok := decl.(*ast.FuncDecl)
				if lines := set.Position(decl.End()).Line - set.Position(decl.Pos()).Line + 1; ok && lines > mostLines {
					t.Errorf("%s: %s has %d lines", path, f.Name.Name, lines)
				}
			}
			return nil
		})
		require.NoError(t, err)
	}
	require.Greater(t, files, 200)
}

func skipped(err error) error {
	if err != nil {
		return err
	}
	return filepath.SkipDir
}
