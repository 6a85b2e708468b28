import { defineConfig } from 'rolldown';

// The server and all that it needs in a few files: to read fifteen hundred takes it longer than all else that it begins with.
export default defineConfig({
  input: 'dist/main.js',
  platform: 'node',
  // The first two look for files beside their own; the others are what packages could use here, and nobody installed.
  external: ['swagger-ui-dist', 'umzug', 'pg-native', 'pg-hstore', /^@nestjs\/microservices/],
  output: { dir: 'dist/whole', format: 'esm', sourcemap: true, keepNames: true, cleanDir: true },
});
