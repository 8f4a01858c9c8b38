import { ChangeDetectionStrategy, Component, effect, inject, signal } from '@angular/core';
import { offerCommands } from '../commands/offer-commands';
import { RunDirective } from '../commands/run.directive';
import { Studio } from '../state/studio';
import { Keeper } from '../storage/keeper';
import { Notices } from '../ui/notices';

/** The line under the bar that tells what another tab does with this project, and what can be done about it. */
@Component({
  selector: 'kz-edited-elsewhere',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RunDirective],
  template: `
    @if (keeper.status().kind === 'left-behind') {
      <div class="line problem" role="alert">
        <span>
          Another tab took this project over while edits made here could not be kept. They are only here: save
          them as a file before you close this tab.
        </span>
        <button class="button" kzRun="project.save" kzTip="Download the project with these edits">
          Save a file
        </button>
        <button class="button bare" kzRun="project.let-go" kzTip="Show what the other tab keeps instead">
          Let them go
        </button>
      </div>
    } @else if (keeper.status().kind === 'removed') {
      <div class="line problem" role="alert">
        <span>This project was removed from this browser in another tab. It is still open here.</span>
        <button class="button" kzRun="project.keep-again" kzTip="Write the whole project again">
          Keep it again
        </button>
        <button class="button" kzRun="project.save" kzTip="Download the project as it is now">
          Save a file
        </button>
      </div>
    } @else if (studio.readOnly()) {
      <div class="line" role="status">
        @if (refused(); as reason) {
          <span>
            The other tab has edits it could not keep ({{ reason }}); they stay only there if you take over.
          </span>
          <button
            class="button"
            kzRun="project.take-over"
            [kzOf]="true"
            kzTip="Edit here; go to the other tab to save its edits"
          >
            Take over all the same
          </button>
        } @else {
          <span>This project is being edited in another tab; here you see what it keeps.</span>
          <button
            class="button"
            kzRun="project.take-over"
            kzTip="Edit here; the other tab keeps what it has and follows"
          >
            Take over here
          </button>
        }
      </div>
    }
  `,
  styles: `
    .line {
      display: flex;
      align-items: center;
      gap: 14px;
      padding: 5px 16px;
      border-bottom: 1px solid var(--rule);
      background: var(--select-ground);
    }
    .problem {
      border-left: 4px solid var(--warn);
      background: var(--sheet);
    }
  `,
})
export class EditedElsewhereComponent {
  readonly studio = inject(Studio);
  readonly keeper = inject(Keeper);
  private readonly notices = inject(Notices);
  private readonly asking = signal(false);
  /** Why the other tab could not hand the project over. */
  readonly refused = signal('');

  constructor() {
    const isLeftBehind = () => this.keeper.status().kind === 'left-behind';
    const isRemoved = () => this.keeper.status().kind === 'removed';
    offerCommands([
      {
        id: 'project.take-over',
        label: 'Take this project over from the tab that edits it',
        group: 'Project',
        when: () => this.studio.readOnly() && !isLeftBehind() && !isRemoved() && !this.asking(),
        // only the button under the warning takes it all the same: the palette does not show what would stay behind
        run: (must) => void this.takeOver(must === true),
      },
      {
        id: 'project.let-go',
        label: 'Let go the edits that could not be kept',
        group: 'Project',
        when: isLeftBehind,
        run: () => void this.keeper.letGoUnkept(),
      },
      {
        id: 'project.keep-again',
        label: 'Keep the project again that another tab removed',
        group: 'Project',
        when: isRemoved,
        run: () => void this.keeper.keepAgain(),
      },
    ]);
    effect(() => {
      if (this.keeper.writtenAgain() > 0)
        this.notices.tell('This browser’s storage was cleared: the open project was kept again, whole');
    });
  }

  private async takeOver(must: boolean): Promise<void> {
    this.asking.set(true);
    const answer = await this.keeper.takeOver(must);
    this.asking.set(false);
    this.refused.set(typeof answer === 'object' ? answer.reason : '');
  }
}
