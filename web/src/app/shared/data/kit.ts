import type { KitEntry, Van } from '@voltrek/contracts';
import type { Observable } from 'rxjs';
import type { Api } from './api';
import { serverCopy } from './server-copy';

/** Changes of vans and kit. */
export type KitChange =
  | { readonly what: 'add-van'; readonly name: string }
  | { readonly what: 'change-van'; readonly vanId: string; readonly name: string; readonly retired: boolean }
  | { readonly what: 'add-kit'; readonly vanId: string; readonly entry: KitEntry }
  | { readonly what: 'change-kit'; readonly itemId: string; readonly entry: KitEntry }
  | { readonly what: 'retire-kit'; readonly itemId: string; readonly by: string }
  | { readonly what: 'recharge-kit'; readonly itemId: string; readonly by: string }
  /** The care of a mark is done. */
  | { readonly what: 'finish-mark'; readonly markId: string; readonly by: string };

/** The vans and what they carry. */
export const kitCopy = serverCopy<readonly Van[], KitChange>('kit', [], {
  ask: (api) => api.vans(),
  send: sent,
});

function sent(api: Api, change: KitChange): Observable<Van[]> {
  switch (change.what) {
    case 'add-van':
      return api.addVan(change.name);
    case 'change-van':
      return api.changeVan(change.vanId, change.name, change.retired);
    case 'add-kit':
      return api.addKit(change.vanId, change.entry);
    case 'change-kit':
      return api.changeKit(change.itemId, change.entry);
    case 'retire-kit':
      return api.retireKit(change.itemId, change.by);
    case 'recharge-kit':
      return api.rechargeKit(change.itemId, change.by);
    case 'finish-mark':
      return api.finishMark(change.markId, change.by);
  }
}
