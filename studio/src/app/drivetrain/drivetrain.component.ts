import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  type ElementRef,
  inject,
  signal,
  viewChild,
  type AfterViewInit,
} from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { Router } from '@angular/router';
import { foldedNetwork, networkAbout, networkOf, partOf, type NetworkNode } from '@kaizen/core';
import { DriveCommands } from '../bench/drive/drive-commands';
import { DriverCardComponent } from '../bench/drive/driver-card.component';
import { LINKAGE_WORDS } from '../bench/drive/driver-words';
import { ConstraintCardComponent } from '../bench/links/constraint-card.component';
import { InterlockCardComponent } from '../bench/interlock/interlock-card.component';
import { InterlockCommands } from '../bench/interlock/interlock-commands';
import { standingWords } from '../bench/interlock/interlock-hands';
import { LinkCommands } from '../bench/links/link-commands';
import { PickBannerComponent } from '../bench/links/pick-banner.component';
import { SwitchCommands } from '../bench/shell/switch-commands';
import { channelLabel } from '../bench/stage/channel-label';
import { PartPicker } from '../bench/stage/picker';
import { Stage } from '../bench/stage/stage';
import { Standing } from '../bench/stage/standing';
import { PlayCommands } from '../bench/transport/play-commands';
import { TransportComponent } from '../bench/transport/transport.component';
import { CommandRegistry } from '../commands/registry';
import { RunDirective } from '../commands/run.directive';
import { drivetrainCommands } from './drivetrain-commands';
import { Studio } from '../state/studio';
import { decimalsOf, shownFrame, shownNumber } from '../ui/amount';
import type { Option } from '../ui/option';
import { SegmentsComponent } from '../ui/segments.component';
import { MechanismPlotsComponent } from './mechanism-plots.component';
import { Folding } from './folding';
import { BOX, layOut, type PlacedEdge, type PlacedNode } from './network-layout';
import { NetworkTreeComponent } from './network-tree.component';
import { Sparks } from './sparks';

type Shows = 'all' | 'up' | 'down';

/** So much more than what is in sight is drawn, in pixels, so that scrolling shows no gaps. */
const MARGIN = 200;
/** Width of the parts' names, in pixels. */
const NAMES = 140;

/** Drivetrain: the network of drivers and constraints, a lane a part, in the order of computing, with live values. */
@Component({
  selector: 'kz-drivetrain',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    ConstraintCardComponent,
    DriverCardComponent,
    InterlockCardComponent,
    MatTooltip,
    MechanismPlotsComponent,
    NetworkTreeComponent,
    PickBannerComponent,
    RunDirective,
    SegmentsComponent,
    TransportComponent,
  ],
  templateUrl: './drivetrain.component.html',
  styleUrl: './drivetrain.component.scss',
})
export class DrivetrainComponent implements AfterViewInit {
  readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly standing = inject(Standing);
  private readonly picker = inject(PartPicker);
  private readonly router = inject(Router);
  private readonly sparks = inject(Sparks);
  private readonly scroll = viewChild.required<ElementRef<HTMLElement>>('scroll');
  private readonly sight = signal({ top: 0, height: 800 });
  readonly box = BOX;
  readonly zoom = signal(1);
  readonly names = NAMES;
  readonly asTree = signal(false);
  readonly shows = signal<Shows>('all');
  readonly chosenId = signal<string | null>(null);
  readonly showings: readonly Option<Shows>[] = [
    { value: 'all', label: 'All links', tip: 'The whole network' },
    {
      value: 'up',
      label: 'What drives this',
      tip: 'What leads to the chosen part, with all that rides on it',
    },
    { value: 'down', label: 'What this drives', tip: 'What the chosen part leads to' },
  ];

  constructor() {
    const registry = inject(CommandRegistry);
    const stage = this.stage;
    const shared = [
      inject(PlayCommands),
      inject(SwitchCommands),
      inject(DriveCommands),
      inject(InterlockCommands),
      inject(LinkCommands),
    ].flatMap((group) => group.list());
    const remove = registry.add([...shared, ...drivetrainCommands(this)]);
    inject(DestroyRef).onDestroy(() => {
      this.picker.leave();
      remove();
      stage.stop();
    });
  }

