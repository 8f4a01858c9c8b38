import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatIcon } from '@angular/material/icon';
import { Router } from '@angular/router';
import { onItem } from '../commands/command';
import { offerCommands } from '../commands/offer-commands';
import { RunDirective } from '../commands/run.directive';
import { Opener } from '../open/opener';
import { agoText } from '../ui/ago';
import { Studio } from '../state/studio';
import type { KeptProject } from '../storage/database';
import { Keeper } from '../storage/keeper';
import { Notices } from '../ui/notices';
import { loadSamples, type Sample } from '../open/samples';

/** What is kept in this browser, the sample projects, opening a file and starting anew. */
@Component({
  selector: 'kz-projects',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RunDirective, MatIcon],
  templateUrl: './projects.component.html',
  styleUrl: './projects.component.scss',
})
export class ProjectsComponent {
  readonly keeper = inject(Keeper);
  private readonly opener = inject(Opener);
  private readonly studio = inject(Studio);
  private readonly router = inject(Router);
  private readonly notices = inject(Notices);
  readonly samples = signal<readonly Sample[]>([]);
  readonly topic = signal('All');
  readonly topics = computed(() => {
    const counts = new Map<string, number>([['All', this.samples().length]]);
    for (const topic of this.samples().flatMap((sample) => sample.topics)) {
      counts.set(topic, (counts.get(topic) ?? 0) + 1);
    }
    return [...counts].map(([name, count]) => ({ name, count }));
  });
  readonly shownSamples = computed(() =>
    this.samples().filter((sample) => this.topic() === 'All' || sample.topics.includes(this.topic())),
  );
  readonly openId = computed(() => this.studio.project()?.id ?? null);
  private readonly now = Date.now();

  constructor() {
    offerCommands([
      onItem<KeptProject>({
        id: 'project.open-kept',
        label: 'Open the kept project that was changed last',
        group: 'Project',
        meant: () => this.keeper.kept()?.[0] ?? null,
        run: ({ id }) => void this.router.navigate(['/bench', id]),
      }),
      onItem<KeptProject>({
        id: 'project.remove',
        label: 'Remove the open project from this browser',
        group: 'Project',
        meant: () => this.keeper.kept()?.find(({ id }) => id === this.openId()) ?? null,
        run: (kept) => void this.remove(kept),
      }),
      onItem<string>({
        id: 'project.sample',
        label: 'Open the first of the samples',
        group: 'Project',
        meant: () => this.shownSamples()[0]?.id ?? null,
        run: (id) => void this.opener.openSample(id),
      }),
    ]);
    void this.keeper.flush().then(() => this.keeper.list());
    loadSamples().then(
      (samples) => this.samples.set(samples),
      () =>
        this.notices.warn(
          'The samples could not be fetched: Kaizen’s server has stopped. Start it again with npm start',
        ),
    );
  }

  changed(kept: KeptProject): string {
    return `Changed ${agoText(kept.changed, Math.max(this.now, kept.changed))}`;
  }

  private async remove(kept: KeptProject): Promise<void> {
    const taken = await this.keeper.remove(kept.id);
    this.notices.tell(`${kept.name} was removed from this browser`, {
      label: 'Bring it back',
      run: () => void this.keeper.bringBack(taken).then(() => this.notices.clear()),
    });
  }
}
