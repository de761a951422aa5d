import { HttpClient, HttpResponse } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import type {
  AddressChange,
  AtlasEntry,
  BackupState,
  Battery,
  BatteryRecord,
  BoardCall,
  Call,
  CallChange,
  CallOutset,
  CaptureLine,
  CrewMember,
  DevicePack,
  DueFollowUp,
  Exam,
  Forecast,
  HouseFigures,
  ImportReport,
  Instrument,
  InstrumentAddresses,
  InstrumentNow,
  JobDetail,
  JobFilter,
  KitEntry,
  LogPage,
  MachineSearch,
  NewBattery,
  NewBatteryMove,
  NewCall,
  NewCallChange,
  NewExam,
  NewShiftEnd,
  Person,
  PinChange,
  ProbesPlaced,
  RuleSetting,
  RulesPage,
  SetUp,
  ShiftEnd,
  ShiftLeft,
  SignInHouse,
  SignInRuleChange,
  SignInState,
  Van,
  Vehicle,
  VehicleEntry,
  VehicleRecord,
  VehicleSummary,
  WatchPage,
  Weather,
} from '@voltrek/contracts';
import type { CaseReading } from '@voltrek/core/practice';
import type { EventTaken, HouseNow } from '@voltrek/contracts/api';
import type { JobEvent } from '@voltrek/core/job';
import type { Machine } from '@voltrek/core/machine';
import type {
  AuthenticationResponseJSON,
  PublicKeyCredentialCreationOptionsJSON,
  PublicKeyCredentialRequestOptionsJSON,
  RegistrationResponseJSON,
} from '@simplewebauthn/browser';
import { filter, map, type Observable, timeout } from 'rxjs';

/** So many ends of shifts are looked at. */
const SHIFTS_SHOWN = 20;

/** A picture goes through a thin line slowly; one of which nothing goes for this long is given up, ms. */
const PICTURE_STILL_MS = 60_000;

/** The server, one method a route. Holds nothing. */
@Injectable({ providedIn: 'root' })
export class Api {
  private readonly http = inject(HttpClient);

  board(): Observable<BoardCall[]> {
    return this.http.get<BoardCall[]>('/api/board');
  }

  /** The device's copy of the house, and when the server made it: the service worker may give an older one. */
  devicePack(): Observable<{ readonly body: DevicePack; readonly at: Date }> {
    return this.http
      .get<DevicePack>('/api/device', { observe: 'response' })
      .pipe(map((response) => ({ body: response.body!, at: madeAt(response) })));
  }

  openCall(call: NewCall): Observable<Call> {
    return this.http.post<Call>('/api/board', call);
  }

  exams(): Observable<Exam[]> {
    return this.http.get<Exam[]>('/api/exams');
  }

  /** Sent again it changes nothing. */
  addExam(exam: NewExam): Observable<Exam> {
    return this.http.post<Exam>('/api/exams', exam);
  }

  signExam(examId: string, by: string): Observable<Exam> {
    return this.http.post<Exam>(`/api/exams/${examId}/signature`, { by });
  }

  /** The sign-in state of this device. */
  signIn(): Observable<SignInState> {
    return this.http.get<SignInState>('/api/sign-in');
  }

  /** @param named id, or name as it stands in the crew */
  signInByPin(named: string, pin: string): Observable<SignInState> {
    return this.http.post<SignInState>('/api/sign-in/pin', { named, pin });
  }

  passkeyQuestion(): Observable<PublicKeyCredentialRequestOptionsJSON> {
    return this.http.post<PublicKeyCredentialRequestOptionsJSON>('/api/sign-in/passkey-question', {});
  }

  signInByPasskey(answer: AuthenticationResponseJSON): Observable<SignInState> {
    return this.http.post<SignInState>('/api/sign-in/passkey', { answer });
  }

  signOut(): Observable<SignInState> {
    return this.http.post<SignInState>('/api/sign-in/out', {});
  }

  signInHouse(): Observable<SignInHouse> {
    return this.http.get<SignInHouse>('/api/sign-in/house');
  }

  setSignInRule(change: SignInRuleChange): Observable<SignInHouse> {
    return this.http.put<SignInHouse>('/api/sign-in/door', change);
  }

