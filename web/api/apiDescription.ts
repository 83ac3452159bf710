import { useQuery } from '@tanstack/react-query';
import { z } from 'zod';
import { api, ask } from './client.ts';

/** A JSON Schema, as far as it is told in words. */
export interface Schema {
  $ref?: string;
  type?: string | string[];
  const?: unknown;
  enum?: unknown[];
  format?: string;
  description?: string;
  default?: unknown;
  properties?: Record<string, Schema>;
  required?: string[];
  additionalProperties?: boolean | Schema;
  items?: Schema;
  anyOf?: Schema[];
  oneOf?: Schema[];
  allOf?: Schema[];
  minimum?: number;
  maximum?: number;
  exclusiveMinimum?: number;
  exclusiveMaximum?: number;
  minLength?: number;
  maxLength?: number;
  minItems?: number;
  maxItems?: number;
}
const AnySchema = z.custom<Schema>((value) => typeof value === 'object' && value !== null);
const ContentSchema = z.record(z.string(), z.object({ schema: AnySchema.optional() }));
const OperationSchema = z.object({
  operationId: z.string(),
  tags: z.array(z.string()),
  summary: z.string(),
  description: z.string().optional(),
  parameters: z
    .array(
      z.object({
        name: z.string(),
        in: z.enum(['path', 'query']),
        required: z.boolean().optional(),
        schema: AnySchema,
      }),
    )
    .default([]),
  requestBody: z.object({ content: ContentSchema }).optional(),
  responses: z.record(z.string(), z.object({ content: ContentSchema.optional() })),
});
export type Operation = z.infer<typeof OperationSchema>;
const DescriptionSchema = z.object({
  info: z.object({ description: z.string() }),
  tags: z.array(z.object({ name: z.string() })),
  paths: z.record(z.string(), z.record(z.string(), OperationSchema)),
  components: z.object({ schemas: z.record(z.string(), AnySchema) }),
});
export type ApiDescription = z.infer<typeof DescriptionSchema>;

/** The document that describes the API, for programs that read OpenAPI. */
export const apiDescriptionUrl = `${api}/openapi.json`;

/** What the API takes and answers. */
export const useApiDescription = () =>
  useQuery({
    queryKey: ['api-description'],
    queryFn: () => ask(DescriptionSchema, '/openapi.json'),
    staleTime: Number.POSITIVE_INFINITY,
  });
