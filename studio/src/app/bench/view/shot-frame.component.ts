import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import type { Option } from '../../ui/option';
import { SelectComponent } from '../../ui/select.component';
import { ShotLook } from './shot-look';

const SHAPES: readonly Option<number>[] = [
  { value: 16 / 9, label: '16 : 9' },
  { value: 3 / 2, label: '3 : 2' },
  { value: 4 / 3, label: '4 : 3' },
  { value: 1, label: '1 : 1' },
  { value: 9 / 16, label: '9 : 16' },
  { value: 2.39, label: '2.39 : 1' },
];

/** The true frame of the camera that is looked through: an ink line, what lies outside it paled. */
@Component({
  selector: 'kz-shot-frame',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RunDirective, SelectComponent],
  template: `
    @if (look.part(); as part) {
      <div class="frame" [style.inset]="inset()" role="img" [attr.aria-label]="'Frame of ' + part.name">
        <i></i>
      </div>
      <div class="tools">
        <button
          class="button toggle"
          kzRun="view.fly"
          kzTip="Drags look about, with Shift they shift the camera, the wheel goes on; in the view arrow keys do the same, Page Up and Page Down go on and back. Keys while Capture is on"
        >
          Fly
        </button>
        <button
          class="button toggle"
          kzRun="view.depth"
          kzTip="Blurs what lies outside the focus, as the lens would"
        >
          Focus blur
        </button>
      </div>
      <kz-select
        class="shape"
        name="Shape of the frame"
        tip="Width to height of the shot’s frame"
        [options]="shapes"
        [value]="studio.bench().shotFrame"
        (chosen)="studio.set({ shotFrame: $event })"
      />
    }
  `,
  styles: `
    :host {
      position: absolute;
      inset: 0;
      overflow: hidden;
      pointer-events: none;
    }
    .frame {
      position: absolute;
      border: 1px solid var(--ink);
      box-shadow: 0 0 0 4000px color-mix(in srgb, var(--paper) 62%, transparent);
    }
    /* a cross in the middle of the frame */
    i::before,
    i::after {
      content: '';
      position: absolute;
      left: calc(50% - 6px);
      top: 50%;
      width: 12px;
      border-top: 1px solid var(--ink-soft);
    }
    i::after {
      transform: rotate(90deg);
    }
    .tools {
      position: absolute;
      right: 116px;
      bottom: 42px;
      display: flex;
      gap: 6px;
      pointer-events: auto;
    }
    .shape {
      position: absolute;
      right: 12px;
      bottom: 42px;
      width: 92px;
      pointer-events: auto;
    }
  `,
})
export class ShotFrameComponent {
  readonly look = inject(ShotLook);
  readonly studio = inject(Studio);
  readonly shapes = SHAPES;
  readonly inset = computed(() => {
    const { width, height } = this.look.frame();
    const share = (part: number) => `${((1 - part) / 2) * 100}%`;
    return `${share(height)} ${share(width)}`;
  });
}
