import react from '@vitejs/plugin-react';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [react()],
  base: '/build/',
  publicDir: false,
  build: {
    outDir: 'public/build',
    emptyOutDir: true,
    manifest: 'manifest.json',
    rollupOptions: { input: 'resources/js/main.tsx' },
  },
  test: { environment: 'happy-dom', include: ['resources/js/**/*.test.{ts,tsx}'], globals: false },
});
