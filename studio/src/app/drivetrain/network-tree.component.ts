import { CdkTreeModule } from '@angular/cdk/tree';
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { Network, NetworkNode } from '@kaizen/core';

/** A line of the tree: a part, one of its pieces, or what leads to the piece above it. */
interface Branch {
  readonly id: string;
  readonly node: NetworkNode | null;
  readonly name: string;
  readonly children: () => readonly Branch[];
}

/**
 * The network as a tree, for who reads lines rather than lanes: parts, their pieces, and under each what leads to it. Arrow keys walk
 * it, Enter chooses a piece.
 */
@Component({
  selector: 'kz-network-tree',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CdkTreeModule],
  template: `
    <cdk-tree [dataSource]="roots()" [childrenAccessor]="childrenOf" aria-label="The network as a tree">
      <cdk-tree-node
        *cdkTreeNodeDef="let branch"
        class="line"
        cdkTreeNodePadding
        [cdkTreeNodePaddingIndent]="18"
        [isExpandable]="branch.children().length > 0"
        [class.part]="branch.node === null"
        [class.chosen]="branch.node !== null && branch.node.id === chosen()"
        (activation)="choose(branch)"
        (click)="choose(branch)"
      >
        <span class="mark" aria-hidden="true" cdkTreeNodeToggle>{{
          branch.children().length > 0 ? '▸' : ''
        }}</span>
        <span class="name">{{ branch.name }}</span>
        @if (branch.node; as node) {
          <span class="numbers">{{ value()(node) }}</span>
        }
      </cdk-tree-node>
    </cdk-tree>
  `,
  styles: `
    :host {
      display: block;
      flex: 1;
      min-height: 0;
      overflow: auto;
      padding: 8px 0;
    }
    .line {
      display: flex;
      gap: 6px;
      align-items: center;
      min-height: 26px;
      padding-right: 14px;
      border-bottom: 1px solid var(--rule-soft);
      cursor: default;
    }
    .part {
      font-weight: 600;
    }
    .chosen {
      background: var(--select-ground);
      box-shadow: inset 3px 0 0 var(--select);
    }
    .mark {
      flex: none;
      width: 14px;
      padding-left: 8px;
      color: var(--ink-soft);
      font-size: 11px;
      cursor: pointer;
    }
    .line[aria-expanded='true'] > .mark {
      transform: rotate(90deg);
    }
    .name {
      flex: 1;
    }
    .numbers {
      color: var(--ink-soft);
      font-size: 12px;
    }
  `,
})
export class NetworkTreeComponent {
  readonly network = input.required<Network>();
  readonly chosen = input<string | null>(null);
  /** What a part is called, what a piece is, and what it is at the playhead. */
  readonly nameOf = input.required<(part: string) => string>();
  readonly title = input.required<(node: NetworkNode) => string>();
  readonly value = input.required<(node: NetworkNode) => string>();
  readonly picked = output<NetworkNode>();
  readonly childrenOf = (branch: Branch): Branch[] => [...branch.children()];

  readonly roots = computed((): Branch[] => {
    const { nodes, edges } = this.network();
    const byId = new Map(nodes.map((node) => [node.id, node]));
    const into = new Map<string, NetworkNode[]>();
    for (const { from, to } of edges) {
      const source = byId.get(from);
      if (source) into.set(to, [...(into.get(to) ?? []), source]);
    }
    /** `path` are the pieces above: in a ring of interlocks none comes twice. */
    const branch = (node: NetworkNode, path: readonly string[]): Branch => ({
      id: [...path, node.id].join(' ← '),
      node,
      name:
        path.length === 0 ? this.title()(node) : `from ${this.nameOf()(node.part)}, ${this.title()(node)}`,
      children: once(() =>
        (into.get(node.id) ?? [])
          .filter(({ id }) => id !== node.id && !path.includes(id))
          .map((source) => branch(source, [...path, node.id])),
      ),
    });
    const parts = new Map<string, NetworkNode[]>();
    for (const node of nodes) parts.set(node.part, [...(parts.get(node.part) ?? []), node]);
    return [...parts].map(([part, own]) => ({
      id: `part ${part}`,
      node: null,
      name: this.nameOf()(part),
      children: once(() => own.map((node) => branch(node, []))),
    }));
  });

  choose({ node }: Branch): void {
    if (node) this.picked.emit(node);
  }
}

/** Works something out when it is first asked for. */
function once<T>(make: () => T): () => T {
  let made: T | undefined;
  return () => (made ??= make());
}
