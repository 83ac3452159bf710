import { rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { carriesTransparency } from '@inkwell/core/model';
import { plainEncoding, planHash, type RenderPlan, scalePlan } from '@inkwell/core/planning';
import sharp, { type Sharp } from 'sharp';
import { putTogether } from '../stages/cutting.ts';
import { renderPixels } from '../stages/renderPixels.ts';
import type { BoundedFolder } from './boundedFolder.ts';
import type { WorkingCopies } from './workingCopy.ts';

/** A picture of a plan for the screen. */
export interface Proof {
  path: string;
  type: 'image/jpeg' | 'image/png';
}

/** No proof is longer than this, in pixels: a screen cannot show it, and formats cannot hold it. */
const longestSide = 12_000;
/** High enough that the proof's own encoding is not seen. */
const proofQuality = 90;

/** Proofs on local disk, by plan hash. */
export class Proofs {
  private readonly making = new Map<string, Promise<Proof>>();

  constructor(
    private readonly folder: BoundedFolder,
    private readonly copies: WorkingCopies,
  ) {}

  /** The proof of `plan` at `width` pixels, never larger than the plan's own output. */
  async get(plan: RenderPlan, width: number): Promise<Proof> {
    const { output } = plan;
    const scaled = scalePlan(plan, Math.min(1, width / output.width, longestSide / output.height));
    const transparent = plan.flatten === null && carriesTransparency(plan.encoding.format);
    // How the file is encoded changes nothing about its picture.
    const picture = { ...scaled, encoding: plainEncoding(transparent ? 'png' : 'jpeg') };
    const name = `${planHash(picture)}.${transparent ? 'png' : 'jpg'}`;
    return this.once(name, async () => {
      const { data, ...raw } = await renderPixels(scaled, await this.copies.forPlan(plan));
      return sharp(data, { raw });
    });
  }

  /** The finished files of `plan` as they look once opened, put together, at `width` pixels. @param files in reading order */
  async ofFiles(plan: RenderPlan, width: number, files: () => Promise<Buffer[]>): Promise<Proof> {
    const { output, encoding } = plan;
    const transparent = plan.flatten === null && carriesTransparency(encoding.format);
    const factor = Math.min(1, width / output.width, longestSide / output.height);
    const across = Math.max(1, Math.round(output.width * factor));
    const name = `file-${planHash(plan)}-${across}.${transparent ? 'png' : 'jpg'}`;
    return this.once(name, async () => {
      const whole = await putTogether(plan, await files());
      const down = Math.max(1, Math.round(output.height * factor));
      return whole.resize(across, down, { fit: 'fill', kernel: 'lanczos3' });
    });
  }

  /** The proof of that name: as it is kept, as it is being made, or as `draw` makes it. */
  private async once(name: string, draw: () => Promise<Sharp>): Promise<Proof> {
    const type = name.endsWith('.png') ? 'image/png' : 'image/jpeg';
    const proof: Proof = { path: join(this.folder.path, name), type };
    if (await this.folder.touch(name)) return proof;
    const known = this.making.get(name);
    if (known) return known;
    const made = this.make(proof, draw).finally(() => this.making.delete(name));
    this.making.set(name, made);
    return made;
  }

  private async make(proof: Proof, draw: () => Promise<Sharp>): Promise<Proof> {
    const picture = await draw();
    const encoded =
      proof.type === 'image/png'
        ? picture.png({ compressionLevel: 3 })
        : picture.jpeg({ quality: proofQuality, chromaSubsampling: '4:4:4' });
    const unfinished = this.folder.unfinished();
    await writeFile(unfinished, await encoded.toBuffer());
    await rename(unfinished, proof.path);
    await this.folder.noteAdded();
    return proof;
  }
}
