package main

import (
	"bufio"
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/demo"
	"yokeswap/format"
)

// yoke runs the program within the test.
func yoke(args ...string) (exit int, stdout, stderr string) {
	var out, errs bytes.Buffer
	exit = run(args, strings.NewReader(""), &out, &errs)
	return exit, out.String(), errs.String()
}

// demoFiles writes the demo's files into a folder.
func demoFiles(t *testing.T) (gearFile, fleetFile string) {
	t.Helper()
	dir := t.TempDir()
	for _, name := range demo.Names {
		text, err := demo.Files.ReadFile(name)
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(filepath.Join(dir, name), text, 0o600))
	}
	return filepath.Join(dir, demo.Names[0]), filepath.Join(dir, demo.Names[1])
}

func rewrite(t *testing.T, file, old, new string) {
	t.Helper()
	text, err := os.ReadFile(file)
	require.NoError(t, err)
	require.Contains(t, string(text), old)
	require.NoError(t, os.WriteFile(file, []byte(strings.ReplaceAll(string(text), old, new)), 0o600))
}

func TestCheckSaysWhatItFoundByItsExitCode(t *testing.T) {
	gearFile, fleetFile := demoFiles(t)
	exit, out, _ := yoke("check", fleetFile)
	assert.Equal(t, exitFound, exit, "the demo has quads that do not fit")
	assert.Contains(
		t,
		out,
		"Aldine One would see 25.2 V from the pack, direct; its window ends at 17.8 V: 7.4 V too much. It burns.",
	)
	assert.Contains(t, out, "tried: feed the Aldine One from the 10 V pad: power would be fits, nothing to buy")

	exit, out, _ = yoke("check", gearFile)
	assert.Equal(t, exitOK, exit)
	assert.Contains(t, out, "sound")

	one := filepath.Join(t.TempDir(), "brayer.json")
	text, err := os.ReadFile(fleetFile)
	require.NoError(t, err)
	var whole map[string]any
	require.NoError(t, json.Unmarshal(text, &whole))
	whole["quads"] = whole["quads"].([]any)[6:7]
	delete(whole, "wants")
	delete(whole, "scenarios")
	delete(whole, "testFlights")
	delete(whole, "tasks")
	text, err = json.Marshal(whole)
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(one, text, 0o600))
	exit, out, errs := yoke("check", "--gear", gearFile, one)
	assert.Equal(t, exitOK, exit, "Brayer fits: %s%s", out, errs)

	exit, _, errs = yoke("check", one)
	assert.Equal(t, exitBad, exit)
	assert.Contains(
		t,
		errs,
		"brayer.json: kit[0].model: expected the id of an air unit, goggles or a controller in the library",
	)
}

func TestBadInputIsRefusedWithItsPlace(t *testing.T) {
	gearFile, fleetFile := demoFiles(t)
	rewrite(t, gearFile, `"maxV": 17.8`, `"maxV": 1.8`)
	exit, out, errs := yoke("check", fleetFile)
	assert.Equal(t, exitBad, exit)
	assert.Empty(t, out)
	assert.Contains(t, errs, "harrow-fell.gear.json: airUnits[0].input: minV 7.2 V is above maxV 1.8 V")

	huge := filepath.Join(t.TempDir(), "huge.json")
	require.NoError(t, os.WriteFile(huge, bytes.Repeat([]byte(" "), format.MaxBytes+1), 0o600))
	exit, _, errs = yoke("check", huge)
	assert.Equal(t, exitBad, exit)
	assert.Contains(t, errs, "larger than 128 MiB")

	for _, args := range [][]string{{}, {"dance"}, {"check"}, {"check", "nowhere.json"}, {"check", "--loud", "x"}, {"serve", "extra"},
		{"import", "--data", t.TempDir()}, {"export", "--data", t.TempDir(), "--gear", "nix"}} {
		exit, _, errs = yoke(args...)
		assert.Equal(t, exitBad, exit, "%v", args)
		assert.NotEmpty(t, errs, "%v", args)
	}
}

