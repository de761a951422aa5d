import { EVENT_TYPES, REFUSALS } from '@voltrek/core/job';
import { parseJobEvent, parseNewCall, parseStoredEvent, ValidationError } from '../src/index.js';
import { REFUSAL_WORDS } from '../src/words/index.js';

const base = {
  id: '7b1f8e0c-6f0a-4d0a-9a51-0d1e2f3a4b5c',
  jobId: '0c9d8e7f-1a2b-4c3d-8e4f-5a6b7c8d9e0f',
  at: '2027-01-15T02:40:00.000Z',
  by: 'crew-1',
};

function pathsOf(input: unknown): string[] {
  try {
    parseJobEvent(input);
    return [];
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    return error.inner.length > 0 ? error.inner.map((e) => e.path ?? '') : [error.path ?? ''];
  }
}

describe('parseJobEvent', () => {
  it('passes a right event through unchanged', () => {
    const event = {
      ...base,
      type: 'clamp.attached',
      data: { clamp: 'redCasualty', pointId: 'battery-plus' },
    };
    expect(parseJobEvent(event)).toEqual(event as ReturnType<typeof parseJobEvent>);
  });

  it('has a schema for every event type: empty data is refused by all but the empty one', () => {
    const passing = EVENT_TYPES.filter((type) => pathsOf({ ...base, type, data: {} }).length === 0);
    expect(passing).toEqual(['attempt.started']);
  });

  it('names the path of each fault', () => {
    expect(
      pathsOf({ ...base, type: 'clamp.attached', data: { clamp: 'green', pointId: 'P!' } }).sort(),
    ).toEqual(['data.clamp', 'data.pointId']);
    expect(pathsOf({ ...base, at: '2027-13-45', type: 'attempt.started', data: {} })).toEqual(['at']);
    expect(pathsOf({ ...base, type: 'nonsense', data: {} })).toEqual(['type']);
  });

  it('takes no text for a number and no unknown field', () => {
    const data = { outcome: 'slow', seconds: '8', lowestVolts: null };
    expect(pathsOf({ ...base, type: 'attempt.ended', data })).toEqual(['data.seconds']);
    expect(pathsOf({ ...base, type: 'attempt.started', data: { secret: 1 } }).length).toBe(1);
  });

  const faults = (type: string, data: object): string[] => pathsOf({ ...base, type, data });

  it('takes a reading with where it came from, and with the strength behind a trace', () => {
    const reading = { kind: 'rest', volts: 12.4, battery: 0, tempC: -4, source: 'meter' };
    expect(faults('reading.taken', reading)).toEqual([]);
    expect(faults('reading.taken', { ...reading, strength: { share: 0.7, low: 0.6, high: 0.8 } })).toEqual(
      [],
    );
    expect(faults('reading.taken', { ...reading, strength: { share: 'most' } }).length).toBeGreaterThan(0);
    expect(faults('reading.taken', { ...reading, source: 'hearsay' })).toEqual(['data.source']);
    expect(faults('reading.withdrawn', { readingId: 'first' })).toEqual(['data.readingId']);
  });

  it('takes a finding with the figures behind it, but not too many', () => {
    const finding = {
      check: 'specific-gravity',
      found: 'even-high',
      source: 'typed',
      figures: Array(6).fill(1.26),
    };
    expect(faults('finding.recorded', finding)).toEqual([]);
    expect(faults('finding.recorded', { ...finding, figures: Array(13).fill(1.26) })).toEqual([
      'data.figures',
    ]);
    expect(faults('finding.recorded', { ...finding, check: 'guess' })).toEqual(['data.check']);
  });

  it('takes a changed battery by its rating, and steps by their names', () => {
    const rating = { chemistry: 'agm', capacityAh: 70, ccaAmps: 760, ccaStandard: 'EN' };
    expect(faults('battery.replaced', { battery: 0, rating })).toEqual([]);
    expect(faults('battery.replaced', { battery: 0, rating: { ...rating, ccaAmps: 5 } })).toEqual([
      'data.rating.ccaAmps',
    ]);
    expect(faults('fitting.confirmed', { battery: 0, step: 'negative-off' })).toEqual([]);
    expect(faults('fitting.confirmed', { battery: 9, step: 'hammer' }).sort()).toEqual([
      'data.battery',
      'data.step',
    ]);
  });

  it('takes a verdict with its ledger, and one from before ledgers were kept', () => {
    const old = {
      verdict: 'charge-first',
      suspect: null,
      certainty: 'sure',
      followUps: [{ kind: 'charge', days: 0 }],
    };
    expect(faults('verdict.given', old)).toEqual([]);
    const whole = {
      ...old,
      share: 0.9,
      ground: 'discharged-not-bad',
      causes: [{ cause: 'discharged', share: 0.9 }],
      ledger: [{ check: 'rest', found: 11.9, bits: 2.4 }],
      deciding: null,
    };
    expect(faults('verdict.given', whole)).toEqual([]);
    expect(faults('verdict.given', { ...whole, deciding: { check: 'rest', chance: 0.4 } })).toEqual([]);
    expect(faults('verdict.given', { ...whole, share: 1.4 })).toEqual(['data.share']);
    expect(faults('verdict.given', { ...whole, ledger: [{ check: 'rest', found: 11.9 }] })).toEqual([
      'data.ledger[0].bits',
    ]);
  });

  it('wants a reason of some substance for an override', () => {
    const override = (reason: string): string[] =>
      pathsOf({ ...base, type: 'override.given', data: { rule: 'crankRestSeconds', reason } });
    expect(override('x')).toEqual(['data.reason']);
    expect(override('starter only twitched')).toEqual([]);
  });
});

