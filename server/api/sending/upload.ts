import type { Readable } from 'node:stream';
import busboy from 'busboy';
import type { Request } from 'express';
import { UserError } from '../../userError.ts';

const formWords = (what: string) => `A ${what} has to be sent as a form with a part named file.`;

const because = (refusal: UserError, cause: unknown) => Object.assign(refusal, { cause });

/**
 * Hands on the one file of a multipart/form-data request, in a part named `file`: streamed, never held in memory.
 *
 * @param what it is, for refusals
 * @throws UserError where there is none, or the upload breaks off; whatever `take` throws
 */
export function uploadedFile<Taken>(
  request: Request,
  take: (file: Readable, fileName: string) => Promise<Taken>,
  what: 'picture' | 'font' | 'project file' = 'picture',
): Promise<Taken> {
  return new Promise((resolve, reject) => {
    let parser: busboy.Busboy;
    try {
      parser = busboy({ headers: request.headers, limits: { files: 1 }, defParamCharset: 'utf8' });
    } catch (error) {
      reject(because(new UserError(formWords(what), 400), error));
      return;
    }
    let isTaking = false;
    parser.on('file', (field, stream, info) => {
      isTaking = true;
      if (field !== 'file') {
        stream.resume();
        reject(new UserError(formWords(what), 400));
        return;
      }
      take(stream, info.filename || what).then(resolve, (error: unknown) => {
        request.unpipe(parser);
        request.resume();
        reject(error);
      });
    });
    parser.on('close', () => {
      if (!isTaking) reject(new UserError(`No ${what} came with this request.`, 400));
    });
    parser.on('error', (error) => reject(because(new UserError('The upload broke off. Try again.', 400), error)));
    request.pipe(parser);
  });
}