// Two packs that contradict each other: check and import say so with both sources, what is
// there stays, and a named entry of the file wins.
func TestPacksThatContradictEachOther(t *testing.T) {
	gearFile, _ := demoFiles(t)
	data := filepath.Join(t.TempDir(), "data")
	exit, _, errs := yoke("import", "--data", data, gearFile)
	require.Equal(t, exitOK, exit, errs)
	other := filepath.Join(t.TempDir(), "weir.json")
	require.NoError(t, os.WriteFile(other, []byte(`{"format":"gear-pack","version":9,"id":"weir","title":"Weir","plates":[
		{"id":"tenon-20-25","source":{"kind":"measured","date":"2026-11-02"},"thickMM":9}]}`), 0o600))
	exit, out, errs := yoke("import", "--data", data, other)
	require.Equal(t, exitOK, exit, errs)
	assert.Contains(t, out, "what is there stays")
	assert.Contains(t, out, "in the file 9 (measured, 2026-11-02)")
	_, kept, _ := yoke("export", "--data", data, "--gear", "harrow-fell")
	assert.NotContains(t, kept, `"thickMM": 9`)
	exit, out, errs = yoke("check", "--gear", gearFile, other)
	require.Equal(t, exitOK, exit, errs)
	assert.Contains(t, out, "in the file 9 (measured, 2026-11-02)")
	exit, out, errs = yoke("import", "--data", data, "--file-wins", "tenon-20-25", other)
	require.Equal(t, exitOK, exit, errs)
	assert.Contains(t, out, "the file's takes its place")
	_, kept, _ = yoke("export", "--data", data, "--gear", "harrow-fell")
	assert.Contains(t, kept, `"thickMM": 9`)
}

func TestImportAndExportAreOneAnothersReverse(t *testing.T) {
	gearFile, fleetFile := demoFiles(t)
	data := filepath.Join(t.TempDir(), "data")
	exit, out, errs := yoke("import", "--data", data, gearFile, fleetFile)
	require.Equal(t, exitOK, exit, errs)
	assert.Contains(t, out, "new, 0 alike, 0 otherwise")
	for file, args := range map[string][]string{gearFile: {"--gear", "harrow-fell"}, fleetFile: nil} {
		want, err := os.ReadFile(file)
		require.NoError(t, err)
		exit, out, errs = yoke(append([]string{"export", "--data", data}, args...)...)
		require.Equal(t, exitOK, exit, errs)
		assert.Equal(t, string(want), out)
	}

	rewrite(t, gearFile, `"maxV": 17.8`, `"maxV": 18.2`)
	exit, out, errs = yoke("import", "--data", data, gearFile)
	assert.Equal(t, exitBad, exit)
	assert.Contains(t, out, "airUnit aldine-one input.maxV: 17.8 → 18.2")
	assert.Contains(t, errs, "use --replace")
	exit, out, _ = yoke("import", "--dry-run", "--data", data, gearFile)
	assert.Equal(t, exitOK, exit)
	assert.Contains(t, out, "1 otherwise")
	_, before, _ := yoke("export", "--data", data, "--gear", "harrow-fell")
	assert.Contains(t, before, `"maxV": 17.8`, "nothing was replaced yet")
	exit, _, errs = yoke("import", "--replace", "--data", data, gearFile)
	require.Equal(t, exitOK, exit, errs)
	_, after, _ := yoke("export", "--data", data, "--gear", "harrow-fell")
	assert.Contains(t, after, `"maxV": 18.2`)
}

// program is the built program, running.
type program struct {
	cmd *exec.Cmd
	url string
}

func build(t testing.TB) string {
	t.Helper()
	binary := filepath.Join(t.TempDir(), "yokeswap")
	cmd := exec.Command("go", "build", "-o", binary, ".")
	cmd.Env = append(os.Environ(), "CGO_ENABLED=0")
	out, err := cmd.CombinedOutput()
	require.NoError(t, err, string(out))
	return binary
}

