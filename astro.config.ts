import { defineConfig } from 'astro/config';
import node from '@astrojs/node';
import react from '@astrojs/react';

export default defineConfig({
  output: 'server',
  adapter: node({ mode: 'standalone' }),
  integrations: [react()],
  devToolbar: { enabled: false },
  telemetry: false,
  server: { host: '127.0.0.1' },
  // The middleware checks the origin of every unsafe request, whatever its content type.
  security: { checkOrigin: false },
  vite: {
    // What must not be external has no exports that Node.js itself resolves; its helpers do.
    ssr: { external: ['sequelize', 'pg', 'umzug', 'pdfmake', 'pino', '@babel/runtime'], noExternal: ['@atlaskit/pragmatic-drag-and-drop'] },
    worker: { format: 'es' },
    build: { assetsInlineLimit: 0 },
  },
} as Parameters<typeof defineConfig>[0]);
