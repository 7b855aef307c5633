import { fileURLToPath } from 'node:url';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

/** The page begins with these: what closed tabs left unsent is taken over before anything else runs. They are a file of their own, which waits for the application. */
const START = /web\/(index\.html|src\/start\.ts)/;
/** And with what they share with the application: another file, so that it need not wait for them. */
const SHARED_WITH_START =
  /web\/src\/offline\/drafts\.ts|core\/src\/format\/version\.ts|node_modules\/nanoid|vite\/preload-helper/;

export default defineConfig({
  root: 'web',
  plugins: [react()],
  build: {
    outDir: 'dist',
    emptyOutDir: true,
    target: 'es2022',
    manifest: true,
    rolldownOptions: {
      input: ['index.html', 'src/main.tsx'].map((file) => fileURLToPath(new URL(`web/${file}`, import.meta.url))),
      output: {
        codeSplitting: {
          groups: [
            { name: 'start', test: SHARED_WITH_START, priority: 2, includeDependenciesRecursively: false },
            // What every page needs is one file: seventy small ones are seventy requests, six at a time.
            { name: 'application', test: (id) => !START.test(id), tags: ['$initial'], priority: 1 },
            // Fields, menus and dialogs that most places have.
            { name: 'fields', test: /node_modules/, minShareCount: 8 },
          ],
        },
      },
    },
  },
  server: { proxy: { '/api': process.env.CADENZA_API ?? 'http://127.0.0.1:4181' } },
});
