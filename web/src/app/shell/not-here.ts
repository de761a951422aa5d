import { ChangeDetectionStrategy, Component } from '@angular/core';
import { RouterLink } from '@angular/router';

/** For an address that names no screen. */
@Component({
  selector: 'vt-not-here',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink],
  host: { class: 'page' },
  template: `
    <h1>Nothing here</h1>
    <p class="dim">That address names no screen.</p>
    <a routerLink="/board">To the board</a>
  `,
})
export class NotHere {}