  setPin(crewId: string, change: PinChange): Observable<SignInHouse> {
    return this.http.put<SignInHouse>(`/api/sign-in/pins/${crewId}`, change);
  }

  newPasskeyQuestion(by: string): Observable<PublicKeyCredentialCreationOptionsJSON> {
    return this.http.post<PublicKeyCredentialCreationOptionsJSON>('/api/sign-in/passkeys/question', { by });
  }

  addPasskey(by: string, name: string, answer: RegistrationResponseJSON): Observable<SignInHouse> {
    return this.http.post<SignInHouse>('/api/sign-in/passkeys', { by, name, answer });
  }

  removePasskey(id: string): Observable<SignInHouse> {
    return this.http.delete<SignInHouse>(`/api/sign-in/passkeys/${encodeURIComponent(id)}`);
  }

  endSession(id: string): Observable<SignInHouse> {
    return this.http.delete<SignInHouse>(`/api/sign-in/sessions/${id}`);
  }

  crew(): Observable<CrewMember[]> {
    return this.http.get<CrewMember[]>('/api/crew');
  }

  changeCall(callId: string, change: NewCallChange): Observable<BoardCall[]> {
    return this.http.post<BoardCall[]>(`/api/board/${callId}/changes`, change);
  }

  /** A job as it would begin for this call. */
  outset(callId: string): Observable<CallOutset> {
    return this.http.get<CallOutset>(`/api/board/${callId}/outset`);
  }

  callChanges(callId: string): Observable<CallChange[]> {
    return this.http.get<CallChange[]>(`/api/board/${callId}/changes`);
  }

  house(): Observable<HouseNow> {
    return this.http.get<HouseNow>('/api/house');
  }

  setUp(setUp: SetUp): Observable<HouseNow> {
    return this.http.post<HouseNow>('/api/house', setUp);
  }

  addCrew(member: Omit<CrewMember, 'id'>): Observable<CrewMember[]> {
    return this.http.post<CrewMember[]>('/api/crew', member);
  }

  changeCrew({ id, ...member }: CrewMember): Observable<CrewMember[]> {
    return this.http.put<CrewMember[]>(`/api/crew/${id}`, member);
  }

  vans(): Observable<Van[]> {
    return this.http.get<Van[]>('/api/vans');
  }

  addVan(name: string): Observable<Van[]> {
    return this.http.post<Van[]>('/api/vans', { name, retired: false });
  }

  changeVan(id: string, name: string, retired: boolean): Observable<Van[]> {
    return this.http.put<Van[]>(`/api/vans/${id}`, { name, retired });
  }

  addKit(vanId: string, entry: KitEntry): Observable<Van[]> {
    return this.http.post<Van[]>(`/api/vans/${vanId}/items`, entry);
  }

  changeKit(itemId: string, entry: KitEntry): Observable<Van[]> {
    return this.http.put<Van[]>(`/api/vans/items/${itemId}`, entry);
  }

  retireKit(itemId: string, by: string): Observable<Van[]> {
    return this.http.post<Van[]>(`/api/vans/items/${itemId}/retire`, { by });
  }

  rechargeKit(itemId: string, by: string): Observable<Van[]> {
    return this.http.post<Van[]>(`/api/vans/items/${itemId}/recharge`, { by });
  }

  vehicles(typed: string): Observable<VehicleSummary[]> {
    return this.http.get<VehicleSummary[]>('/api/vehicles', { params: { q: typed } });
  }

  vehicle(vehicleId: string): Observable<VehicleRecord> {
    return this.http.get<VehicleRecord>(`/api/vehicles/${vehicleId}`);
  }

  addVehicle(entry: VehicleEntry): Observable<Vehicle> {
    return this.http.post<Vehicle>('/api/vehicles', entry);
  }

  changeVehicle(id: string, vehicle: VehicleEntry, basedOn: number, by: string): Observable<VehicleRecord> {
    return this.http.put<VehicleRecord>(`/api/vehicles/${id}`, { vehicle, basedOn, by });
  }

  erasePerson(personId: string, by: string): Observable<Person> {
    return this.http.post<Person>(`/api/people/${personId}/erase`, { by });
  }

