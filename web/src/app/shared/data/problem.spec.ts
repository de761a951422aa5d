import { faultAt } from '@voltrek/contracts';
import { HttpErrorResponse } from '@angular/common/http';
import { isTransient, problemText } from './problem';

const answer = (status: number, error: unknown): HttpErrorResponse =>
  new HttpErrorResponse({ status, error });

describe('problemText', () => {
  it('uses the server’s own words, those of the fields first', () => {
    const detail = 'The job is closed.';
    expect(problemText(answer(409, { status: 409, detail }))).toBe(detail);
    const fields = [faultAt('volts', 'max', { max: 40 })];
    expect(problemText(answer(400, { status: 400, detail, fields }))).toBe('volts must be 40 at the most');
  });

  it('reads a problem that came as text, such as one of a file', () => {
    expect(problemText(answer(400, JSON.stringify({ status: 400, detail: 'No such job.' })))).toBe(
      'No such job.',
    );
  });

  it('says when there is no server, and never shows what is no problem document', () => {
    expect(problemText(answer(0, null))).toBe('The server does not answer.');
    expect(problemText(answer(502, '<html>bad gateway</html>'))).toBe('The server does not answer.');
    expect(problemText(answer(404, '<html>'))).toBe('Something went wrong.');
    expect(problemText(new TypeError('x is undefined'))).toBe('Something went wrong.');
  });
});

describe('isTransient', () => {
  it('tries again only where that may work', () => {
    expect([0, 500, 503].every((status) => isTransient(answer(status, null)))).toBeTrue();
    expect([400, 404, 409].some((status) => isTransient(answer(status, null)))).toBeFalse();
    expect(isTransient(new Error('no answer'))).toBeFalse();
  });
});
