import { SNAPSHOT_EVERY } from '../config';

/**
 * Which of a project's snapshots can go. The two newest and the first stay; of the others, one for every doubling of
 * their age in changes, so that n changes leave about log2(n / 50) snapshots and any past state is replayed from one
 * at most as far before it as it is old.
 *
 * @param seqs sequence numbers of the snapshots, in any order
 * @returns those to take away
 */
export function thinned(seqs: readonly number[]): number[] {
  const sorted = [...seqs].sort((a, b) => b - a);
  const newest = sorted[0] ?? 0;
  const taken = new Set<number>();
  // From the oldest on: of those of one age the oldest stays, which will be the first to be as old as the next age.
  return sorted
    .slice(2, -1)
    .reverse()
    .filter((seq) => {
      const age = Math.floor(Math.log2(Math.max(1, (newest - seq) / SNAPSHOT_EVERY)));
      if (taken.has(age)) return true;
      taken.add(age);
      return false;
    });
}
