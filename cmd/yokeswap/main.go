// Command yokeswap plans moves from analog to HD video and swaps between
// generations of air units on FPV quads: it serves the interface, and checks,
// imports and exports the open formats.
package main

import (
	"errors"
	"flag"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strings"
)

// version is set by the build.
var version = "dev"

// The exit codes.
const (
	exitOK    = 0
	exitFound = 1 // check: something needs a change, does not fit or is unknown
	exitBad   = 2 // bad input or use
)

// command is one subcommand.
type command struct {
	name, args, does string
	run              func(c *call) error
}

// call is one use of a subcommand.
type call struct {
	flags  *flag.FlagSet
	args   []string
	stdin  io.Reader
	stdout io.Writer
	stderr io.Writer
	exit   int // where the command succeeds, but has something to say
}

var commands = []command{
	{
		"serve",
		"[--listen 127.0.0.1:8740] [--data DIR] [--far-boards]",
		"serve the interface and keep its data in DIR",
		serve,
	},
	{"demo", "[--listen ADDRESS] [--data DIR]", "serve a fresh copy of the demo; --data keeps it", demoServe},
	{"check", "[--json] [--gear FILE]… [--data DIR] FILE", "judge a fleet file, or validate a gear pack", check},
	{"import", "[--data DIR] [--replace] [--dry-run] FILE…", "take gear packs and fleet files in", importFiles},
	{"export", "[--data DIR] [--gear ID] [--output FILE]", "write the fleet file, or a gear pack", export},
	{
		"sim",
		"board [--listen 127.0.0.1:8741] [--quad ID] [--slow MS] [--cut-after N] [--wrong-checksum] [--variant FOUR] " +
			"[--refuse-save] [--armed] [--silent] …",
		"stand in for a flight board over TCP",
		standIn,
	},
	{"backup", "[--data DIR] FILE", "write all that is kept into one file, and check it", backup},
	{"restore", "[--data DIR] [--replace] FILE", "put a backup into DIR", restore},
	{"doctor", "[--data DIR] [--repair]", "say what is wrong with the database in DIR, and mend it", doctor},
	{"openapi", "", "write the description of the API", openapi},
	{"version", "", "say which version this is", func(c *call) error {
		_, err := fmt.Fprintln(c.stdout, "yokeswap", version)
		return err
	}},
}

func main() {
	os.Exit(run(os.Args[1:], os.Stdin, os.Stdout, os.Stderr))
}

func run(args []string, stdin io.Reader, stdout, stderr io.Writer) int {
	if len(args) == 0 {
		usage(stderr)
		return exitBad
	}
	if args[0] == "help" || args[0] == "-h" || args[0] == "--help" {
		usage(stdout)
		return exitOK
	}
	for _, cmd := range commands {
		if cmd.name != args[0] {
			continue
		}
		c := &call{
			flags:  flag.NewFlagSet(cmd.name, flag.ContinueOnError),
			args:   args[1:],
			stdin:  stdin,
			stdout: stdout,
			stderr: stderr,
		}
		c.flags.SetOutput(stderr)
		c.flags.Usage = func() { fmt.Fprintf(stderr, "usage: yokeswap %s %s\n", cmd.name, cmd.args) }
		switch err := cmd.run(c); {
		case errors.Is(err, flag.ErrHelp):
			return exitOK
		case err != nil:
			fmt.Fprintf(stderr, "yokeswap %s: %s\n", cmd.name, err)
			return exitBad
		}
		return c.exit
	}
	fmt.Fprintf(stderr, "yokeswap: there is no command %q\n", args[0])
	usage(stderr)
	return exitBad
}

func usage(w io.Writer) {
	fmt.Fprintln(w, "usage: yokeswap COMMAND")
	for _, cmd := range commands {
		fmt.Fprintf(w, "  %-8s %s\n           %s\n", cmd.name, cmd.does, cmd.args)
	}
}

// parse reads the flags, which may stand before or after the names.
func (c *call) parse() ([]string, error) {
	var names []string
	rest := c.args
	for {
		if err := c.flags.Parse(rest); err != nil {
			return nil, err
		}
		rest = c.flags.Args()
		if len(rest) == 0 {
			return names, nil
		}
		names = append(names, rest[0])
		rest = rest[1:]
	}
}

// dataFlag adds --data, which defaults to a folder of the user's own.
func (c *call) dataFlag() *string {
	home := ".yokeswap"
	if dir, err := os.UserConfigDir(); err == nil {
		home = filepath.Join(dir, "yokeswap")
	}
	return c.flags.String("data", home, "the folder that holds the data")
}

// many is a flag that may be given more than once.
type many []string

func (m *many) String() string     { return strings.Join(*m, ",") }
func (m *many) Set(s string) error { *m = append(*m, s); return nil }
