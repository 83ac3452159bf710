import {
  AnalysisSchema,
  DeliverySchema,
  DryRunSchema,
  FinishSchema,
  FrameSchema,
  FrameSettingsSchema,
  LetteringSchema,
  LetterStyleSchema,
  MeasuredSchema,
  OpenProjectSchema,
  OriginalSchema,
  PlaceSchema,
  PlaceSetSchema,
  ProjectSchema,
  SimilaritySchema,
  SpecSheetSchema,
  TreatmentSchema,
  WeighingSchema,
  WeightSchema,
} from '@inkwell/core/model';
import { z } from 'zod';
import { createDocument, type ZodOpenApiOperationObject, type ZodOpenApiPathsObject } from 'zod-openapi';
import type { Contract, Route } from './contract.ts';

/** Things that are described once, and named wherever they are taken or answered. */
const named = {
  Analysis: AnalysisSchema,
  Delivery: DeliverySchema,
  DryRun: DryRunSchema,
  Finish: FinishSchema,
  Frame: FrameSchema,
  FrameSettings: FrameSettingsSchema,
  Lettering: LetteringSchema,
  LetterStyle: LetterStyleSchema,
  Measured: MeasuredSchema,
  OpenProject: OpenProjectSchema,
  Original: OriginalSchema,
  Place: PlaceSchema,
  PlaceSet: PlaceSetSchema,
  Project: ProjectSchema,
  Similarity: SimilaritySchema,
  SpecSheet: SpecSheetSchema,
  Treatment: TreatmentSchema,
  Weighing: WeighingSchema,
  Weight: WeightSchema,
  Refusal: z.looseObject({ message: z.string().describe('What was wrong, and what to do.') }),
};

const about = `Everything that the pages of Inkwell Frame use. Addresses begin with /api/v1; what is taken and answered is JSON in UTF-8,
but for files. A request that is refused gets a status from 400 on and a sentence in \`message\`. Changes name the \`version\` that they
were made on: where that is not the newest any more, they are answered 409, with what is there now in \`current\`.`;

/** The API as an OpenAPI 3.1 document, made from the contracts that requests are checked by. */
export function openApi(routes: readonly Route[]) {
  const paths: ZodOpenApiPathsObject = {};
  for (const route of routes) {
    const path = route.path.replace(/:(\w+)/g, '{$1}');
    paths[path] = { ...paths[path], [route.method]: operation(route) };
  }
  return createDocument(
    {
      openapi: '3.1.0',
      info: { title: 'Inkwell Frame', version: '1', description: about },
      servers: [{ url: '/api/v1' }],
      tags: [...new Set(routes.map(({ of }) => of))].map((name) => ({ name })),
      security: [{ token: [] }, {}],
      paths,
      components: {
        schemas: named,
        securitySchemes: { token: { type: 'http', scheme: 'bearer', description: 'A token of the program.' } },
      },
    },
    { allowEmptySchema: { unknown: true, custom: true, any: true } },
  );
}

function operation({ method, path, of, contract }: Route): ZodOpenApiOperationObject {
  const names = [...path.matchAll(/:(\w+)/g)].map(([, name = '']) => name);
  const ids = Object.fromEntries(names.map((name) => [name, name === 'id' ? z.uuid() : z.string()]));
  const words = path.split(/[^a-z0-9]+/i).filter(Boolean);
  return {
    operationId: [method, ...words.map((word) => word.charAt(0).toUpperCase() + word.slice(1))].join(''),
    tags: [of],
    ...saying(contract.does),
    requestParams: {
      ...(names.length > 0 ? { path: z.object(ids) } : {}),
      ...(contract.query instanceof z.ZodObject ? { query: contract.query } : {}),
    },
    ...bodyOf(contract),
    responses: {
      ...answerOf(contract),
      default: {
        description: 'Refused.',
        content: { 'application/json': { schema: named.Refusal } },
      },
    },
  };
}

/** The first sentence stands in lists; the others only where a route is looked at. */
function saying(does: string): Pick<ZodOpenApiOperationObject, 'summary' | 'description'> {
  const end = does.indexOf('. ') + 1;
  return end > 0 ? { summary: does.slice(0, end), description: does.slice(end + 1) } : { summary: does };
}

function bodyOf({ takes, described, file }: Contract): Pick<ZodOpenApiOperationObject, 'requestBody'> {
  const schema = described ?? takes;
  if (schema) return { requestBody: { required: true, content: { 'application/json': { schema } } } };
  if (!file) return {};
  const form = z.object({ file: z.string().meta({ format: 'binary' }) });
  return { requestBody: { required: true, content: { 'multipart/form-data': { schema: form } } } };
}

function answerOf({ answers, sends, status }: Contract): ZodOpenApiOperationObject['responses'] {
  if (answers) {
    return { [String(status ?? 200)]: { description: 'Done.', content: { 'application/json': { schema: answers } } } };
  }
  if (!sends) return { [String(status ?? 204)]: { description: 'Done.' } };
  const content = Object.fromEntries(sends.map((type) => [type.split(';')[0], {}]));
  return { '200': { description: 'The file.', content } };
}
