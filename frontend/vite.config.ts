import optimizeLocales from '@react-aria/optimize-locales-plugin';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  // Kobrix speaks English: the thirty other languages of the controls' own words stay out.
  plugins: [react(), { ...optimizeLocales.vite({ locales: ['en-US'] }), enforce: 'pre' }],
  build: { target: 'es2022', assetsInlineLimit: 0, sourcemap: false },
});
