import path from 'node:path';
import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';
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

/** The app as one that is installed: all it is made of is kept by the browser, and it starts without its server. */
const offline = VitePWA({
  registerType: 'prompt',
  injectRegister: null,
  includeAssets: [],
  manifest: {
    id: '/',
    name: 'Pyrvel',
    short_name: 'Pyrvel',
    description: 'An instrument for live visuals.',
    start_url: '/build',
    display: 'standalone',
    background_color: '#14110f',
    theme_color: '#1c1815',
    icons: [
      { src: 'icon-192.png', sizes: '192x192', type: 'image/png' },
      { src: 'icon-512.png', sizes: '512x512', type: 'image/png' },
      { src: 'icon-maskable.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
    ],
  },
  workbox: {
    globPatterns: ['index.html', 'stage.html', 'mark.svg', 'media/*', 'assets/*.{js,css,woff,woff2,wasm}'],
    globIgnores: ['assets/{bench,probe,render}-*'],
    maximumFileSizeToCacheInBytes: 4e6,
    navigateFallback: 'index.html',
    // Views are addresses of one word; everything else is the server's.
    navigateFallbackAllowlist: [/^\/[a-z]*$/],
    navigateFallbackDenylist: [/^\/(remote|player)$/],
    cleanupOutdatedCaches: true,
    runtimeCaching: [
      {
        urlPattern: ({ url }) => url.pathname.startsWith('/demo/'),
        handler: 'NetworkFirst',
        options: { cacheName: 'demo' },
      },
      { urlPattern: /\/assets\/[^/]+\.png$/, handler: 'CacheFirst', options: { cacheName: 'pictures' } },
    ],
  },
});

export default defineConfig({
  plugins: [react(), tailwindcss(), ownServer, offline],
  worker: { format: 'es' },
  build: {
    outDir: 'dist',
    target: 'es2022',
    chunkSizeWarningLimit: 2500,
    rollupOptions: {
      input: {
        index: page('index'),
        stage: page('stage'),
        remote: page('remote'),
        player: page('player'),
        render: page('render'),
        bench: page('bench'),
        probe: page('probe'),
      },
    },
  },
});
