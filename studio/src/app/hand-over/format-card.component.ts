import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { Carries } from '@kaizen/core';
import { RunDirective } from '../commands/run.directive';

/** An export under way, or how the last one ended. */
export type CardState =
  | { readonly kind: 'idle' }
  | { readonly kind: 'writing'; readonly share: number | null }
  | { readonly kind: 'done'; readonly text: string }
  | { readonly kind: 'failed'; readonly text: string };

/** One format: what it carries and what not, its choices, and the press that writes it. */
@Component({
  selector: 'kz-format-card',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RunDirective],
  template: `
    <section class="card" [attr.aria-label]="title()">
      <div class="head">
        <h2>
          @if (title().startsWith('glTF')) {
            <span class="numbers">glTF</span>{{ title().slice(4) }}
          } @else {
            {{ title() }}
          }
        </h2>
        <span class="numbers soft">{{ file() }}</span>
      </div>
      @if (carried(); as carried) {
        <dl>
          <dt><i class="exactly"></i>Carried exactly</dt>
          <dd>{{ carried.exactly.join(', ') }}</dd>
          <dt><i class="baked"></i>Baked</dt>
          <dd>{{ carried.baked.join(', ') || 'nothing in this project' }}</dd>
          <dt><i class="left"></i>Left out</dt>
          <dd>{{ carried.left.join(', ') || 'nothing in this project' }}</dd>
        </dl>
      }
      <ng-content select="[about]" />
      <div class="foot">
        @let now = state();
        @if (now.kind === 'writing') {
          <progress [attr.value]="now.share" max="1" [attr.aria-label]="'Writing ' + title()"></progress>
          <button class="button" kzRun="hand-over.stop" [kzOf]="id()" kzTip="Stop writing; no file is left">
            Cancel
          </button>
        } @else {
          <ng-content select="[choices]" />
          <span class="space"></span>
          <button class="button main" [kzRun]="'hand-over.' + id()" [kzTip]="'Write ' + file()">
            {{ verb() }}
          </button>
        }
      </div>
      @if (now.kind === 'done' || now.kind === 'failed') {
        <p role="status" class="result" [class.failed]="now.kind === 'failed'">{{ now.text }}</p>
      }
    </section>
  `,
  styleUrl: './format-card.component.scss',
})
export class FormatCardComponent {
  /** Its part of the id of the command that writes it. */
  readonly id = input.required<string>();
  readonly title = input.required<string>();
  readonly file = input.required<string>();
  readonly verb = input.required<string>();
  readonly carried = input<Carries | null>(null);
  readonly state = input.required<CardState>();
}
