import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { standInNotice } from '@inkwell/core/model';
import { Ajv2020 } from 'ajv/dist/2020.js';
import addFormats from 'ajv-formats';
import { pino } from 'pino';
import { inject } from 'vitest';
import type { NetworkAccount } from '../../networkAccounts.ts';
import { type NetworkSheet, networkSheets } from '../../standins/networkSheet.ts';
import { startStandIns } from '../../standins/startStandIns.ts';

const published = join(import.meta.dirname, '..', '..', '..', 'docs', 'formats', 'network.openapi.json');
const description = JSON.parse(readFileSync(published, 'utf8')) as {
  paths: Record<string, Record<string, { responses: Record<string, { content?: Record<string, unknown> }> }>>;
};
const ajv = new Ajv2020({ strict: false });
addFormats.default(ajv);
ajv.addSchema(description, 'network');

/** A manner of patience, so that only the tests about manners meet them. */
export const patient: NetworkSheet['manners'] = {
  requests: { most: 10_000, perSeconds: 1 },
  failsOnceIn: 0,
  dropsOnceIn: 0,
  slowMs: 0,
};

/** The networks that ship, patient unless a test says otherwise. */
export const networksWith = (change: (sheet: NetworkSheet) => Partial<NetworkSheet> = () => ({})): NetworkSheet[] =>
  networkSheets().map((sheet) => ({ ...sheet, manners: { ...patient }, ...change(sheet) }));

/** Starts networks on a database. */
export const startNetworksOn = (databaseUrl: string, sheets: readonly NetworkSheet[], dataFolder: string) =>
  startStandIns(databaseUrl, join(dataFolder, 'networks.json'), sheets, pino({ level: 'silent' }));

export const dataFolder = () => inject('dataFolder');

export interface NetworkAnswer {
  status: number;
  headers: Headers;
  /** Parsed where it is JSON. */
  body: unknown;
  data: Buffer;
}

/** Asks a network, and holds what it answers against the published description. */
export async function askNetwork(
  { address, token }: Pick<NetworkAccount, 'address' | 'token'>,
  method: string,
  path: string,
  { headers = {}, body }: { headers?: Record<string, string>; body?: string | Uint8Array<ArrayBuffer> } = {},
): Promise<NetworkAnswer> {
  const response = await fetch(`${address}${path}`, {
    method,
    headers: { authorization: `Bearer ${token}`, ...headers },
    ...(body === undefined ? {} : { body }),
  });
  const data = Buffer.from(await response.arrayBuffer());
  const answer = { status: response.status, headers: response.headers, data, body: parsed(response.headers, data) };
  checkDescribed(method.toLowerCase(), path, answer);
  return answer;
}

const parsed = (headers: Headers, data: Buffer): unknown =>
  headers.get('content-type')?.startsWith('application/json') ? JSON.parse(data.toString()) : null;

/** @throws where an answer is not as the description says */
function checkDescribed(method: string, path: string, { status, headers, body }: NetworkAnswer): void {
  const known = Object.keys(description.paths).find((one) =>
    new RegExp(`^${one.replace(/\{\w+\}/g, '[^/]+')}$`).test(path),
  );
  const where = `${method} ${path} answered ${status}`;
  const content = known && description.paths[known]?.[method]?.responses[`${status}`];
  if (!known || !content) throw new Error(`${where}, which is not described.`);
  if (headers.get('x-stand-in') !== standInNotice) throw new Error(`${where} without saying that it is simulated.`);
  const type = headers.get('content-type')?.split(';')[0] ?? null;
  const types = Object.keys(content.content ?? {});
  if (type === null ? types.length > 0 : !types.includes(type)) throw new Error(`${where} as ${type}.`);
  if (type !== 'application/json') return;
  const at = `network#/paths/${known.replace(/~/g, '~0').replace(/\//g, '~1').replace(/[{}]/g, encodeURIComponent)}/${method}/responses/${status}/content/application~1json/schema`;
  const validate = ajv.getSchema(at);
  if (!validate) throw new Error(`${where}, whose schema is not to be found.`);
  if (!validate(body)) throw new Error(`${where}: ${ajv.errorsText(validate.errors)}`);
}
