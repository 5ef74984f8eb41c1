import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { firstPace } from '@/core/render/pace';
import { recallLayout, rememberedPace, rememberPace } from './habits';
import { useStudio } from './studio';

const kept = new Map<string, string>();
const storage = { getItem: (key: string) => kept.get(key) ?? null, setItem: (key: string, value: string) => void kept.set(key, value) };

beforeEach(() => {
  kept.clear();
  vi.stubGlobal('localStorage', storage);
  useStudio.setState({ layout: 'both' });
});
afterEach(() => vi.unstubAllGlobals());

describe('how the table was left', () => {
  it('is remembered, and set again the next time', () => {
    const end = recallLayout();
    expect(useStudio.getState().layout).toBe('both');
    useStudio.setState({ layout: 'drawing' });
    expect(kept.get('enstegon.layout')).toBe('drawing');
    end();
    // What is done after it ended is not kept.
    useStudio.setState({ layout: 'model' });
    expect(kept.get('enstegon.layout')).toBe('drawing');
    useStudio.setState({ layout: 'both' });
    recallLayout()();
    expect(useStudio.getState().layout).toBe('drawing');
  });

  it('has the docket folded as it was', () => {
    const end = recallLayout();
    useStudio.setState({ docket: false });
    expect(kept.get('enstegon.docket')).toBe('folded');
    end();
    useStudio.setState({ docket: true });
    recallLayout()();
    expect(useStudio.getState().docket).toBe(false);
    useStudio.setState({ docket: true });
  });

  it('is left as it is by what nobody wrote, or by a browser that keeps nothing', () => {
    kept.set('enstegon.layout', 'upside-down');
    recallLayout()();
    expect(useStudio.getState().layout).toBe('both');
    const closed = (): never => {
      throw new Error('SecurityError');
    };
    vi.stubGlobal('localStorage', { getItem: closed, setItem: closed });
    const end = recallLayout();
    expect(() => useStudio.setState({ layout: 'model' })).not.toThrow();
    expect(useStudio.getState().layout).toBe('model');
    end();
  });
});

describe('how quickly this machine makes pictures', () => {
  it('is remembered, and what it is thought to be where nothing or nonsense is', () => {
    expect(rememberedPace(2)).toEqual(firstPace(2));
    const pace = { prepare: 4, samples: 123_456, finish: 31 };
    rememberPace(pace);
    expect(rememberedPace(2)).toEqual(pace);
    for (const nonsense of ['', 'fast', '{"prepare":1}', '{"prepare":1,"samples":0,"finish":2}', '[]']) {
      kept.set('enstegon.pace', nonsense);
      expect(rememberedPace(3)).toEqual(firstPace(3));
    }
  });
});
