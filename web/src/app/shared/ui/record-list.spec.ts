import { ChangeDetectionStrategy, Component, provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { RecordActs, RecordList, RecordRow } from './record-list';

interface Thing {
  readonly id: string;
  readonly name: string;
}

@Component({
  selector: 'vt-list-host',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RecordActs, RecordList, RecordRow],
  template: `
    <vt-record-list [link]="linkOf" [none]="none()">
      <ng-template [vtRow]="things()" let-thing
        ><strong>{{ thing.name }}</strong></ng-template
      >
      <ng-template [vtRowActs]="things()" let-thing
        ><button type="button" (click)="done.push(thing.id)">Done</button></ng-template
      >
    </vt-record-list>
  `,
})
class ListHost {
  readonly things = signal<readonly Thing[]>([]);
  readonly none = signal<string | null>(null);
  readonly done: string[] = [];
  readonly linkOf = ({ id }: Thing): readonly string[] => ['/thing', id];
}

describe('a list of records', () => {
  function show() {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection(), provideRouter([])] });
    const fixture = TestBed.createComponent(ListHost);
    return { fixture, host: fixture.componentInstance, root: fixture.nativeElement as HTMLElement };
  }

  it('links each record to its page, with its cells and its acts', async () => {
    const { fixture, host, root } = show();
    host.things.set([
      { id: 'a', name: 'First' },
      { id: 'b', name: 'Second' },
    ]);
    await fixture.whenStable();
    const links = [...root.querySelectorAll('a')];
    expect(links.map((a) => [a.getAttribute('href'), a.textContent.trim()])).toEqual([
      ['/thing/a', 'First'],
      ['/thing/b', 'Second'],
    ]);
    root.querySelectorAll('button')[1]!.click();
    expect(host.done).toEqual(['b']);
  });

  it('keeps the row of a record that moves', async () => {
    const { fixture, host, root } = show();
    host.things.set([
      { id: 'a', name: 'First' },
      { id: 'b', name: 'Second' },
    ]);
    await fixture.whenStable();
    const second = root.querySelectorAll('li')[1]!;
    host.things.set([{ id: 'b', name: 'Second, changed' }]);
    await fixture.whenStable();
    expect(root.querySelector('li')).toBe(second);
    expect(second.textContent).toContain('Second, changed');
  });

  it('says that it is empty only once that is known', async () => {
    const { fixture, host, root } = show();
    await fixture.whenStable();
    expect(root.querySelector('li')).toBeNull();
    host.none.set('No things.');
    await fixture.whenStable();
    expect(root.querySelector('li')!.textContent.trim()).toBe('No things.');
  });
});
