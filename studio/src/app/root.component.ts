import { ApplicationRef, ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { BenchAheadComponent } from './bench-ahead.component';
import { CommandRegistry } from './commands/registry';
import { droppedFiles } from './open/files';
import { MadeAhead } from './open/made-ahead';
import { Opener } from './open/opener';
import { AppCommands } from './shell/app-commands';
import { EditedElsewhereComponent } from './shell/edited-elsewhere.component';
import { FetchAhead } from './shell/fetch-ahead';
import { ProgressBarComponent } from './shell/progress-bar.component';
import { TopBarComponent } from './shell/top-bar.component';
import { UnusablePageComponent } from './shell/unusable-page.component';
import { Studio } from './state/studio';
import { Keeper } from './storage/keeper';

/** The window: bar, screen, messages; takes dropped files and key presses for the whole page. */
@Component({
  selector: 'kz-root',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    BenchAheadComponent,
    RouterOutlet,
    TopBarComponent,
    ProgressBarComponent,
    EditedElsewhereComponent,
    UnusablePageComponent,
  ],
  host: {
    '(document:keydown)': 'onKey($event)',
    '(document:keyup)': 'registry.release($event)',
    '(document:dragover)': 'onDragOver($event)',
    '(document:dragleave)': 'onDragLeave($event)',
    '(document:drop)': 'onDrop($event)',
    '(window:beforeunload)': 'onLeave($event)',
  },
  template: `
    <kz-top-bar />
    <kz-edited-elsewhere />
    <main>
      @if (keeper.unusable(); as why) {
        <kz-unusable-page [why]="why" />
      }
      <div class="screen" [hidden]="keeper.unusable() !== null">
        <router-outlet />
        <div class="ahead" [class.asleep]="asleep()" [inert]="asleep()" [attr.aria-hidden]="asleep() || null">
          <kz-bench-ahead />
        </div>
      </div>
    </main>
    @if (dropping()) {
      <div class="drop" aria-hidden="true"><span>Drop a model or a project</span></div>
    }
    <kz-progress-bar />
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      height: 100vh;
    }
    main {
      position: relative;
      flex: 1;
      min-height: 0;
    }
    .screen {
      position: relative;
      height: 100%;
    }
    .ahead {
      position: absolute;
      inset: 0;
    }
    .asleep {
      z-index: -1;
      visibility: hidden;
    }
    .screen[hidden] {
      display: none;
    }
    .drop {
      position: fixed;
      inset: 54px 10px 10px;
      z-index: 800;
      display: grid;
      place-items: center;
      border: 2px dashed var(--select);
      border-radius: 8px;
      background: color-mix(in srgb, var(--select-ground) 80%, transparent);
      color: var(--select);
      font-size: 20px;
      font-weight: 600;
      pointer-events: none;
    }
  `,
})
export class RootComponent {
  readonly studio = inject(Studio);
  readonly registry = inject(CommandRegistry);
  private readonly application = inject(ApplicationRef);
  readonly keeper = inject(Keeper);
  private readonly opener = inject(Opener);
  private readonly madeAhead = inject(MadeAhead);
  readonly dropping = signal(false);
  readonly asleep = computed(() => !this.madeAhead.onShow());

  constructor() {
    const commands = inject(AppCommands);
    this.registry.add(commands.list());
    inject(FetchAhead).begin();
  }

  /** What a shortcut opens is drawn at once, so that keys typed fast after it already go there. */
  onKey(event: KeyboardEvent): void {
    if (this.registry.handle(event)) this.application.tick();
  }

  onDragOver(event: DragEvent): void {
    if (!event.dataTransfer?.types.includes('Files')) return;
    event.preventDefault();
    this.dropping.set(true);
  }

  onDragLeave(event: DragEvent): void {
    if (event.relatedTarget === null) this.dropping.set(false);
  }

  onDrop(event: DragEvent): void {
    this.dropping.set(false);
    if (!event.dataTransfer) return;
    event.preventDefault();
    void droppedFiles(event.dataTransfer).then((files) => this.opener.open(files));
  }

  /** Asks before closing only while something could not be kept. */
  onLeave(event: BeforeUnloadEvent): void {
    if (this.keeper.failed() && this.keeper.unkept) event.preventDefault();
  }
}