  looseBatteries(): Observable<Battery[]> {
    return this.http.get<Battery[]>('/api/batteries');
  }

  addBattery(battery: NewBattery): Observable<BatteryRecord> {
    return this.http.post<BatteryRecord>('/api/batteries', battery);
  }

  moveBattery(batteryId: string, move: NewBatteryMove): Observable<BatteryRecord> {
    return this.http.post<BatteryRecord>(`/api/batteries/${batteryId}/moves`, move);
  }

  machines(typed: string): Observable<MachineSearch> {
    return this.http.get<MachineSearch>('/api/models', { params: { q: typed } });
  }

  entry(modelId: string): Observable<AtlasEntry> {
    return this.http.get<AtlasEntry>(`/api/models/${modelId}`);
  }

  addEntry(machine: Machine, by: string, note: string): Observable<AtlasEntry> {
    return this.http.post<AtlasEntry>('/api/models', { machine, by, note, basedOn: null });
  }

  correctEntry(machine: Machine, by: string, note: string, basedOn: number): Observable<AtlasEntry> {
    return this.http.put<AtlasEntry>(`/api/models/${machine.id}`, { machine, by, note, basedOn });
  }

  confirmEntry(modelId: string, by: string): Observable<AtlasEntry> {
    return this.http.post<AtlasEntry>(`/api/models/${modelId}/confirmations`, { by });
  }

  /** @param id under which it is kept, once however often it is sent */
  addPhoto(modelId: string, by: string, photo: Blob, id: string): Observable<AtlasEntry> {
    return this.sendPicture(`/api/models/${modelId}/photos`, { by, id, photo });
  }

  /** @param id as the log of the job has it */
  addJobPhoto(jobId: string, by: string, photo: Blob, id: string): Observable<{ readonly id: string }> {
    return this.sendPicture(`/api/jobs/${jobId}/photos`, { by, id, photo });
  }

  jobPhoto(jobId: string, photoId: string): Observable<Blob> {
    return this.http.get(`/api/jobs/${jobId}/photos/${photoId}`, { responseType: 'blob' });
  }

  private sendPicture<T>(address: string, form: Readonly<Record<string, string | Blob>>): Observable<T> {
    return this.http
      .post<T>(address, formOf(form), {
        observe: 'events',
        reportProgress: true,
        // Through the service worker the progress is not known.
        headers: { 'ngsw-bypass': '' },
      })
      .pipe(
        timeout({ each: PICTURE_STILL_MS }),
        filter((event) => event instanceof HttpResponse),
        map((response) => response.body!),
      );
  }

  previewImport(address: string, file: File): Observable<ImportReport> {
    return this.http.post<ImportReport>(`${address}/preview`, formOf({ file }));
  }

  importFile(address: string, file: File, by: string, basis: number): Observable<ImportReport> {
    return this.http.post<ImportReport>(`${address}/import`, formOf({ by, basis: String(basis), file }));
  }

  finishMark(markId: string, by: string): Observable<Van[]> {
    return this.http.post<Van[]>(`/api/vans/marks/${markId}/done`, { by });
  }

  log(text: string, filter: JobFilter, after: string, limit: number): Observable<LogPage> {
    return this.http.get<LogPage>('/api/jobs', { params: { ...filter, q: text, after, limit } });
  }

  figures(filter: JobFilter): Observable<HouseFigures> {
    return this.http.get<HouseFigures>('/api/jobs/figures', { params: { ...filter } });
  }

  /** One page of the vehicles to watch; `after` is the cursor of the page before, empty for the first. */
  watch(after: string): Observable<WatchPage> {
    return this.http.get<WatchPage>('/api/watch', { params: { after } });
  }

  forecast(place: string): Observable<Forecast> {
    return this.http.get<Forecast>('/api/instruments/forecast', { params: { place } });
  }

  shiftLeft(): Observable<ShiftLeft> {
    return this.http.get<ShiftLeft>('/api/shifts/left');
  }

  shifts(): Observable<ShiftEnd[]> {
    return this.http.get<ShiftEnd[]>('/api/shifts', { params: { limit: SHIFTS_SHOWN } });
  }

