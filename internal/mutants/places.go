package main

import (
	"encoding/json"
	"fmt"
	"go/ast"
	"go/importer"
	"go/parser"
	"go/token"
	"go/types"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
)

// place is one change of one line: what stands from offset on becomes instead.
type place struct {
	pkg, file, function string
	line                int
	offset, length      int
	was, instead        string
	text                string // the whole line, trimmed
}

func (p place) String() string {
	return fmt.Sprintf("%s:%d %s → %s   %s", p.file, p.line, p.was, show(p.instead), p.text)
}

// key names a change without its line number, so that a reason stays with it.
func (p place) key() string {
	return fmt.Sprintf("%s %s | %s → %s | %s", p.file, p.function, p.was, show(p.instead), p.text)
}

func show(text string) string {
	if text == "" {
		return "nothing"
	}
	return text
}

// overlay writes the changed file and the overlay that puts it in the place of its own.
func (p place) overlay(dir string) (string, error) {
	raw, err := os.ReadFile(p.file)
	if err != nil {
		return "", err
	}
	changed := string(raw[:p.offset]) + p.instead + string(raw[p.offset+p.length:])
	file, err := filepath.Abs(p.file)
	if err != nil {
		return "", err
	}
	mutant := filepath.Join(dir, "mutant.go")
	if err := os.WriteFile(mutant, []byte(changed), 0o600); err != nil {
		return "", err
	}
	table, err := json.Marshal(map[string]any{"Replace": map[string]string{file: mutant}})
	if err != nil {
		return "", err
	}
	path := filepath.Join(dir, "overlay.json")
	return path, os.WriteFile(path, table, 0o600)
}

type listed struct {
	ImportPath, Dir, Export string
	GoFiles                 []string
}

// findPlaces reads every package under a folder, internal helpers of tests left out.
func findPlaces(under string) ([]place, error) {
	out, err := exec.Command("go", "list", "-export", "-deps", "-json=ImportPath,Dir,Export,GoFiles", "./"+under+"/...").
		Output()
	if err != nil {
		return nil, fmt.Errorf("listing packages: %w", err)
	}
	var packages []listed
	exports := map[string]string{}
	for decoder := json.NewDecoder(strings.NewReader(string(out))); ; {
		var one listed
		if err := decoder.Decode(&one); err == io.EOF {
			break
		} else if err != nil {
			return nil, fmt.Errorf("listing packages: %w", err)
		}
		exports[one.ImportPath] = one.Export
		if strings.HasPrefix(one.ImportPath, "yokeswap/"+under) && !strings.Contains(one.ImportPath, "/internal/") {
			packages = append(packages, one)
		}
	}
	set := token.NewFileSet()
	reader := importer.ForCompiler(set, "gc", func(path string) (io.ReadCloser, error) { return os.Open(exports[path]) })
	var places []place
	for _, one := range packages {
		found, err := placesOf(set, reader, one)
		if err != nil {
			return nil, fmt.Errorf("reading %s: %w", one.ImportPath, err)
		}
		places = append(places, found...)
	}
	return places, nil
}

func placesOf(set *token.FileSet, reader types.Importer, pkg listed) ([]place, error) {
	var files []*ast.File
	sources := map[*ast.File]string{}
	for _, name := range pkg.GoFiles {
		path := filepath.Join(pkg.Dir, name)
		raw, err := os.ReadFile(path)
		if err != nil {
			return nil, err
		}
		file, err := parser.ParseFile(set, path, raw, 0)
		if err != nil {
			return nil, err
		}
		files = append(files, file)
		sources[file] = string(raw)
	}
	info := &types.Info{Types: map[ast.Expr]types.TypeAndValue{}}
	if _, err := (&types.Config{Importer: reader}).Check(pkg.ImportPath, set, files, info); err != nil {
		return nil, err
	}
	root, err := os.Getwd()
	if err != nil {
		return nil, err
	}
	var places []place
	for _, file := range files {
		path, err := filepath.Rel(root, set.Position(file.Pos()).Filename)
		if err != nil {
			return nil, err
		}
		finder := finder{set: set, info: info, source: sources[file], at: place{pkg: pkg.ImportPath, file: path}}
		for _, declared := range file.Decls {
			if function, ok := declared.(*ast.FuncDecl); ok && function.Body != nil {
				finder.at.function = function.Name.Name
				ast.Inspect(function.Body, finder.look)
				continue
			}
			finder.at.function = "-"
			if block, ok := declared.(*ast.GenDecl); ok && block.Tok != token.IMPORT {
				ast.Inspect(block, finder.look)
			}
		}
		places = append(places, finder.places...)
	}
	return places, nil
}

// finder collects the places of one file.
type finder struct {
	set    *token.FileSet
	info   *types.Info
	source string
	at     place
	places []place
}

var flips = map[token.Token][]string{
	token.LSS: {"<=", ">="}, token.LEQ: {"<", ">"}, token.GTR: {">=", "<="}, token.GEQ: {">", "<"},
	token.EQL: {"!="}, token.NEQ: {"=="}, token.LAND: {"||"}, token.LOR: {"&&"},
	token.ADD: {"-"}, token.SUB: {"+"}, token.MUL: {"/"}, token.QUO: {"*"},
}

func (f *finder) look(node ast.Node) bool {
	switch node := node.(type) {
	case *ast.CallExpr:
		// The room set aside for a slice or a map makes no difference to anybody.
		if name, ok := node.Fun.(*ast.Ident); ok && name.Name == "make" {
			return false
		}
	case *ast.Field: // tags and the sizes in types
		return false
	case *ast.BinaryExpr:
		arithmetic := node.Op == token.ADD || node.Op == token.SUB || node.Op == token.MUL || node.Op == token.QUO
		if arithmetic && !f.number(node.X) {
			return true
		}
		for _, instead := range flips[node.Op] {
			f.add(node.OpPos, node.Op.String(), instead)
		}
	case *ast.UnaryExpr:
		if node.Op == token.NOT || node.Op == token.SUB {
			f.add(node.OpPos, node.Op.String(), "")
		}
	case *ast.IncDecStmt:
		return false
	case *ast.BranchStmt:
		if node.Label == nil && node.Tok == token.CONTINUE {
			f.add(node.Pos(), "continue", "break")
		}
	case *ast.BasicLit:
		f.literal(node)
	case *ast.Ident:
		if value := f.info.Types[node].Value; value != nil && (node.Name == "true" || node.Name == "false") {
			f.add(node.Pos(), node.Name, map[string]string{"true": "false", "false": "true"}[node.Name])
		}
	}
	return true
}

func (f *finder) literal(node *ast.BasicLit) {
	switch node.Kind {
	case token.INT:
		if value, err := strconv.ParseInt(node.Value, 0, 64); err == nil {
			f.add(node.Pos(), node.Value, strconv.FormatInt(value+1, 10))
		}
	case token.FLOAT:
		f.add(node.Pos(), node.Value, "(1.5*"+node.Value+")")
	}
}

func (f *finder) number(expression ast.Expr) bool {
	basic, ok := f.info.TypeOf(expression).Underlying().(*types.Basic)
	return ok && basic.Info()&types.IsNumeric != 0
}

func (f *finder) add(pos token.Pos, was, instead string) {
	position := f.set.Position(pos)
	one := f.at
	one.line, one.offset, one.length = position.Line, position.Offset, len(was)
	one.was, one.instead = was, instead
	one.text = strings.TrimSpace(strings.Split(f.source, "\n")[position.Line-1])
	f.places = append(f.places, one)
}
