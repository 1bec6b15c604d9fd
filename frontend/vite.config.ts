import optimizeLocales from '@react-aria/optimize-locales-plugin';
import react from '@vitejs/plugin-react';
import { defineConfig, type HtmlTagDescriptor, type Plugin } from 'vite';

/** The page that most people open first, and the faces of type it is set in, are fetched together with the program. */
const FIRST = /features\/size\/SizePage\.tsx$/;
const FACES = /latin-(wght|500|600)-normal-[\w-]+\.woff2$/;
const firstPage = (): Plugin => ({
  name: 'first-page',
  transformIndexHtml: {
    order: 'post',
    handler(_, { bundle = {} }) {
      const chunks = new Set<string>();
      const add = (name: string) => {
        const chunk = bundle[name];
        if (chunk?.type !== 'chunk' || chunk.isEntry || chunks.has(name)) return;
        chunks.add(name);
        chunk.imports.forEach(add);
      };
      for (const chunk of Object.values(bundle))
        if (chunk.type === 'chunk' && FIRST.test(chunk.facadeModuleId ?? '')) add(chunk.fileName);
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

export default defineConfig({
  // Kobrix speaks English: the thirty other languages of the controls' own words stay out.
  plugins: [react(), { ...optimizeLocales.vite({ locales: ['en-US'] }), enforce: 'pre' }, firstPage()],
  build: {
    target: 'es2022',
    assetsInlineLimit: 0,
    sourcemap: false,
    // What several pages share is one file beside the program's own: fewer to ask for before the first page.
    rolldownOptions: { output: { codeSplitting: { groups: [{ name: 'shared', minShareCount: 2 }] } } },
  },
});
