import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import type {
  BoardCall,
  Call,
  CrewMember,
  JobDetail,
  LogPage,
  NewCall,
  RuleSetting,
  RulesPage,
  Van,
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

  machines(): Observable<Machine[]> {
    return this.http.get<Machine[]>('/api/machines');
  }

  log(text: string, verdict: VerdictKind | null, offset: number, limit: number): Observable<LogPage> {
    const params = { q: text, verdict: verdict ?? '', offset, limit };
    return this.http.get<LogPage>('/api/jobs', { params });
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

  append(event: JobEvent): Observable<Acknowledged> {
    return this.http.post<Acknowledged>(`/api/jobs/${event.jobId}/events`, event);
  }
}
