import { defineConfig, passthroughImageService } from 'astro/config';
import node from '@astrojs/node';
import react from '@astrojs/react';

/**
 * Scripts of the page are compiled whole and off its thread where the browser can do so, not function by
 * function as they are first called:
 * a first decision is waited for like any other.
 */
const compiledAhead = {
  name: 'compiled-ahead',
  applyToEnvironment: (environment: { name: string }) => environment.name === 'client',
  // The wish counts on the first line only, so nobody may write above it.
  generateBundle: {
    order: 'post' as const,
    handler(_: unknown, bundle: Record<string, { type: string; code?: string }>) {
      for (const chunk of Object.values(bundle))
        if (chunk.type === 'chunk') chunk.code = `//# allFunctionsCalledOnLoad\n${chunk.code ?? ''}`;
    },
  },
};

export default defineConfig({
  output: 'server',
  adapter: node({ mode: 'middleware' }),
  // Pictures are shipped as they are: nothing is made of them on the way.
  image: { service: passthroughImageService() },
  integrations: [react()],
  devToolbar: { enabled: false },
  telemetry: false,
  server: { host: '127.0.0.1' },
  // The middleware checks the origin of every unsafe request, whatever its content type.
  security: { checkOrigin: false },
  vite: {
    plugins: [compiledAhead],
    // What must not be external has no exports that Node.js itself resolves; its helpers do.
    ssr: {
      external: ['sequelize', 'pg', 'umzug', 'pdfmake', 'pino', '@babel/runtime'],
      noExternal: ['@atlaskit/pragmatic-drag-and-drop'],
    },
    worker: { format: 'es' },
    build: { assetsInlineLimit: 0 },
  },
} as Parameters<typeof defineConfig>[0]);
