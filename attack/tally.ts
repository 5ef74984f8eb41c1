import { jsonOf, type Answer } from './target';

/** What came of one kind of attack. */
export class Tally {
  tried = 0;
  taken = 0;
  refused = 0;
  /** Answers of 500, and broken connections where the server was not killed. */
  faults = 0;
  /** Refusals without a sentence. */
  mute = 0;
  longest = 0;
  lost = 0;
  notes: string[] = [];

  constructor(readonly name: string) {}

  /** Counts an answer. Gives it back. */
  count(answer: Answer, what = ''): Answer {
    this.tried++;
    this.longest = Math.max(this.longest, answer.ms);
    if (answer.status >= 200 && answer.status < 300) this.taken++;
    else if (answer.status === 500 || answer.status === 0) {
      this.faults++;
      if (this.notes.length < 6) this.notes.push(`${answer.status} ${what} ${answer.body.toString('utf8').slice(0, 160)}`);
    } else {
      this.refused++;
      const message = jsonOf<{ message?: string }>(answer)?.message;
      if (answer.status !== 404 && answer.status !== 409 && !/^[A-Z“].*[.)]$/su.test(message ?? '')) {
        this.mute++;
        if (this.notes.length < 6) this.notes.push(`${answer.status} without a sentence: ${what} ${answer.body.toString('utf8').slice(0, 160)}`);
      }
    }
    return answer;
  }

  /** Counts something that has to hold. */
  hold(holds: boolean, what: string): void {
    this.tried++;
    if (holds) this.taken++;
    else {
      this.lost++;
      this.notes.push(`did not hold: ${what}`);
    }
  }

  get good(): boolean {
    return this.faults === 0 && this.mute === 0 && this.lost === 0;
  }
}

/** One table of what came of all of it. */
export function table(tallies: readonly Tally[], peak: number): string {
  const head = ['attack', 'tried', 'taken', 'refused', '500s', 'mute', 'lost', 'longest'];
  const rows = tallies.map((t) => [t.name, t.tried, t.taken, t.refused, t.faults, t.mute, t.lost, `${Math.round(t.longest)} ms`].map(String));
  const widths = head.map((h, i) => Math.max(h.length, ...rows.map((r) => r[i].length)));
  const line = (cells: string[]): string => cells.map((c, i) => (i ? c.padStart(widths[i]) : c.padEnd(widths[i]))).join('  ');
  return [
    line(head),
    line(widths.map((w) => '-'.repeat(w))),
    ...rows.map(line),
    `peak memory ${Math.round(peak)} MB`,
    ...tallies.flatMap((t) => t.notes.map((n) => `${t.name}: ${n}`)),
  ].join('\n');
}