  ngAfterViewInit(): void {
    this.look();
  }

  /** Takes notice of what is in sight. */
  look(): void {
    const { scrollTop, clientHeight } = this.scroll().nativeElement;
    this.sight.set({ top: scrollTop / this.zoom(), height: clientHeight / this.zoom() });
  }

  /** Larger or smaller, between a quarter and twice. */
  setZoom(zoom: number): void {
    this.zoom.set(Math.min(2, Math.max(0.25, zoom)));
    this.look();
  }

  /** As large as the whole network has room for; never larger than it is drawn. */
  fit(): void {
    const { clientWidth, clientHeight } = this.scroll().nativeElement;
    const { width, height } = this.layout();
    this.setZoom(Math.min(1, clientWidth / (width + NAMES), clientHeight / Math.max(1, height)));
  }

  /** The wheel with Ctrl zooms; by itself it scrolls. */
  onWheel(event: WheelEvent): void {
    if (!event.ctrlKey && !event.metaKey) return;
    event.preventDefault();
    this.setZoom(this.zoom() * (event.deltaY < 0 ? 1.15 : 1 / 1.15));
  }

  readonly network = computed(() => {
    const project = this.stage.shown();
    return project ? networkOf(project) : { nodes: [], edges: [] };
  });
  private readonly part = computed(() => {
    const chosen = this.chosen();
    return chosen?.part ?? this.studio.bench().parts.at(-1) ?? null;
  });
  readonly folding = new Folding(this.studio.project, this.network);
  /** The network as far as it is asked for: all of it, or what leads to the chosen part or from it. */
  readonly asked = computed(() => {
    const [project, network] = [this.stage.shown(), this.network()];
    const part = this.shows() === 'all' ? null : this.part();
    if (!project || part === null) return network;
    return networkAbout(project, network, part, this.shows() === 'down' ? 'down' : 'up');
  });
  readonly layout = computed(() => {
    const project = this.stage.shown();
    const network = this.asked();
    return layOut(project ? foldedNetwork(project, network, this.folding.folded()) : network);
  });
  private isInSight(top: number, bottom: number): boolean {
    const { top: from, height } = this.sight();
    return bottom >= from - MARGIN && top <= from + height + MARGIN;
  }
  readonly nodes = computed((): readonly PlacedNode[] =>
    this.layout().nodes.filter(({ y }) => this.isInSight(y, y + BOX.height)),
  );
  readonly lanes = computed(() =>
    this.layout()
      .lanes.filter(({ top, height }) => this.isInSight(top, top + height))
      .map((lane) => ({
        ...lane,
        name: this.nameOf(lane.part),
        depth: this.depthOf(lane.part),
        fold: this.folding.of(lane.part),
      })),
  );
  readonly edges = computed((): readonly PlacedEdge[] =>
    this.layout().edges.filter(({ top, bottom }) => this.isInSight(top, bottom)),
  );

  readonly chosen = computed((): NetworkNode | null => {
    const id = this.chosenId();
    return this.network().nodes.find((node) => node.id === id) ?? null;
  });
  /** The drivers that the chosen piece is, or that give the chosen channel. */
  readonly drivers = computed(() => {
    const chosen = this.chosen();
    const all = this.stage.shown()?.drivers ?? [];
    if (chosen?.kind === 'driver') return all.filter(({ id }) => id === chosen.driver.id);
    return chosen?.kind === 'channel' ? all.filter(({ target }) => target === chosen.channel) : [];
  });
  readonly constraint = computed(() => {
    const chosen = this.chosen();
    if (chosen?.kind !== 'constraint') return null;
    return this.stage.shown()?.constraints.find(({ id }) => id === chosen.constraint.id) ?? null;
  });

  readonly lock = computed(() => {
    const chosen = this.chosen();
    if (chosen?.kind !== 'interlock') return null;
    return this.stage.shown()?.interlocks.find(({ id }) => id === chosen.lock.id) ?? null;
  });

