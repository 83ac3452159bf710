// Lists the projects of the program at `address` twenty times a second for some seconds and prints the p95 in milliseconds. A
// process of its own: in the one that plays many people, the answer would wait for their turns as well.
const [address = '', seconds = '10'] = process.argv.slice(2);
const everyMs = 50;
const end = performance.now() + Number(seconds) * 1000;
const times: number[] = [];
while (performance.now() < end) {
  const began = performance.now();
  const response = await fetch(`${address}/api/v1/projects`);
  await response.json();
  if (!response.ok) throw new Error(`The projects were not listed: ${response.status}.`);
  times.push(performance.now() - began);
  await new Promise((resolve) => setTimeout(resolve, everyMs));
}
times.sort((a, b) => a - b);
console.log(times[Math.floor(times.length * 0.95)] ?? Number.NaN);

export {};
