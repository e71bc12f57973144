// Checks the types and bundles the page into the folder that the first argument names. Installs what package-lock.json
// names first, when that has changed since the last time. With --watch it bundles into a page that is there, as it can be
// debugged, and anew whenever a source changes; types are the editor's to check then.
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { copyFileSync, existsSync, mkdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const out = process.argv[2];
const watching = process.argv[3] === '--watch';
const npm = process.platform === 'win32' ? 'npm.cmd' : 'npm';
const LARGEST_BUNDLE = 240_000;

const lock = createHash('sha256').update(readFileSync('package-lock.json')).digest('hex');
const installed = 'node_modules/.installed-from';
if (!existsSync(installed) || readFileSync(installed, 'utf8') !== lock) {
  console.log("Installing the page's libraries with npm ci");
  execFileSync(npm, ['ci', '--no-audit', '--no-fund'], { stdio: 'inherit', shell: process.platform === 'win32' });
  writeFileSync(installed, lock);
}

if (!watching) execFileSync(process.execPath, ['node_modules/typescript/bin/tsc'], { stdio: 'inherit' });

const { build, context } = await import('esbuild');
mkdirSync(out, { recursive: true });
const options = {
  entryPoints: { verbale: 'src/main.tsx' },
  outdir: out,
  bundle: true,
  minify: !watching,
  sourcemap: watching && 'inline',
  format: 'iife', // a page that was opened from disk may not load modules
  target: ['chrome110', 'firefox110', 'safari16'],
  jsx: 'automatic',
  jsxImportSource: 'preact',
  loader: { '.woff2': 'dataurl' },
  legalComments: 'inline',
  banner: {
    js: '/*! With Preact and @preact/signals (MIT), jsonc-parser (MIT), diff (BSD-3-Clause), d3-scale and what it needs (ISC) */',
    css: '/*! With Source Serif 4 (SIL Open Font License 1.1) */',
  },
  logLevel: watching ? 'info' : 'warning',
};
if (watching) {
  writeFileSync(join(out, 'index.html'), developed(readFileSync('index.html', 'utf8')));
  await (await context(options)).watch();
} else {
  copyFileSync('index.html', join(out, 'index.html'));
  await build(options);
  checkSize();
}

/** A page whose script and styles are files beside it. */
function developed(index) {
  return '<!doctype html>\n' + index
    .replace(/<meta http-equiv.*/, '')
    .replace('<style>[style]</style>', '<link rel="stylesheet" href="verbale.css">')
    .replace('<script>[script]</script>', '<script src="verbale.js"></script>')
    .replace(/\[\w+]/g, '');
}

function checkSize() {
  const size = statSync(join(out, 'verbale.js')).size;
  if (size > LARGEST_BUNDLE) throw new Error(`verbale.js has ${size} bytes, and ${LARGEST_BUNDLE} are allowed`);
}
