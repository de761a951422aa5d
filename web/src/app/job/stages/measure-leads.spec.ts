import { jobHarness } from '../../../testing/job-harness';
import { event, opened, planned } from '../../../testing/fixtures';
import { MeasureLeads } from './measure-leads';

const joined = () => [
  opened(),
  event('polarity.proved', { signs: ['mark', 'meter'] }),
  planned('donor+heavy'),
  event('clamp.attached', { clamp: 'redCasualty', pointId: 'plus' }),
  event('clamp.attached', { clamp: 'redSource', pointId: 'plus' }),
  event('clamp.attached', { clamp: 'blackSource', pointId: 'minus' }),
  event('clamp.attached', { clamp: 'blackCasualty', pointId: 'ground' }),
];

describe('measuring a lead set', () => {
  async function open() {
    const harness = await jobHarness(MeasureLeads, joined());
    await harness.tap('Measure Heavy set');
    return harness;
  }

  it('is asked for only while a set is joined with all its clamps', async () => {
    const { root } = await jobHarness(MeasureLeads, joined().slice(0, 6));
    expect(root.querySelector('button')).toBeNull();
  });

  it('tells what the figures mean before they are noted, and notes them', async () => {
    const { root, type, reported, tap } = await open();
    await type('At the source', '1290');
    await type('At the casualty', '1169');
    await type('Through a lead', '200');
    expect(root.querySelector('[role=status]')!.textContent).toMatch(
      /1\.\d\d times the resistance of a new set/,
    );
    await tap('Note it');
    expect(reported().map((e) => [e.type, e.data])).toEqual([
      ['leads.measured', { sourceVolts: 12.9, casualtyVolts: 11.69, amps: 200 }],
    ]);
    expect(root.textContent).toMatch(/Noted: 1\.\d\d times/);
  });

  it('takes nothing from which nothing follows', async () => {
    const { root, type, button } = await open();
    await type('At the source', '1160');
    await type('At the casualty', '1290');
    await type('Through a lead', '200');
    expect(root.querySelector('[role=alert]')!.textContent).toContain('must stand higher');
    await type('At the casualty', '1150');
    await type('Through a lead', '4');
    expect(root.querySelector('[role=alert]')!.textContent).toContain('Too few amps');
    expect(button('Note it').disabled).toBeTrue();
  });
});
