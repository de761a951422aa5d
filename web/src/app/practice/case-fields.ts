import type { Cause, CheckId, Symptom } from '@voltrek/core/diagnosis';
import { ALONG_CAUSES, SYMPTOMS } from '@voltrek/core/diagnosis';
import { MACHINE_CLASSES, type MachineClass } from '@voltrek/core/machine';
import {
  causesOf,
  faultsOfWritten,
  PRACTICE_KIT,
  profileOf,
  questionsFor,
  WRITTEN_LENGTHS,
  type WrittenCase,
} from '@voltrek/core/practice';
import { faultText } from '@words/fault-words';
import { CAUSE_WORDS, FINDING_NAMES, outcomesNamed } from '@words/diagnosis-words';
import { WRITE_PAGE as T } from '@words/screens/practice';
import { CLASS_WORDS, SYMPTOM_WORDS } from '@words/words';
import type { FieldFaults } from '../shared/ui/checked-form';
import { choicesOf, type FormField, type FormValues } from '../shared/ui/form-field';
import { faultAt } from '@voltrek/contracts';

/** Nothing wrong besides; answered as it is. */
const NONE = '';
/** The first values of a case. */
export const BLANK_CASE: WrittenCase = {
  title: '',
  machineClass: 'car',
  tempC: -4,
  cause: 'discharged',
  along: null,
  symptom: 'slow-crank',
  says: '',
  answers: {},
  kit: PRACTICE_KIT.map(({ id }) => id),
  number: 1,
};

/** The typed and chosen values of a case of such a machine. */
export function caseFields(machineClass: MachineClass): readonly FormField[] {
  return [
    { key: 'title', label: T.title, kind: 'long', most: WRITTEN_LENGTHS.title },
    {
      key: 'machineClass',
      label: T.machine,
      kind: 'choice',
      choices: choicesOf(MACHINE_CLASSES, CLASS_WORDS),
    },
    { key: 'tempC', label: T.cold, kind: 'number', unit: '°C', most: 4 },
    {
      key: 'cause',
      label: T.faultLabel,
      kind: 'choice',
      choices: choicesOf(causesOf(machineClass), CAUSE_WORDS),
    },
    {
      key: 'along',
      label: T.alongLabel,
      kind: 'choice',
      choices: [{ value: NONE, name: T.nothingElse }, ...choicesOf(alongsOf(machineClass), CAUSE_WORDS)],
    },
    {
      key: 'symptom',
      label: T.symptomLabel,
      kind: 'choice',
      choices: choicesOf(SYMPTOMS, SYMPTOM_WORDS),
    },
    { key: 'number', label: T.number, kind: 'number', most: 6 },
    { key: 'says', label: T.saysLabel, kind: 'long', most: WRITTEN_LENGTHS.says },
    ...questionsFor(profileOf(machineClass, 0)).map(
      ({ id }): FormField => ({
        key: `answers.${id}`,
        label: FINDING_NAMES[id],
        kind: 'choice',
        choices: [
          { value: NONE, name: T.asItIs },
          ...outcomesNamed(id).map(({ found, name }) => ({ value: found, name })),
        ],
      }),
    ),
  ];
}

/** All second faults of such a machine, with one fault or another. */
function alongsOf(machineClass: MachineClass) {
  const possible = causesOf(machineClass);
  return ALONG_CAUSES.filter((along) => possible.includes(along));
}

/** A case in the fields of its machine: what that cannot have, since it was written for another, is left out. */
export function valuesOfCase(written: WrittenCase): FormValues {
  const { title, machineClass, tempC, cause, along, symptom, says, answers, number } = written;
  const causes = causesOf(machineClass);
  const questions = questionsFor(profileOf(machineClass, 0)).map(({ id }) => id);
  return {
    title,
    machineClass,
    tempC: Number.isNaN(tempC) ? '' : String(tempC),
    cause: causes.includes(cause) ? cause : causes[0]!,
    along: along && alongsOf(machineClass).includes(along) ? along : NONE,
    symptom,
    says,
    number: Number.isNaN(number) ? '' : String(number),
    ...Object.fromEntries(questions.map((id) => [`answers.${id}`, answers[id] ?? NONE])),
  };
}

/** Reads the typed values as a case, without its kit. A figure that is none is NaN, and a fault. */
export function caseOfValues(values: FormValues): Omit<WrittenCase, 'kit'> {
  const figure = (text = ''): number =>
    /^[-−]?\d+$/.test(text.trim()) ? Number(text.trim().replace('−', '-')) : NaN;
  const answers = Object.entries(values).flatMap(([key, value]) =>
    key.startsWith('answers.') && value !== NONE ? [[key.slice('answers.'.length), value] as const] : [],
  );
  return {
    title: values.title!.trim(),
    machineClass: values.machineClass as MachineClass,
    tempC: figure(values.tempC),
    cause: values.cause as Cause,
    along: values.along === NONE ? null : (values.along as WrittenCase['along']),
    symptom: values.symptom as Symptom,
    says: values.says!.trim(),
    answers: Object.fromEntries(answers) as Partial<Record<CheckId, string>>,
    number: figure(values.number),
  };
}

/** Returns the faults of a case, at its fields. */
export function caseFaults(fields: readonly FormField[], written: WrittenCase): FieldFaults {
  const found: Record<string, string> = {};
  for (const { path, fault } of faultsOfWritten(written))
    found[fields.some(({ key }) => key === path) ? path : ''] ??= faultText(faultAt('', fault));
  return found;
}
