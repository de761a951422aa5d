import { type Shown, tell } from '../tell';

/** Words of the door, one list a part. */

export const SIGN_IN_DIALOG = {
  signIn: 'Sign in',
  whoAreYou: 'Who are you',
  yourName: 'Your name, as it stands in the crew',
  pin: 'PIN',
  digits: 'Digits',
  deleteLast: 'Delete the last digit',
  useAPasskey: 'Use a passkey',
  noPasskeyShown: 'No passkey was shown. Try again, or type the PIN.',
  goOnWithout: 'Go on under this name',
  later: 'Later',
  noPinYet: (name: Shown) => tell`${name} has no PIN yet. A crew lead gives one under Kit.`,
  untilThenTapsWait: 'Until somebody signs in, taps wait on this device.',
} as const;

export const SIGN_IN_BAR = {
  signInToGoOn: 'Sign in to go on. Taps wait on this device.',
  signInAs: (name: Shown) => tell`${name} must sign in: taps under that name wait on this device.`,
  takesDevice: (name: Shown) => tell`${name} signs in to take this device.`,
  signIn: 'Sign in',
} as const;

export const SIGN_IN_PART = {
  signIn: 'Sign-in',
  isRequired: 'Required: only whoever signs in gets in, and may do what their role may.',
  isOpen: 'Not required: whoever reaches this server may do everything, under any name.',
  require: 'Require sign-in',
  open: 'Open to everybody',
  leadsPin: 'Your PIN, as a crew lead',
  noLeadHasAPin: 'Give yourself a PIN first: a crew lead must be able to open what is shut.',
  hasPin: 'has a PIN',
  hasNoPin: 'no PIN yet',
  lockedUntil: (time: Shown) => tell`locked until ${time}`,
  setPin: 'Set PIN',
  pinOf: (name: Shown) => tell`New PIN of ${name}, 6 to 12 digits`,
  ownPin: 'Your own PIN as it stands',
  save: 'Save',
  cancel: 'Cancel',
  devices: 'Signed in on',
  thisDevice: 'this device',
  handedOver: 'handed over; what waits is still sent',
  lastSeen: (time: Shown) => tell`last seen ${time}`,
  end: 'End',
  endNamed: (name: Shown, device: Shown) => tell`End ${name} on ${device}`,
  passkeys: 'Passkeys',
  addPasskey: 'Add a passkey on this device',
  passkeyNeedsName: 'Passkeys work where this server is reached by a name, over TLS or on this machine.',
  passkeyName: 'This device',
  noPasskeys: 'None yet.',
  remove: 'Remove',
  removeNamed: (name: Shown) => tell`Remove the passkey of ${name}`,
  since: (time: Shown) => tell`since ${time}`,
  signOut: 'Sign out on this device',
  done: 'What was done at the door',
  nobody: 'nobody',
  unknownDevice: 'unknown device',
} as const;

export const AUDIT_WORDS = {
  'signed-in': 'signed in',
  'signed-out': 'signed out',
  'pin-wrong': 'wrong PIN',
  'locked-out': 'locked out after wrong PINs',
  'pin-set': 'PIN set',
  'passkey-added': 'passkey added',
  'passkey-removed': 'passkey removed',
  'session-ended': 'session ended',
  'sign-in-required': 'sign-in required',
  'sign-in-open': 'opened to everybody',
  refused: 'refused',
  changed: 'changed',
} as const;
