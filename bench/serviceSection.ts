import { Program } from './program.ts';
import { intakeTimes, measuredDelivery, underLoad } from './service.ts';

const seconds = (value: number) => `${value.toFixed(2)} s`;

/** What is measured of the running program as a service, as a section of the results. */
export async function serviceSection(picture: string): Promise<string> {
  const intake = await intakeTimes(picture);
  const delivering = await Program.start();
  const delivery = await measuredDelivery(delivering, picture);
  await delivering.stop();
  const loaded = await Program.start();
  const load = await underLoad(loaded, picture);
  await loaded.stop();
  return `## Serving
Twelve frames of one 24-megapixel picture that are measured already, delivered over HTTP until the archive is loaded, against the twelve one-shot
pipelines from above at quality 90. ${delivery.files} files.

| ours | baseline | ratio | aim |
|---|---|---|---|
| ${seconds(delivery.ours)} | ${seconds(delivery.baseline)} | **${delivery.ratio.toFixed(3)}** | at most 0.10 |

The same picture decoded into its working copy in a process of its own, which stays warm, against the same work in the process that asks:

| apart | in the same process | ratio | aim |
|---|---|---|---|
| ${seconds(intake.ours)} | ${seconds(intake.baseline)} | **${intake.ratio.toFixed(2)}** | at most 1.15 |

Twenty people who each move a window, save it and look at its proof; one more lists the projects twenty times a second. With a second in which
they look at what they see, and without, when every answer is followed at once by the next request and both cores are always busy.

| | listing, p95 | ratio | aim |
|---|---|---|---|
| at rest | ${load.quiet.toFixed(0)} ms | | |
| people who look | ${load.looking.toFixed(0)} ms | **${(load.looking / load.quiet).toFixed(1)}** | at most 3 |
| without a pause | ${load.hurried.toFixed(0)} ms | **${(load.hurried / load.quiet).toFixed(1)}** | at most 3 |

| memory of all processes, warm and at rest | at most | a minute after all is measured | ratio | aim |
|---|---|---|---|---|
| ${load.before.toFixed(0)} MB | ${load.most.toFixed(0)} MB | ${load.after.toFixed(0)} MB | **${(load.after / load.before).toFixed(2)}** | at most 1.5 |
`;
}