  giveShift(shift: NewShiftEnd): Observable<ShiftEnd> {
    return this.http.post<ShiftEnd>('/api/shifts', shift);
  }

  takeShift(shiftId: string, by: string): Observable<ShiftEnd> {
    return this.http.post<ShiftEnd>(`/api/shifts/${shiftId}/signature`, { by });
  }

  followUps(): Observable<DueFollowUp[]> {
    return this.http.get<DueFollowUp[]>('/api/follow-ups');
  }

  /** By its id, or the code on its label. */
  battery(named: string): Observable<BatteryRecord> {
    return this.http.get<BatteryRecord>(`/api/batteries/${encodeURIComponent(named)}`);
  }

  rules(): Observable<RulesPage> {
    return this.http.get<RulesPage>('/api/rules');
  }

  setRule(setting: RuleSetting): Observable<RulesPage> {
    return this.http.post<RulesPage>('/api/rules', setting);
  }

  backups(): Observable<BackupState> {
    return this.http.get<BackupState>('/api/backups');
  }

  backUp(by: string): Observable<BackupState> {
    return this.http.post<BackupState>('/api/backups', { by });
  }

  job(jobId: string): Observable<JobDetail> {
    return this.http.get<JobDetail>(`/api/jobs/${jobId}`);
  }

  /** Several jobs at once, {@link JOBS_WANTED_MOST} at most; those there are. */
  jobs(ids: readonly string[]): Observable<JobDetail[]> {
    return this.http.post<JobDetail[]>('/api/device/jobs', { ids });
  }

  placeProbes(placed: ProbesPlaced): Observable<null> {
    return this.http.put<null>('/api/instruments/probes', placed);
  }

  /** The linked instruments as they stand. */
  instruments(): Observable<InstrumentNow[]> {
    return this.http.get<InstrumentNow[]>('/api/instruments');
  }

  /** The addresses of the linked instruments, to a crew lead. */
  instrumentAddresses(): Observable<InstrumentAddresses> {
    return this.http.get<InstrumentAddresses>('/api/instruments/addresses');
  }

  linkInstrument(instrument: Instrument, change: AddressChange): Observable<InstrumentAddresses> {
    return this.http.put<InstrumentAddresses>(`/api/instruments/addresses/${instrument}`, change);
  }

  /** One reading of an instrument of a training bench, held to a case as far as it has been worked. */
  readInCase(reading: CaseReading): Observable<InstrumentNow> {
    return this.http.post<InstrumentNow>('/api/instruments/readings', reading);
  }

  /** Fills the meter's fast buffer and tells each line as it comes. @throws when the line to the server breaks */
  async capture(jobId: string, until: AbortSignal, hear: (line: CaptureLine) => void): Promise<void> {
    const response = await fetch('/api/instruments/capture', {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ jobId }),
      signal: until,
    });
    if (!response.ok || !response.body) throw new Error(`capture: ${response.status}`);
    const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
    let rest = '';
    for (;;) {
      const { done, value } = await reader.read();
      if (done) return;
      const lines = `${rest}${value}`.split('\n');
      rest = lines.pop() ?? '';
      for (const line of lines) hear(JSON.parse(line) as CaptureLine);
    }
  }

  weather(place: string): Observable<Weather> {
    return this.http.get<Weather>('/api/instruments/weather', { params: { place } });
  }

  /** @param heldMs how long the event waited on this device, by a clock that nobody sets */
  append(event: JobEvent, heldMs = 0): Observable<EventTaken | null> {
    const headers = { 'voltrek-held-ms': String(Math.max(0, Math.round(heldMs))) };
    return this.http.post<EventTaken | null>(`/api/jobs/${event.jobId}/events`, event, { headers });
  }
}

function madeAt({ headers }: HttpResponse<unknown>): Date {
  const date = headers.get('date');
  return date ? new Date(date) : new Date();
}

/** Fields come before the file, so that the server knows them when the file arrives. */
function formOf(fields: Readonly<Record<string, string | Blob>>): FormData {
  const form = new FormData();
  for (const [name, value] of Object.entries(fields)) form.append(name, value);
  return form;
}
