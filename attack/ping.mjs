// Asks one address again and again until its input ends, then prints the longest it had to wait, in milliseconds.
// A process of its own: what the attacker is busy with must not count as waiting.
import http from 'node:http';

const url = process.argv[2];
let longest = 0;
let done = false;
process.stdin.resume();
process.stdin.on('end', () => (done = true));

const ask = () =>
  new Promise((resolve) => {
    const begun = performance.now();
    const request = http.get(url, { agent: false }, (response) => {
      response.resume();
      response.on('end', () => resolve(response.statusCode === 200 ? performance.now() - begun : Infinity));
    });
    request.on('error', () => resolve(Infinity));
  });

while (!done) {
  longest = Math.max(longest, await ask());
  await new Promise((next) => setTimeout(next, 15));
}
process.stdout.write(String(longest));
