import { defineConfig } from 'drizzle-kit';

export default defineConfig({
  dialect: 'postgresql',
  schema: './standins/store/schema.ts',
  out: './standins/store/migrations',
  schemaFilter: ['standins'],
});
