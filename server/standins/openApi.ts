import {
  AccountAnswerSchema,
  NetworkPostSchema,
  NetworkRefusalSchema,
  NewPostSchema,
  standInNotice,
} from '@inkwell/core/model';
import { z } from 'zod';

const schemaOf = (schema: z.ZodType, io: 'input' | 'output' = 'output') => {
  const { $schema: _, ...rest } = z.toJSONSchema(schema, { io });
  return rest;
};

const named = (name: string) => ({ $ref: `#/components/schemas/${name}` });
const json = (name: string) => ({ 'application/json': { schema: named(name) } });
const answered = (description: string, name: string) => ({ description, content: json(name) });
const picture = (types: readonly string[], description: string) => ({
  description,
  content: Object.fromEntries(types.map((type) => [type, {}])),
});
const inPath = (name: string, schema: object, description: string) => ({
  name,
  in: 'path',
  required: true,
  description,
  schema,
});
const id = inPath('id', { type: 'string', format: 'uuid' }, 'Of the post');
const number = inPath('number', { type: 'integer', minimum: 1 }, 'In the order of uploading, from 1');
const width = inPath('width', { type: 'integer', minimum: 1 }, 'In CSS pixels: one of the place’s shown widths');

/** What may go wrong with any request. */
const refusals = {
  '401': answered('The token is wrong', 'Refusal'),
  '429': {
    ...answered('Too many requests: the header says after how many seconds to ask again', 'Refusal'),
    headers: { 'Retry-After': { schema: { type: 'integer' } } },
  },
  '500': answered('The network is broken for the moment', 'Refusal'),
};
const gone = { '404': answered('No such post, place or width', 'Refusal') };
const unreadable = { '400': answered('The request cannot be understood', 'Refusal') };

/** How the simulated networks are spoken to, as OpenAPI 3.1: all of them alike, each at an address of its own. */
export const networkOpenApi = () => ({
  openapi: '3.1.0',
  info: {
    title: 'Simulated networks of Inkwell Frame',
    version: '1',
    description: `${standInNotice} Each network answers at an address of its own on 127.0.0.1; networks.json in the data folder names it, with the account’s token. Every answer has the header X-Stand-In.`,
  },
  security: [{ account: [] }],
  paths: {
    '/': {
      get: { summary: 'Which network this is', security: [], responses: { '200': answered('Its name', 'About') } },
    },
    '/account': {
      get: { summary: 'The account', responses: { '200': answered('What it has published', 'Account'), ...refusals } },
    },
    '/posts': {
      post: {
        summary: 'Begin a post; under a key that was used before, the same post is answered',
        parameters: [
          {
            name: 'Idempotency-Key',
            in: 'header',
            required: true,
            schema: { type: 'string', minLength: 8, maxLength: 200 },
          },
        ],
        requestBody: { required: true, content: json('NewPost') },
        responses: {
          '201': answered('The post', 'Post'),
          '422': answered('It would have too many or too few files', 'Refusal'),
          ...unreadable,
          ...gone,
          ...refusals,
        },
      },
      delete: {
        summary: 'Delete everything that was posted',
        responses: { '204': { description: 'Done' }, ...refusals },
      },
    },
    '/posts/{id}': {
      get: {
        summary: 'A post',
        parameters: [id],
        responses: { '200': answered('The post', 'Post'), ...gone, ...refusals },
      },
      delete: {
        summary: 'Delete a post',
        parameters: [id],
        responses: { '204': { description: 'Done' }, ...gone, ...refusals },
      },
    },
    '/posts/{id}/files/{number}': {
      put: {
        summary: 'Upload the next file; the same file under the same number is taken once',
        parameters: [
          id,
          number,
          { name: 'X-Alternative-Text', in: 'header', description: 'Percent-encoded', schema: { type: 'string' } },
        ],
        requestBody: { required: true, content: { 'image/*': {} } },
        responses: {
          '200': answered('It was taken before', 'Post'),
          '201': answered('It is taken', 'Post'),
          '409': answered('It is not the next file, another one was taken, or the post is published', 'Refusal'),
          '413': answered('It is too heavy', 'Refusal'),
          '422': answered('It is not taken', 'Refusal'),
          ...unreadable,
          ...gone,
          ...refusals,
        },
      },
    },
    '/posts/{id}/publish': {
      post: {
        summary: 'Publish a post that has all its files; asked twice, it is published once',
        parameters: [id],
        responses: {
          '200': answered('The post', 'Post'),
          '409': answered('Files are missing', 'Refusal'),
          ...gone,
          ...refusals,
        },
      },
    },
    '/posts/{id}/files/{number}/kept': {
      get: {
        summary: 'What a file was turned into',
        parameters: [id, number],
        responses: { '200': picture(['image/jpeg', 'image/webp'], 'The picture'), ...gone, ...refusals },
      },
    },
    '/posts/{id}/files/{number}/shown/{width}': {
      get: {
        summary: 'What is shown of a file at a width',
        parameters: [id, number, width],
        responses: { '200': picture(['image/jpeg', 'image/webp'], 'The picture'), ...gone, ...refusals },
      },
    },
    '/posts/{id}/screen/{width}': {
      get: {
        summary: 'The post as its audience sees it: with mask, controls, gaps and fold',
        parameters: [id, width],
        responses: { '200': picture(['image/png'], 'The screen'), ...gone, ...refusals },
      },
    },
    '/profile': {
      get: {
        summary: 'The profile page, the newest post first',
        responses: { '200': picture(['image/png'], 'The page'), ...gone, ...refusals },
      },
    },
  },
  components: {
    securitySchemes: { account: { type: 'http', scheme: 'bearer' } },
    schemas: {
      About: schemaOf(AccountAnswerSchema.omit({ posts: true })),
      Account: schemaOf(AccountAnswerSchema),
      NewPost: schemaOf(NewPostSchema, 'input'),
      Post: schemaOf(NetworkPostSchema),
      Refusal: schemaOf(NetworkRefusalSchema),
    },
  },
});