  choose(node: NetworkNode): void {
    if (node.kind === 'subtree') {
      this.folding.toggle(node.part);
      return;
    }
    if (this.picker.answer(node.part, null, node.kind === 'channel' ? node.channel : undefined)) return;
    this.chosenId.set(node.id);
    this.studio.pick({
      parts: [node.part],
      channels: node.kind === 'channel' ? [node.channel] : [],
      keys: [],
      handles: [],
    });
  }

  toBench(): void {
    const id = this.studio.project()?.id;
    this.studio.set({ sheet: 'links' });
    if (id !== undefined) void this.router.navigate(['/bench', id]);
  }

  nameOf(part: string): string {
    const project = this.stage.shown();
    return (project && partOf(project, part)?.name) ?? part;
  }

  // for the tree, which calls them by themselves
  readonly name = (part: string) => this.nameOf(part);
  readonly title = (node: NetworkNode) => this.titleOf(node);
  readonly value = (node: NetworkNode) => this.valueOf(node);

  /** How deep a part rides on others, at most as deep as there is room for. */
  private depthOf(part: string): number {
    const project = this.stage.shown();
    let depth = 0;
    let parent = project ? (partOf(project, part)?.parent ?? null) : null;
    for (; parent !== null && depth < 3; depth++)
      parent = (project && partOf(project, parent)?.parent) ?? null;
    return depth;
  }

  /** What a box says: the first line. */
  titleOf(node: NetworkNode): string {
    const project = this.stage.shown();
    switch (node.kind) {
      case 'channel':
        return project ? channelLabel(project, node.channel).short : node.channel;
      case 'driver': {
        const { driver } = node;
        return driver.kind === 'linkage'
          ? (LINKAGE_WORDS[driver.linkage]?.label ?? driver.linkage)
          : driver.kind;
      }
      case 'constraint':
        return node.constraint.kind;
      case 'interlock':
        return `waits ${shownFrame(node.lock.gap)} f`;
      case 'subtree':
        return 'its links';
      case 'place':
        return 'its place';
    }
  }

  /** What it is at the playhead: the second line. */
  valueOf(node: NetworkNode): string {
    const project = this.stage.shown();
    if (node.kind === 'driver') return this.standing.ofDriver(node.driver).word;
    if (node.kind === 'constraint') return this.standing.ofConstraint(node.constraint).word;
    if (node.kind === 'subtree') return `${node.count} pieces`;
    if (node.kind === 'place' || !project) return '';
    if (node.kind === 'interlock') return standingWords(project, node.lock).short;
    const { unit } = channelLabel(project, node.channel);
    return `${shownNumber(this.stage.valueOf(node.channel) ?? NaN, decimalsOf(unit))} ${unit}`.trim();
  }

  isBad(node: NetworkNode): boolean {
    if (node.kind === 'driver') return this.standing.ofDriver(node.driver).bad;
    const project = this.stage.shown();
    if (node.kind === 'interlock') return project !== null && standingWords(project, node.lock).bad;
    return node.kind === 'constraint' && this.standing.ofConstraint(node.constraint).bad;
  }

  /** The whole of each piece for a screen reader, with what leads to it; made anew only where the network is another. */
  private readonly told = computed((): ReadonlyMap<string, string> => {
    const { nodes, edges } = this.network();
    const named = new Map(nodes.map((node) => [node.id, `${this.nameOf(node.part)}, ${this.titleOf(node)}`]));
    const from = new Map<string, string[]>();
    for (const edge of edges) {
      const led = from.get(edge.to);
      if (led) led.push(named.get(edge.from)!);
      else from.set(edge.to, [named.get(edge.from)!]);
    }
    return new Map(
      nodes.map(({ id }) => {
        const led = from.get(id);
        return [id, led ? `${named.get(id)!}, from ${led.join(' and ')}` : named.get(id)!];
      }),
    );
  });
  saysOf({ id }: NetworkNode): string {
    return this.told().get(id) ?? 'All that drives and is driven in this part and what rides on it: opens it';
  }

  /** The channel over the range as a small curve. */
  sparkOf(node: NetworkNode): string {
    const [program, project] = [this.stage.program(), this.stage.shown()];
    return node.kind === 'channel' && program && project
      ? this.sparks.path(program, project.range, node.channel)
      : '';
  }
}