func start(t testing.TB, binary string, args ...string) program {
	t.Helper()
	cmd := exec.Command(binary, append(args, "--listen", "127.0.0.1:0")...)
	out, err := cmd.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, cmd.Start())
	t.Cleanup(func() { cmd.Process.Kill(); cmd.Wait() })
	line, err := bufio.NewReader(out).ReadString('\n')
	require.NoError(t, err)
	address := regexp.MustCompile(`http://[^/ ]+`).FindString(line)
	require.NotEmpty(t, address, line)
	return program{cmd, address}
}

func (p program) call(t testing.TB, method, path, body string) string {
	t.Helper()
	request, err := http.NewRequest(method, p.url+path, strings.NewReader(body))
	require.NoError(t, err)
	request.Header.Set("Content-Type", "application/json")
	response, err := http.DefaultClient.Do(request)
	require.NoError(t, err)
	defer response.Body.Close()
	text, err := io.ReadAll(response.Body)
	require.NoError(t, err)
	require.Equal(t, 200, response.StatusCode, string(text))
	return string(text)
}

// Killed at any moment, nothing confirmed is lost.
func TestNothingConfirmedIsLostToSIGKILL(t *testing.T) {
	binary, data := build(t), t.TempDir()
	p := start(t, binary, "demo", "--data", data)
	for i, confirm := range []string{`{"step":"props-off","done":true}`, `{"step":"meter-short:pack","done":true,"value":5100}`,
		`{"step":"meter-supply:pack:tallow-3s","done":true,"value":12.4}`} {
		p.call(t, "POST", "/api/quads/brayer/bench", confirm)
		require.NoError(t, p.cmd.Process.Signal(syscall.SIGKILL))
		p.cmd.Wait()
		p = start(t, binary, "demo", "--data", data)
		assert.Contains(t, p.call(t, "GET", "/api/quads/brayer/bench", ""), fmt.Sprintf(`"done":%d`, i+1))
	}
	assert.Contains(t, p.call(t, "GET", "/api/quads/brayer/bench", ""), `"value":12.4`)
}

func TestCleanShutdownOnSIGTERM(t *testing.T) {
	p := start(t, build(t), "serve", "--data", t.TempDir())
	p.call(t, "GET", "/api/health", "")
	require.NoError(t, p.cmd.Process.Signal(syscall.SIGTERM))
	assert.NoError(t, p.cmd.Wait())
}

// The command line prints the same findings as the screen is given.
func TestCheckAndTheAPISayTheSame(t *testing.T) {
	_, fleetFile := demoFiles(t)
	_, out, _ := yoke("check", "--json", fleetFile)
	var reports []struct {
		Quad string `json:"quad"`
	}
	var raw []json.RawMessage
	require.NoError(t, json.Unmarshal([]byte(out), &reports))
	require.NoError(t, json.Unmarshal([]byte(out), &raw))
	require.Len(t, reports, 9)
	p := start(t, build(t), "demo")
	for i, r := range reports {
		var cli struct {
			Level string          `json:"level"`
			Gates json.RawMessage `json:"gates"`
		}
		var screen struct {
			Judgement struct {
				Level string          `json:"level"`
				Gates json.RawMessage `json:"gates"`
			} `json:"judgement"`
		}
		require.NoError(t, json.Unmarshal(raw[i], &cli))
		require.NoError(t, json.Unmarshal([]byte(p.call(t, "GET", "/api/quads/"+r.Quad, "")), &screen))
		assert.Equal(t, screen.Judgement.Level, cli.Level, r.Quad)
		assert.JSONEq(t, string(screen.Judgement.Gates), string(cli.Gates), r.Quad)
	}
}

func BenchmarkStartToFirstHealthAnswer(b *testing.B) {
	binary := build(b)
	for b.Loop() {
		begin := time.Now()
		p := start(b, binary, "demo")
		p.call(b, "GET", "/api/health", "")
		b.ReportMetric(float64(time.Since(begin).Milliseconds()), "ms-to-answer")
		p.cmd.Process.Kill()
		p.cmd.Wait()
	}
	b.ReportMetric(1000, "goal-ms")
}
