import * as yup from 'yup';
import { record } from './calc/parts.js';
import { idText, parsed, shortText } from './text.js';
import type { CREW_ROLES } from './wire.js';
import { FAULTS } from './words/fault-words.js';

export type CrewRole = (typeof CREW_ROLES)[number];

/**
 * The effect of a request on the house. `look` changes nothing; `assist` is work on a job that somebody answers for; `send` puts calls on the board and
 * gives them to vans; `work` is any job, and what a van needs after it; `find` adds to the atlas and corrects it; `lead` sets rules, kit, crew and who may sign in.
 */
export const ACTS = ['look', 'assist', 'send', 'work', 'find', 'lead'] as const;
export type Act = (typeof ACTS)[number];

const MAY: Readonly<Record<CrewRole, readonly Act[]>> = {
  'crew-lead': ACTS,
  technician: ['look', 'assist', 'send', 'work', 'find'],
  apprentice: ['look', 'assist'],
  desk: ['look', 'send'],
  viewer: ['look'],
};

/** Whether somebody of this role may do that. */
export const mayDo = (role: CrewRole, act: Act): boolean => MAY[role].includes(act);

/** A PIN has so many digits: with a lock after five wrong ones a million of them is enough. */
export const PIN_DIGITS = { min: 6, max: 12 } as const;

/** Why a PIN is too easily guessed; null for one that will do. */
export function pinFault(pin: string): 'pinDigits' | 'pinEasy' | null {
  if (!/^\d+$/.test(pin) || pin.length < PIN_DIGITS.min || pin.length > PIN_DIGITS.max) return 'pinDigits';
  const steps = new Set(Array.from(pin.slice(1), (digit, i) => Number(digit) - Number(pin[i])));
  const isRun = steps.size === 1 && [-1, 0, 1].includes([...steps][0]!);
  return isRun ? 'pinEasy' : null;
}

/** A person who may be signed in on a device. */
export interface SignInName {
  readonly id: string;
  readonly name: string;
  readonly hasPin: boolean;
}

/** How a device stands with the house. */
export interface SignInState {
  /** False: whoever reaches this server may do everything, under any name. */
  readonly required: boolean;
  /** The holder of this device; null for nobody. */
  readonly crewId: string | null;
  readonly role: CrewRole | null;
  /** Everybody whose taps this device may still send: whoever holds it, and those who handed it over. */
  readonly signedIn: readonly string[];
  /** The people who may sign in; sent only to a device that somebody signed in on before. */
  readonly names: readonly SignInName[];
}

/** A passkey as its owner and a crew lead see it. */
export interface Passkey {
  readonly id: string;
  readonly crewId: string;
  readonly name: string;
  readonly createdAt: string;
  readonly usedAt: string | null;
}

/** Somebody signed in on a device. */
export interface DeviceSession {
  readonly id: string;
  readonly crewId: string;
  /** The name that the device gives itself. */
  readonly device: string;
  readonly createdAt: string;
  readonly seenAt: string;
  /** When somebody else took the device; null for whoever holds it. */
  readonly handedOverAt: string | null;
  readonly isThisDevice: boolean;
}

export const AUDIT_KINDS = [
  'signed-in',
  'signed-out',
  'pin-wrong',
  'locked-out',
  'pin-set',
  'passkey-added',
  'passkey-removed',
  'session-ended',
  'sign-in-required',
  'sign-in-open',
  'refused',
  'changed',
] as const;

/** A sign-in act, or one with a lead's or a finder's rights. */
export interface AuditLine {
  readonly position: number;
  readonly at: string;
  /** Null for somebody who did not sign in. */
  readonly by: string | null;
  readonly kind: (typeof AUDIT_KINDS)[number];
  /** Whom or what it was about: a crew member's id, or the address that was asked. */
  readonly about: string;
}

/** The sign-in settings as a crew lead sees them; others see their own part. */
export interface SignInHouse {
  readonly required: boolean;
  readonly crew: readonly {
    readonly crewId: string;
    readonly hasPin: boolean;
    readonly lockedUntil: string | null;
  }[];
  readonly passkeys: readonly Passkey[];
  readonly sessions: readonly DeviceSession[];
  /** Newest first. */
  readonly audit: readonly AuditLine[];
}

const maybePin = () => yup.string().matches(/^\d{1,12}$/, { name: 'pinDigits', message: FAULTS.pinDigits });
const typedPin = () => maybePin().required();
const newPin = () =>
  typedPin().test('pin', (pin, context) => {
    const type = pinFault(pin);
    return type === null || context.createError({ type, message: FAULTS[type] });
  });

export const PIN_SIGN_IN = record({ named: shortText(40), pin: typedPin() }).required();

/** A sign-in request: by id, or by name on a device that is not known, and their PIN. @throws yup.ValidationError */
export const parsePinSignIn = (input: unknown): { readonly named: string; readonly pin: string } =>
  parsed(PIN_SIGN_IN, input);

/** A PIN as it is to be; `by` and the PIN of whoever sets it, which is left out while somebody has none. */
export interface PinChange {
  readonly by: string;
  readonly pin: string;
  readonly ownPin?: string;
}

export const PIN_CHANGE = record({
  by: idText(),
  pin: newPin(),
  ownPin: maybePin(),
}).required();

/** @throws yup.ValidationError */
export const parsePinChange = (input: unknown): PinChange => parsed(PIN_CHANGE, input) as PinChange;

/** Sign-in switched on or off, by a lead who proves it with the PIN. */
export interface SignInRuleChange {
  readonly by: string;
  readonly required: boolean;
  readonly pin: string;
}

export const DOOR_CHANGE = record({
  by: idText(),
  required: yup.boolean().required(),
  pin: typedPin(),
}).required();

/** @throws yup.ValidationError */
export const parseSignInRuleChange = (input: unknown): SignInRuleChange => parsed(DOOR_CHANGE, input);

const passkeyAnswer = yup
  .object({
    id: yup.string().max(1024).required(),
    rawId: yup.string().max(1024).required(),
    type: yup.string().oneOf(['public-key']).required(),
    response: yup.object().required(),
    clientExtensionResults: yup.object().required(),
    authenticatorAttachment: yup.string().max(40),
  })
  .noUnknown()
  .strict();

export const PASSKEY_SIGN_IN = record({ answer: passkeyAnswer.required() }).required();
export const NEW_PASSKEY = record({
  by: idText(),
  name: shortText(40),
  answer: passkeyAnswer.required(),
}).required();

/** A browser's answer to a passkey's question; the library judges its content. @throws yup.ValidationError */
export const parsePasskeySignIn = (input: unknown): unknown => parsed(PASSKEY_SIGN_IN, input).answer;

/** A new passkey of whoever holds the device. @throws yup.ValidationError */
export const parseNewPasskey = (
  input: unknown,
): { readonly by: string; readonly name: string; readonly answer: unknown } => parsed(NEW_PASSKEY, input);
