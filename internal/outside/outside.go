// Package outside finds the programs of others that the checks are held against.
package outside

import (
	"os"
	"os/exec"
	"testing"
)

// Program is the path of a reference program, which `make test` installs from Debian.
// Where it is not there, or the tests are to be short, the check against it is left out;
// a build server that lacks it fails.
func Program(t testing.TB, name string) string {
	t.Helper()
	if testing.Short() {
		t.Skipf("short: the check against %s is left out", name)
	}
	path, err := exec.LookPath(name)
	if err != nil {
		if os.Getenv("CI") != "" {
			t.Fatalf("%s is missing", name)
		}
		t.Skipf("%s is not installed: this check against it is left out", name)
	}
	return path
}
