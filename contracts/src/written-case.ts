import { type DocumentNode, parse, type ValueNode } from '@humanwhocodes/momoa';
import { ALONG_CAUSES, CAUSES, SYMPTOMS } from '@voltrek/core/diagnosis';
import { MACHINE_CLASSES } from '@voltrek/core/machine';
import {
  faultsOfWritten,
  MADE_COLD,
  PRACTICE_KIT,
  WRITTEN_LENGTHS,
  WRITTEN_NUMBER,
  type WrittenCase,
} from '@voltrek/core/practice';
import * as yup from 'yup';
import { figure, record } from './calc/parts.js';
import { type Fault, faultAt, faultsIn } from './fault.js';
import { parsed, shortText } from './text.js';

/** The format that a file of one names. */
const FORM = { format: 'voltrek-case', version: 1 } as const;

/** A written case as its file has it. */
export const WRITTEN_CASE_FILE = record({
  format: yup.string().oneOf([FORM.format]).required(),
  version: yup.number().oneOf([FORM.version]).required(),
  title: shortText(WRITTEN_LENGTHS.title),
  machineClass: yup.string().oneOf(MACHINE_CLASSES).required(),
  tempC: figure(MADE_COLD).integer(),
  cause: yup.string().oneOf(CAUSES).required(),
  along: yup
    .string()
    .nullable()
    .oneOf([...ALONG_CAUSES, null])
    .defined(),
  symptom: yup.string().oneOf(SYMPTOMS).required(),
  says: yup.string().max(WRITTEN_LENGTHS.says).defined(),
  answers: yup
    .object()
    .meta({ jsonSchema: { additionalProperties: { type: 'string' } } })
    .required(),
  kit: yup
    .array()
    .of(
      yup
        .string()
        .oneOf(PRACTICE_KIT.map(({ id }) => id))
        .required(),
    )
    .required(),
  number: figure(WRITTEN_NUMBER).integer(),
}).required();

/** Why a file is no case: in which line, and what is wrong there. */
export interface CaseFileFault extends Fault {
  readonly line: number;
}
export type CaseFileRead = { readonly written: WrittenCase } | { readonly faults: readonly CaseFileFault[] };

/** More than any case needs: what is larger is no case. */
const CHARACTERS_MOST = 20_000;

/** A written case from the text of its file, or every fault of it with its line; nothing of a bad file is taken. */
export function readCaseFile(text: string): CaseFileRead {
  if (text.length > CHARACTERS_MOST) return { faults: [{ line: 1, ...faultAt('', 'caseTooLarge') }] };
  let document: DocumentNode;
  let given: unknown;
  try {
    document = parse(text);
    given = JSON.parse(text);
  } catch (error) {
    const { line = 1 } = error as { line?: number };
    return { faults: [{ line, ...faultAt('', 'caseNotJson') }] };
  }
  const told = new Map<number, CaseFileFault>();
  const tell = (fault: Fault): void => {
    const line = lineOf(document, fault.path);
    // An empty field is at fault twice: as missing, and as too short.
    if (!told.has(line) || fault.path === '') told.set(line, { line, ...fault });
  };
  try {
    parsed(WRITTEN_CASE_FILE, given);
  } catch (error) {
    if (!(error instanceof yup.ValidationError)) throw error;
    faultsIn(error).forEach(tell);
  }
  try {
    const { format: _format, version: _version, ...written } = given as WrittenCase & Record<string, unknown>;
    for (const { path, fault } of faultsOfWritten(written)) tell(faultAt(path, fault));
    if (told.size === 0) return { written };
  } catch (error) {
    // Of a whole whose parts are of other types nothing more can be said.
    if (told.size === 0) throw error;
  }
  return { faults: [...told.values()].sort((a, b) => a.line - b.line) };
}

/** A written case as text of its file. */
export const caseFileOf = (written: WrittenCase): string =>
  `${JSON.stringify({ ...FORM, ...written }, null, 2)}\n`;

/** The line in which the part of this path stands; of a part that is missing, the line of what it is missing from. */
function lineOf({ body }: DocumentNode, path: string): number {
  let node: ValueNode = body;
  let { line } = body.loc.start;
  for (const step of path.split(/[.[\]"]+/).filter(Boolean)) {
    if (node.type === 'Object') {
      const member = node.members.find(({ name }) => name.type === 'String' && name.value === step);
      if (!member) return line;
      line = member.loc.start.line;
      node = member.value;
    } else if (node.type === 'Array') {
      const element = node.elements[Number(step)];
      if (!element) return line;
      line = element.value.loc.start.line;
      node = element.value;
    } else return line;
  }
  return line;
}
