import { createServer, type Server, type Socket } from 'node:net';

/** Returns an instrument's answer to a query, or null for a command that only acts. */
export type Handler = (argument: string) => string | null;

/** A command that is not known, or not allowed now. The code is of the SCPI standard. */
export class ScpiError extends Error {
  constructor(
    readonly code: number,
    message: string,
  ) {
    super(message);
    this.name = 'ScpiError';
  }
}

const UNDEFINED_HEADER = -113;
const PARAMETER_ERROR = -220;
const QUEUE_MOST = 20;

/** A commands' pattern as the standard writes them: capitals must be there, small letters may be left out. */
function patternOf(header: string): RegExp {
  const source = header
    .replace(/[*?]/g, '\\$&')
    .replace(/([A-Z]+)([a-z]+)/g, (_, short: string, rest: string) => `${short}(?:${rest})?`);
  return new RegExp(`^:?${source}$`, 'i');
}

/** A figure as SCPI instruments write it. */
export function scpiFigure(value: number): string {
  const text = value
    .toExponential(8)
    .replace(/e([+-])(\d)$/, 'E$10$2')
    .replace('e', 'E');
  return value < 0 ? text : `+${text}`;
}

/** The figure of a parameter. @throws ScpiError -220 when it is none or out of range */
export function figureOf(argument: string, min: number, max: number): number {
  const value = Number(argument);
  if (argument.trim() === '' || !(value >= min && value <= max))
    throw new ScpiError(PARAMETER_ERROR, `Parameter error;${min} to ${max}`);
  return value;
}

/**
 * An instrument that speaks SCPI in lines over TCP: identity, reset, an error queue, and what its table adds.
 *
 * @param table commands by their standard header, such as `MEASure:VOLTage:DC?`
 */
export function scpiServer(identity: string, table: Readonly<Record<string, Handler>>): Server {
  const errors: string[] = [];
  const common: Record<string, Handler> = {
    '*IDN?': () => identity,
    '*CLS': () => {
      errors.length = 0;
      return null;
    },
    'SYSTem:ERRor?': () => errors.shift() ?? '0,"No error"',
  };
  const handlers = Object.entries({ ...common, ...table }).map(
    ([header, handler]) => [patternOf(header), handler] as const,
  );
  const answer = (command: string): string | null => {
    const [, header = '', argument = ''] = /^(\S+)\s*(.*)$/s.exec(command) ?? [];
    const found = handlers.find(([pattern]) => pattern.test(header));
    if (!found) throw new ScpiError(UNDEFINED_HEADER, 'Undefined header');
    return found[1](argument);
  };
  const take = (line: string, socket: Socket): void => {
    try {
      const said = answer(line);
      if (said !== null) socket.write(`${said}\n`);
    } catch (error) {
      const code = error instanceof ScpiError ? error.code : PARAMETER_ERROR;
      errors.push(`${code},"${error instanceof Error ? error.message : String(error)}"`);
      errors.splice(0, Math.max(0, errors.length - QUEUE_MOST));
    }
  };
  return createServer((socket) => {
    let rest = '';
    socket.setEncoding('utf8');
    socket.on('error', () => socket.destroy());
    socket.on('data', (text: string) => {
      const lines = `${rest}${text}`.split('\n');
      rest = lines.pop() ?? '';
      for (const line of lines) if (line.trim()) take(line.trim(), socket);
    });
  });
}
