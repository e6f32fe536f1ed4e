// Writes ui/dist/app/notices.txt: the licences of all that goes into the program, the
// libraries of the Go modules and of the interface, and the fonts. Run by `make build`.
import { execFileSync } from 'node:child_process';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const out = process.argv[2] ?? 'ui/dist/app/notices.txt';

const licenceName = /^(licen[cs]e|copying|unlicense)/i;
const hasLicence = (folder) => readdirSync(folder).some((f) => licenceName.test(f));

/** The text of the licence in a folder; none is an error: nothing goes in without one. */
function licenceIn(folder, name) {
  const file = readdirSync(folder).find((f) => licenceName.test(f));
  if (!file) throw new Error(`${name} has no licence file in ${folder}`);
  return readFileSync(join(folder, file), 'utf8').trim();
}

const goModules = () => {
  const lines = execFileSync(
    'go',
    [
      'list',
      '-deps',
      '-f',
      '{{with .Module}}{{if not .Main}}{{.Path}} {{.Version}} {{.Dir}}{{end}}{{end}}',
      './cmd/yokeswap',
    ],
    { encoding: 'utf8' },
  );
  return [...new Set(lines.split('\n').filter(Boolean))].sort().map((line) => {
    const [path, version, dir] = line.split(' ');
    return { name: `${path} ${version}`, text: licenceIn(dir, path) };
  });
};

// What the interface is made of, as its build has written it down, and the fonts.
const fonts = ['@fontsource-variable/atkinson-hyperlegible-next', '@fontsource-variable/atkinson-hyperlegible-mono'];
const npmPackages = () => {
  const names = JSON.parse(readFileSync('ui/dist/app/packages.json', 'utf8'));
  return [...new Set([...names, ...fonts])].sort().map((name) => {
    const folder = join('node_modules', name);
    const about = JSON.parse(readFileSync(join(folder, 'package.json'), 'utf8'));
    return {
      name: `${name} ${about.version}`,
      text: hasLicence(folder) ? licenceIn(folder, name) : `Licence: ${about.license}`,
    };
  });
};

const go = {
  name: 'the Go standard library',
  text: licenceIn(execFileSync('go', ['env', 'GOROOT'], { encoding: 'utf8' }).trim(), 'Go'),
};
const parts = [
  { name: 'Yoke Swap', text: readFileSync('LICENSE', 'utf8').trim() },
  go,
  ...goModules(),
  ...npmPackages(),
];
writeFileSync(out, parts.map((p) => `${p.name}\n${'='.repeat(p.name.length)}\n\n${p.text}\n`).join('\n\n'));
console.log(`${parts.length} notices in ${out}`);
