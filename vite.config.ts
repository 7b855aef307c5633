import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  root: 'web',
  plugins: [react()],
  build: { outDir: 'dist', emptyOutDir: true, target: 'es2022', manifest: true },
  server: { proxy: { '/api': process.env.CADENZA_API ?? 'http://127.0.0.1:4181' } },
});
