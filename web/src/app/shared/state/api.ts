import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import type {
  AtlasEntry,
  BatteryRecord,
  BoardCall,
  Call,
  CaptureLine,
  CrewMember,
  DueFollowUp,
  ImportReport,
  JobDetail,
  LogPage,
  MachineSearch,
  NewCall,
  ProbesPlaced,
  RuleSetting,
  RulesPage,
  Van,
  Weather,
} from '@voltrek/contracts';
import type { JobEvent, Machine, VerdictKind } from '@voltrek/core';
import type { Observable } from 'rxjs';

/** What the server says of an event it has taken. */
export interface Acknowledged {
  readonly event: JobEvent;
  readonly revision: number;
}

/** The server, one method a route. Holds nothing. */
@Injectable({ providedIn: 'root' })
export class Api {
  private readonly http = inject(HttpClient);

  board(): Observable<BoardCall[]> {
    return this.http.get<BoardCall[]>('/api/board');
  }

  openCall(call: NewCall): Observable<Call> {
    return this.http.post<Call>('/api/board', call);
  }

  crew(): Observable<CrewMember[]> {
    return this.http.get<CrewMember[]>('/api/crew');
  }

  vans(): Observable<Van[]> {
    return this.http.get<Van[]>('/api/kit');
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

  addPhoto(modelId: string, by: string, photo: File): Observable<AtlasEntry> {
    return this.http.post<AtlasEntry>(`/api/models/${modelId}/photos`, formOf({ by, photo }));
  }

  previewImport(file: File): Observable<ImportReport> {
    return this.http.post<ImportReport>('/api/models/preview', formOf({ file }));
  }

  importAtlas(file: File, by: string, basis: number): Observable<ImportReport> {
    return this.http.post<ImportReport>('/api/models/import', formOf({ by, basis: String(basis), file }));
  }

  finishMark(markId: string, by: string): Observable<Van[]> {
    return this.http.post<Van[]>(`/api/kit/marks/${markId}/done`, { by });
  }

  log(text: string, verdict: VerdictKind | null, offset: number, limit: number): Observable<LogPage> {
    const params = { q: text, verdict: verdict ?? '', offset, limit };
    return this.http.get<LogPage>('/api/jobs', { params });
  }

  followUps(): Observable<DueFollowUp[]> {
    return this.http.get<DueFollowUp[]>('/api/follow-ups');
  }

  battery(modelId: string): Observable<BatteryRecord> {
    return this.http.get<BatteryRecord>(`/api/batteries/${modelId}`);
  }

  rules(): Observable<RulesPage> {
    return this.http.get<RulesPage>('/api/rules');
  }

  setRule(setting: RuleSetting): Observable<RulesPage> {
    return this.http.post<RulesPage>('/api/rules', setting);
  }

  job(jobId: string): Observable<JobDetail> {
    return this.http.get<JobDetail>(`/api/jobs/${jobId}`);
  }

  placeProbes(placed: ProbesPlaced): Observable<null> {
    return this.http.put<null>('/api/instruments/probes', placed);
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

  append(event: JobEvent): Observable<Acknowledged> {
    return this.http.post<Acknowledged>(`/api/jobs/${event.jobId}/events`, event);
  }
}

/** Fields come before the file, so that the server knows them when the file arrives. */
function formOf(fields: Readonly<Record<string, string | File>>): FormData {
  const form = new FormData();
  for (const [name, value] of Object.entries(fields)) form.append(name, value);
  return form;
}
