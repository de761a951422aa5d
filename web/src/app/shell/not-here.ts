import { ChangeDetectionStrategy, Component } from '@angular/core';
import { RouterLink } from '@angular/router';
import { NOT_HERE as T } from '@words/screens/shell';

/** For an address that names no screen. */
@Component({
  selector: 'vt-not-here',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink],
  host: { class: 'page' },
  template: `
    <h1>{{ t.nothingHere }}</h1>
    <p class="dim">{{ t.text }}</p>
    <a routerLink="/board">{{ t.toTheBoard }}</a>
  `,
})
export class NotHere {
  protected readonly t = T;
}
