import node from '@astrojs/node';
import react from '@astrojs/react';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'astro/config';

export default defineConfig({
  output: 'server',
  // Our own server stands before Astro, and sends the files of the build.
  adapter: node({ mode: 'middleware' }),
  integrations: [react()],
  // Our own check covers every write, JSON among them; Astro's covers forms only.
  security: { checkOrigin: false, allowedDomains: [{ hostname: '127.0.0.1' }, { hostname: 'localhost' }] },
  devToolbar: { enabled: false },
  build: { inlineStylesheets: 'never' },
  vite: {
    plugins: [tailwindcss()],
    build: { target: 'es2022', assetsInlineLimit: 0 },
    worker: { format: 'es' },
    ssr: {
      // A thousand small files: read one by one, they would hold up the first request for seconds.
      noExternal: ['react-aria', 'react-stately', 'react-aria-components', /^@internationalized\//, /^@tanstack\//, 'lucide-react', 'culori'],
      external: ['better-sqlite3', 'knex', 'sharp', 'piscina', '@napi-rs/canvas', '@node-rs/argon2', 'pino'],
    },
  },
});
