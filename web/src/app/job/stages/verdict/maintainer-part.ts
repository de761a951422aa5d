import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { fixed } from '@words/numbers';
import { maintaining } from '@voltrek/core/charging';
import { startsByWaking } from '@voltrek/core/machine';
import { MAINTAINER_PART as T } from '@words/screens/job-stages-verdict';
import type { Work } from '../../../shared/job/job-selectors';

/** How a battery that stands for weeks is kept full: what the maintainer gives, how its lead is fitted, and what becomes of it otherwise. */
@Component({
  selector: 'vt-maintainer',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3>{{ t.title }}</h3>
    <dl class="figure-row">
      <div>
        <dt>{{ t.gives }}</dt>
        <dd class="figure">{{ kept().amps }} <small>A</small></dd>
      </div>
      <div>
        <dt>{{ t.holds }}</dt>
        <dd class="figure">
          {{ t.volts({ least: kept().leastVolts, most: kept().mostVolts }) }} <small>V</small>
        </dd>
      </div>
      <div>
        <dt>{{ t.halfEmpty }}</dt>
        <dd class="figure">{{ kept().daysJoined }} <small>d</small></dd>
      </div>
      @if (mayPart()) {
        <div>
          <dt>{{ t.halfEmptyParted }}</dt>
          <dd class="figure">{{ kept().daysParted }} <small>d</small></dd>
        </div>
      }
    </dl>
    <ol class="ruled">
      <li>{{ t.pigtail({ sectionMm2: kept().sectionMm2, fuseAmps: kept().fuseAmps }) }}</li>
      <li>{{ t.rings }}</li>
      <li>{{ t.where }}</li>
      <li>{{ t.plug }}</li>
      <li>{{ mayPart() ? t.orMinusOff : t.notMinusOff }}</li>
    </ol>
    <p class="dim">
      {{ drain() === null ? t.drainUnread : t.drainRead({ milliamps: fixed(drain()! * 1000) }) }}
    </p>
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      gap: 10px;
    }
    li {
      padding: 6px 0;
      font-size: var(--text-s);
      line-height: 1.25;
    }
  `,
})
export class MaintainerPart {
  protected readonly fixed = fixed;
  protected readonly t = T;

  readonly work = input.required<Work>();

  protected readonly drain = computed(() => {
    const { drain } = this.work().job.findings;
    return typeof drain === 'number' && drain >= 0 ? drain : null;
  });
  protected readonly kept = computed(() =>
    maintaining(this.work().machine.batteries[0]!.rating, this.drain()),
  );
  /** A machine that must be set again after a power loss, or would not wake, keeps its negative on. */
  protected readonly mayPart = computed(() => {
    const { machine } = this.work();
    return machine.resets.length === 0 && !startsByWaking(machine);
  });
}
