import optimizeLocales from '@react-aria/optimize-locales-plugin';
import react from '@vitejs/plugin-react';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { defineConfig, type HtmlTagDescriptor, type Plugin } from 'vite';

/** The page that most people open first, and the faces of type it is set in, are fetched together with the program. */
const FIRST = 'src/stages/size/SizePage.tsx';
const FACES = /latin-(wght|500|600)-normal-[\w-]+\.woff2$/;
const firstPage = (): Plugin => ({
  name: 'first-page',
  transformIndexHtml: {
    order: 'post',
    handler(html, { bundle = {} }) {
      const chunks = new Set<string>();
      const add = (name: string) => {
        const chunk = bundle[name];
        if (chunk?.type !== 'chunk' || html.includes(name) || chunks.has(name)) return; // linked already
        chunks.add(name);
        chunk.imports.forEach(add);
      };
      for (const chunk of Object.values(bundle))
        if (chunk.type === 'chunk' && chunk.facadeModuleId?.endsWith(FIRST)) add(chunk.fileName);
      const link = (attrs: HtmlTagDescriptor['attrs']): HtmlTagDescriptor => ({ tag: 'link', attrs, injectTo: 'head' });
      return [
        ...[...chunks].map((name) => link({ rel: 'modulepreload', href: `/${name}` })),
        ...Object.keys(bundle)
          .filter((name) => FACES.test(name) && !name.includes('-ext-'))
          .map((name) => link({ rel: 'preload', as: 'font', type: 'font/woff2', href: `/${name}`, crossorigin: true })),
      ];
    },
  },
});

/** The packages that are shipped, faces of type among them, with their licences as they came. */
const thirdParty = (): Plugin => ({
  name: 'third-party',
  generateBundle() {
    const lock = JSON.parse(readFileSync('package-lock.json', 'utf-8')) as {
      packages: Record<string, { dev?: boolean; version: string; license?: string }>;
    };
    const rule = '='.repeat(78);
    const parts = Object.entries(lock.packages).flatMap(([folder, { dev, version, license }]) => {
      if (folder === '' || dev || !existsSync(folder)) return [];
      const texts = readdirSync(folder).filter((name) => /^(licen[cs]e|copying|notice)/i.test(name));
      const head = `${folder.replace(/^.*node_modules\//, '')} ${version} (${license ?? 'see below'})`;
      return [
        [`${rule}\n${head}\n${rule}`, ...texts.map((name) => readFileSync(`${folder}/${name}`, 'utf-8').trim())].join(
          '\n\n',
        ),
      ];
    });
    const head =
      'Kobrix is built with the packages below. They belong to their authors, who license them as each says.';
    this.emitFile({ type: 'asset', fileName: 'third-party.txt', source: `${head}\n\n${parts.join('\n\n')}\n\n` });
  },
});

/** Scripts and styles stand beside themselves compressed, for a phone on a workshop's network. */
const compressed = (): Plugin => ({
  name: 'compressed',
  writeBundle({ dir = '.' }, bundle) {
    for (const name of Object.keys(bundle).filter((file) => /\.(js|css)$/.test(file)))
      writeFileSync(`${dir}/${name}.gz`, gzipSync(readFileSync(`${dir}/${name}`), { level: 9 }));
  },
});

export default defineConfig({
  // Kobrix speaks English: the thirty other languages of the controls' own words stay out.
  plugins: [
    react(),
    { ...optimizeLocales.vite({ locales: ['en-US'] }), enforce: 'pre' },
    firstPage(),
    thirdParty(),
    compressed(),
  ],
  build: {
    target: 'es2022',
    assetsInlineLimit: 0,
    sourcemap: false,
    // What the first page shares with others is one file beside the program's own: fewer to ask for before it is
    // there. What only later pages share is another, and does not wait in its way.
    rolldownOptions: {
      input: { index: 'index.html', size: FIRST },
      output: {
        codeSplitting: {
          groups: [
            { name: 'shared', tags: ['$initial'], minShareCount: 2, priority: 1 },
            { name: 'further', minShareCount: 2 },
          ],
        },
      },
    },
  },
});
