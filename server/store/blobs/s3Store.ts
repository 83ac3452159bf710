import { Readable } from 'node:stream';
import {
  DeleteObjectCommand,
  GetObjectCommand,
  HeadBucketCommand,
  NoSuchKey,
  PutObjectCommand,
  S3Client,
  S3ServiceException,
} from '@aws-sdk/client-s3';
import { type ObjectStore, ObjectsAway } from './objects.ts';

export interface S3Settings {
  endpoint: string;
  region: string;
  bucket: string;
  key: string;
  secret: string;
}

const silent = () => undefined;

/** A store that speaks the S3 protocol. */
export class S3Store implements ObjectStore {
  private readonly client: S3Client;
  private readonly bucket: string;

  constructor({ endpoint, region, bucket, key, secret }: S3Settings) {
    this.bucket = bucket;
    this.client = new S3Client({
      endpoint,
      region,
      // The bucket stands in the path, since most stores have no host name for each.
      forcePathStyle: true,
      credentials: { accessKeyId: key, secretAccessKey: secret },
      // Older stores do not know the newer checksums; every blob is checked by its name, which is its SHA-256.
      requestChecksumCalculation: 'WHEN_REQUIRED',
      responseChecksumValidation: 'WHEN_REQUIRED',
      // What goes wrong is thrown, and told by whoever asked.
      logger: { trace: silent, debug: silent, info: silent, warn: silent, error: silent },
    });
  }

  /** Looks whether it can be used. @throws ObjectsAway where it does not answer, Error in plain words where it refuses */
  async check(): Promise<void> {
    try {
      await answered(this.client.send(new HeadBucketCommand({ Bucket: this.bucket })));
    } catch (error) {
      if (error instanceof ObjectsAway) throw error;
      const cause = error instanceof Error ? error.name : String(error);
      throw new Error(
        `The S3 store refuses the bucket ${this.bucket} (${cause}). Make it there, or mend INKWELL_S3_BUCKET, INKWELL_S3_KEY and INKWELL_S3_SECRET.`,
      );
    }
  }

  async put(name: string, body: Buffer | Readable, bytes: number): Promise<void> {
    const object = { Bucket: this.bucket, Key: name, Body: body, ContentLength: bytes };
    await answered(this.client.send(new PutObjectCommand(object)));
  }

  async get(name: string, from: number): Promise<Readable | null> {
    try {
      const range = from > 0 ? { Range: `bytes=${from}-` } : {};
      const { Body } = await answered(
        this.client.send(new GetObjectCommand({ Bucket: this.bucket, Key: name, ...range })),
      );
      if (Body instanceof Readable) return Readable.from(arriving(Body), { objectMode: false });
      throw new Error('The store of the files answered without a body.');
    } catch (error) {
      if (error instanceof NoSuchKey) return null;
      throw error;
    }
  }

  async remove(name: string): Promise<void> {
    await answered(this.client.send(new DeleteObjectCommand({ Bucket: this.bucket, Key: name })));
  }
}

/** What a store answers; whatever is not an answer about what was asked means that it is away. */
async function answered<Answer>(asked: Promise<Answer>): Promise<Answer> {
  try {
    return await asked;
  } catch (error) {
    const status = error instanceof S3ServiceException ? (error.$metadata.httpStatusCode ?? 500) : 500;
    throw status >= 500 ? new ObjectsAway(error) : error;
  }
}

/** Bytes on their way; where the way breaks, the store is away. */
async function* arriving(body: Readable): AsyncGenerator<Buffer> {
  try {
    yield* body;
  } catch (error) {
    throw new ObjectsAway(error);
  }
}
