import path from 'node:path';
import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';
import type { makeApp as MakeApp } from './src/server/server';

const page = (name: string): string => path.resolve(import.meta.dirname, `${name}.html`);

/** In development the app's own server answers what is not a file: OSC. */
const ownServer: Plugin = {
  name: 'pyrvel-server',
  async configureServer(server) {
    const { makeApp } = (await server.ssrLoadModule('/src/server/server.ts')) as { makeApp: typeof MakeApp };
    const app = makeApp();
    server.middlewares.use((request, response, next) => {
      if (request.url?.startsWith('/osc')) app(request, response);
      else next();
    });
  },
};

export default defineConfig({
  plugins: [react(), tailwindcss(), ownServer],
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
