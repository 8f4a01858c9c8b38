import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatIcon } from '@angular/material/icon';
import { MatTooltip } from '@angular/material/tooltip';
import { RouterLink, RouterLinkActive } from '@angular/router';
import { CommandRegistry } from '../commands/registry';
import { RunDirective } from '../commands/run.directive';
import { Studio } from '../state/studio';
import { Theme } from '../ui/theme';
import { KeepLineComponent } from './keep-line.component';
import { NoticeLineComponent } from './notice-line.component';

/** The bar over every screen: which project, which screen, what is kept or was just told, undo and the palette. */
@Component({
  selector: 'kz-top-bar',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    MatIcon,
    MatTooltip,
    RouterLink,
    RouterLinkActive,
    KeepLineComponent,
    NoticeLineComponent,
    RunDirective,
  ],
  template: `
    <header>
      <a class="logo" routerLink="/projects" matTooltip="All projects">
        <img src="kaizen.svg" width="26" height="26" alt="" />
        Kaizen
      </a>
      <span class="project">{{ studio.project()?.name }}</span>
      <nav aria-label="Screens">
        <a routerLink="/projects" routerLinkActive="current" ariaCurrentWhenActive="page">Projects</a>
        @if (id(); as id) {
          <a [routerLink]="['/bench', id]" routerLinkActive="current" ariaCurrentWhenActive="page">Bench</a>
          <a [routerLink]="['/drivetrain', id]" routerLinkActive="current" ariaCurrentWhenActive="page"
            >Drivetrain</a
          >
          <a [routerLink]="['/hand-over', id]" routerLinkActive="current" ariaCurrentWhenActive="page"
            >Hand over</a
          >
        }
      </nav>
      <div class="middle">
        <kz-keep-line [class.behind]="told.isInBar()" />
        <kz-notice-line #told />
      </div>
      <button kzRun="project.undo" [kzTip]="undoTip()">
        <mat-icon svgIcon="undo" />
        Undo
      </button>
      <button aria-label="Redo" kzRun="project.redo" [kzTip]="redoTip()">
        <mat-icon svgIcon="redo" />
      </button>
      <button aria-label="Day or night" kzRun="view.theme">
        <mat-icon [svgIcon]="theme.name() === 'day' ? 'moon' : 'sun'" />
      </button>
      <button aria-label="All shortcuts" kzRun="help.shortcuts">
        <mat-icon svgIcon="help" />
      </button>
      <button aria-label="Find a command" kzRun="help.palette">
        <mat-icon svgIcon="search" />
        <span class="wide">Find a command</span>
      </button>
    </header>
  `,
  styleUrl: './top-bar.component.scss',
})
export class TopBarComponent {
  readonly studio = inject(Studio);
  readonly theme = inject(Theme);
  readonly registry = inject(CommandRegistry);
  readonly id = computed(() => this.studio.project()?.id ?? null);
  readonly undoTip = computed(() => `Undo: ${this.studio.undoLabel() ?? 'nothing yet'}`);
  readonly redoTip = computed(() => `Redo: ${this.studio.redoLabel() ?? 'nothing undone'}`);
}
