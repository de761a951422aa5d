import { degrees, degreesMore, metres, section, shownUnit, showUnits } from './units';

const SI = { fahrenheit: false, wireGauge: false, feet: false };

describe('units of this device', () => {
  afterEach(() => showUnits(SI));

  it('are SI unless it is set otherwise', () => {
    expect([degrees(-18), degreesMore(10), metres(3.5), section(25)]).toEqual([
      '-18 °C',
      '10 °C',
      '3.5 m',
      '25 mm²',
    ]);
    expect(shownUnit('Ah')).toEqual(jasmine.objectContaining({ unit: 'Ah' }));
  });

  it('tell temperatures in °F, a rise without the 32', () => {
    showUnits({ ...SI, fahrenheit: true });
    expect([degrees(-40), degrees(0), degrees(-18), degrees(100)]).toEqual([
      '-40 °F',
      '32 °F',
      '0 °F',
      '212 °F',
    ]);
    expect(degreesMore(10)).toBe('18 °F');
    expect(metres(3.5)).toBe('3.5 m');
  });

  it('tell sections by the gauge, by figures of the table', () => {
    showUnits({ ...SI, wireGauge: true });
    // Of the standard's table: 0000 is 107.2 mm², 0 is 53.5, 2 is 33.6, 4 is 21.15, 10 is 5.26.
    expect([107.2, 53.5, 33.6, 21.15, 5.26].map(section)).toEqual([
      '0000 AWG',
      '0 AWG',
      '2 AWG',
      '4 AWG',
      '10 AWG',
    ]);
    expect(shownUnit('mm²').keep(4)).toBeCloseTo(21.15, 2);
    expect(shownUnit('mm²').keep(-3)).toBeCloseTo(107.2, 1);
  });

  it('tell lengths in feet, and everything typed comes back as it was', () => {
    showUnits({ fahrenheit: true, wireGauge: true, feet: true });
    expect([metres(3.048), metres(0.6, 1)]).toEqual(['10 ft', '2 ft']);
    for (const unit of ['°C', 'K', 'mm²', 'm', 'A'])
      for (const value of [0.5, 7, 35]) {
        const { show, keep } = shownUnit(unit);
        expect(keep(show(value))).toBeCloseTo(value, 9);
      }
  });
});
