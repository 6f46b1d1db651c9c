import { join } from 'node:path';
import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';
import { writeOfflineWorker } from './src/offline/build';
import { libraries } from './src/typing/libraries';

/** The declarations of the language itself, for the check of scripts by types. */
const language = (): Plugin => ({
  name: 'language-declarations',
  resolveId: (id) => (id === 'virtual:language-declarations' ? `\0${id}` : undefined),
  load: (id) =>
    id === '\0virtual:language-declarations' ? `export default ${JSON.stringify(libraries())}` : undefined,
});

/** Beside the built app, the worker that keeps it in the browser. */
const offline = (): Plugin => ({
  name: 'offline',
  apply: 'build',
  closeBundle: () => writeOfflineWorker(import.meta.dirname, join(import.meta.dirname, 'dist')),
});

export default defineConfig({
  plugins: [react(), tailwindcss(), language(), offline()],
  worker: { format: 'es', plugins: () => [language()] },
  build: { target: 'es2022', chunkSizeWarningLimit: 1500 },
  optimizeDeps: { exclude: ['harfbuzzjs', 'woff2-encoder'] },
});
