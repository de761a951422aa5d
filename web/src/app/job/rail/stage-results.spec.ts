import type { JobEvent } from '@voltrek/core/job';
import { event, opened, workOf } from '../../../testing/fixtures';
import { stageResults } from './stage-results';

describe('stageResults', () => {
  const resultsOf = (...events: JobEvent[]) => {
    const log = [opened(), ...events];
    return stageResults(workOf(log), null);
  };

  it('has nothing to show for a fresh job', () => {
    expect(Object.values(resultsOf()).some((r) => r.done || r.line)).toBeFalse();
  });

  it('shows each stage’s result in one line', () => {
    const results = resultsOf(
      event('scene.recorded', {
        ambientC: -7,
        place: 'yard',
        sloping: true,
        dark: true,
        enclosed: false,
        mainsNear: false,
      }),
      event('symptom.recorded', { symptom: 'rapid-click' }),
      event('polarity.proved', { signs: ['mark', 'meter'] }),
      event('reading.taken', { kind: 'rest', volts: 11.95, battery: 0, tempC: -7, source: 'typed' }),
    );
    expect(results.scene.line).toBe('-7 °C, sloping');
    expect(results.checks.line).toBe('rapid clicking');
    expect(results.locate.line).toBe('front bay');
    expect(results.measure.line).toMatch(/^11\.95 V, \d+-\d+ %$/);
    expect(results.plan.done).toBeFalse();
  });

  it('shows the verdict that stands: after a recheck the final one', () => {
    const record = (verdict: 'charge-first' | 'keep') =>
      ({
        verdict,
        suspect: null,
        certainty: 'sure',
        followUps: [{ kind: 'recheck', days: 2 }],
      }) as const;
    const given = [event('verdict.given', record('charge-first')), event('job.closed', { note: '' })];
    expect(resultsOf(...given).verdict.line).toBe('charge first');
    const recheck = { tempC: 5, restVolts: [12.6], tested: [0.9], crankVolts: null, verdict: record('keep') };
    expect(resultsOf(...given, event('recheck.taken', recheck)).verdict.line).toBe('keep');
  });

  it('marks the scene while a stop stands, and a check at fault', () => {
    const results = resultsOf(
      event('stop.raised', { stop: 'gas-smell' }),
      event('finding.recorded', { check: 'look-joints', found: 'deposits' }),
    );
    expect(results.scene.stopped).toBeTrue();
    expect(results.scene.line).toBe('stop stands');
    expect(results.checks.line).toBe('1 at fault');
  });
});