describe('parseStoredEvent', () => {
  const read = (type: string, data: object): unknown => parseStoredEvent({ ...base, type, data });

  it("passes an event of today through as it is, and says an old one in today's words", () => {
    const clamp = { clamp: 'redCasualty', pointId: 'battery-plus' };
    expect(read('clamp.attached', clamp)).toEqual({ ...base, type: 'clamp.attached', data: clamp });
    expect(read('machine.identified', { machineId: 'brinmoor-pella' })).toEqual({
      ...base,
      type: 'model.identified',
      data: { modelId: 'brinmoor-pella' },
    });
    expect(read('stage.opened', { stage: 'scene' })).toBeNull();
  });

  it('refuses what is wrong with an envelope, a type or what it carries, whatever version it is of', () => {
    for (const wrong of [
      { ...base, type: 'nonsense', data: {} },
      { ...base, id: 'one', type: 'attempt.started', data: {} },
      { ...base, at: 'noon', type: 'machine.identified', data: { machineId: 'brinmoor-pella' } },
      { ...base, type: 'clamp.attached', data: { clamp: 'green', pointId: 'battery-plus' } },
      { ...base, type: 'attempt.started', data: { secret: 1 } },
      { ...base, more: 1, type: 'attempt.started', data: {} },
    ])
      expect(() => parseStoredEvent(wrong))
        .withContext(JSON.stringify(wrong))
        .toThrowError(ValidationError);
  });

  it('takes no word that every object answers to for one of a table', () => {
    for (const word of ['constructor', 'toString', 'valueOf', 'hasOwnProperty', '__proto__'])
      for (const [type, data] of [
        [word, {}],
        ['check.recorded', { check: word, result: 'fault' }],
        ['finding.recorded', { check: word, found: word, source: 'typed' }],
        ['verdict.given', { verdict: word }],
        ['plan.chosen', { sourceKind: word, optionId: word }],
        ['attempt.started', Object.fromEntries([[word, word]])],
      ] as const)
        expect(() => read(type, data))
          .withContext(`${type} ${JSON.stringify(data)}`)
          .toThrowError(ValidationError);
  });
});

describe('parseNewCall', () => {
  const call = {
    id: 'c-1',
    title: 'T',
    placeName: 'P',
    said: '',
    modelId: 'm',
    ambientC: -4,
    urgent: false,
  };

  it('takes a whole call and refuses a cold that cannot be', () => {
    expect(parseNewCall(call)).toEqual(call);
    expect(() => parseNewCall({ ...call, ambientC: -300 })).toThrowError(ValidationError);
  });
});

describe('REFUSAL_WORDS', () => {
  it('has a sentence for every refusal', () => {
    for (const refusal of REFUSALS)
      expect(REFUSAL_WORDS[refusal])
        .withContext(refusal)
        .toMatch(/^[A-Z].+\.$/);
  });
});
