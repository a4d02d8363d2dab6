import path from 'node:path';
import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

const page = (name: string): string => path.resolve(import.meta.dirname, `${name}.html`);

export default defineConfig({
  plugins: [react(), tailwindcss()],
  worker: { format: 'es' },
  build: {
    outDir: 'dist',
    target: 'es2022',
    chunkSizeWarningLimit: 2500,
    rollupOptions: {
      input: {
        index: page('index'),
        stage: page('stage'),
        render: page('render'),
        bench: page('bench'),
        probe: page('probe'),
      },
    },
  },
});
