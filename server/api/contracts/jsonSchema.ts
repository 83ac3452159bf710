import { z } from 'zod';

/** An answer that is a JSON Schema itself. */
export const JsonSchema = z.custom<z.core.JSONSchema.BaseSchema>(() => true);
