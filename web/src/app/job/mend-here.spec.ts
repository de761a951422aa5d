import { TestBed } from '@angular/core/testing';
import { REPAIR_STEPS } from '@voltrek/core/hookup';
import { REPAIR_KINDS, type Repair } from '@voltrek/core/diagnosis';
import { event, opened, planned } from '../../testing/fixtures';
import { jobHarness } from '../../testing/job-harness';
import { REPAIR_STEP_WORDS, mendedProof, repairName } from '@words/repair-words';
import { verdictTitle } from '@words/verdict-title';
import { MendHere } from './mend-here';
import { RepairPrompt } from './repair-prompt';

/** The steps that were gone through, and whether it is then called mended. */
let asked: Repair[] = [];
function goThrough(isMended: boolean): void {
  asked = [];
  const prompt = {
    goThrough: (_work: unknown, repair: Repair): Promise<boolean> => {
      asked.push(repair);
      return Promise.resolve(isMended);
    },
  };
  TestBed.configureTestingModule({ providers: [{ provide: RepairPrompt, useValue: prompt }] });
}

const LOST = event('finding.recorded', { check: 'joint-minus', found: 1.4, source: 'typed', figures: [1.4] });

describe('What can be mended here', () => {
  it('is nothing where nothing was found that a hand mends', async () => {
    goThrough(true);
    const { root } = await jobHarness(MendHere, [
      opened(),
      event('finding.recorded', { check: 'immobiliser-lamp', found: 'lit' }),
    ]);
    expect(root.querySelector('button')).toBeNull();
  });

  it('is logged once it was gone through and called mended, and then told with what was found before', async () => {
    goThrough(true);
    const { root, tap, refresh, reported } = await jobHarness(MendHere, [opened(), LOST]);
    await tap('Clean and tighten the negative clamp');
    await refresh();
    expect(asked).toEqual([{ kind: 'joint-cleaned', side: 'minus' }]);
    expect(reported().map((e) => e.type)).toEqual(['repair.made']);
    expect(root.querySelector('.done')!.textContent).toContain('before: 1.40 V lost; not found again yet');
    expect(root.querySelector('button')).toBeNull();
  });

  it('logs nothing where it was not mended', async () => {
    goThrough(false);
    const { tap, reported } = await jobHarness(MendHere, [opened(), LOST]);
    await tap('Clean the body strap');
    expect(reported()).toEqual([]);
  });

  it('asks to clear down before a spanner touches a post that a clamp is on', async () => {
    goThrough(true);
    const { root, button } = await jobHarness(MendHere, [
      opened(),
      LOST,
      event('polarity.proved', { signs: ['mark', 'meter'] }),
      planned('donor+heavy'),
      event('clamp.attached', { clamp: 'redCasualty', pointId: 'battery-plus' }),
    ]);
    expect(root.textContent).toContain('Clear down before a spanner touches a post.');
    expect(button('Clean and tighten the negative clamp').disabled).toBeTrue();
  });
});

describe('Words of repairs', () => {
  it('name each one apart, and have an order and a caution for every step', () => {
    const names = REPAIR_KINDS.flatMap((kind) =>
      (['plus', 'minus'] as const).map((side) => repairName({ kind, side, check: 'kill-switch' })),
    );
    // Six of joints by their side, six others.
    expect(new Set(names).size).toBe(12);
    for (const step of REPAIR_STEPS) {
      expect(REPAIR_STEP_WORDS[step].act.length).withContext(step).toBeGreaterThan(10);
      expect(REPAIR_STEP_WORDS[step].why.length).withContext(step).toBeGreaterThan(10);
    }
  });

  it('tell the proof before and after', () => {
    const mended = { kind: 'isolator-on', at: '', before: { check: 'isolator', found: 'fault' } } as const;
    expect(mendedProof({ ...mended, after: { check: 'isolator', found: 'clear' } })).toBe(
      'before: was off; after: on',
    );
    expect(mendedProof({ ...mended, before: null, after: null })).toContain('nothing recorded before');
  });

  it('title a verdict by the parts that were mended', () => {
    const repaired = [
      { kind: 'joint-cleaned', side: 'minus' },
      { kind: 'clamp-resized', side: 'minus' },
      { kind: 'isolator-on' },
    ] as const;
    expect(verdictTitle('repaired', 'joint', repaired)).toBe('Repaired: negative clamp, isolator');
    expect(verdictTitle('repaired', 'joint')).toBe('Repaired: joint');
  });
});
