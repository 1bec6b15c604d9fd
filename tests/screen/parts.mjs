// Runs the screen's own modules: asked line by line on standard input, answered line by line on standard output.
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { rolldown } from '../../frontend/node_modules/rolldown/dist/index.mjs';

const source = fileURLToPath(new URL('../../frontend/src/', import.meta.url));
const packages = fileURLToPath(new URL('../../frontend/node_modules', import.meta.url));
// All modules that are asked for are one bundle: what they share, such as the units chosen, is then shared here too.
const folder = await mkdtemp(join(tmpdir(), 'kobrix-screen-'));
const wanted = process.argv.slice(2);
const entry = '\0asked';
const bundle = await rolldown({
  input: entry,
  platform: 'node',
  plugins: [
    {
      name: 'asked',
      resolveId: (id) => (id === entry ? id : null),
      load: (id) =>
        id === entry
          ? wanted.map((name, i) => `export * as m${i} from ${JSON.stringify(join(source, name))};`).join('\n') +
            '\nexport { createElement } from "react";\nexport { renderToStaticMarkup } from "react-dom/server";'
          : null,
    },
  ],
  resolve: {
    modules: [packages, 'node_modules'],
    alias: { 'styled-components': join(packages, 'styled-components/dist/styled-components.esm.js') },
  },
  transform: { define: { 'process.env.NODE_ENV': '"production"' } },
});
await bundle.write({ dir: folder, format: 'esm', entryFileNames: 'screen.mjs' });
const { createElement, renderToStaticMarkup, ...modules } = await import(pathToFileURL(join(folder, 'screen.mjs')).href);
await rm(folder, { recursive: true });
const store = new Map();
globalThis.window = {
  localStorage: { getItem: (key) => store.get(key) ?? null, setItem: (key, text) => store.set(key, text) },
  addEventListener: () => {},
  matchMedia: () => ({ matches: false, addEventListener: () => {} }),
};

const named = Object.fromEntries(wanted.map((name, i) => [name, modules[`m${i}`]]));

for await (const line of createInterface({ input: process.stdin })) {
  const { module, name, args, drawn } = JSON.parse(line);
  try {
    const own = named[module][name];
    const value = drawn ? renderToStaticMarkup(createElement(own, args[0])) : typeof own === 'function' ? own(...args) : own;
    console.log(JSON.stringify({ value: value === undefined ? null : value }));
  } catch (error) {
    console.log(JSON.stringify({ error: String(error) }));
  }
}
process.exit(0); // what is drawn with leaves a channel open
