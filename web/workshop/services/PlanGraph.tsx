import '@xyflow/react/dist/base.css';
import {
  Handle,
  MarkerType,
  Position,
  ReactFlow,
  type Connection,
  type Edge,
  type Node,
  type NodeProps,
} from '@xyflow/react';
import ELK, { type ElkNode } from 'elkjs/lib/elk.bundled.js';
import { useEffect, useMemo, useState } from 'react';
import type { ServicePlan, ServiceStep } from '../../../core/plans';
import { useTeams } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import classes from './services.module.css';

const elk = new ELK();
const WIDTH = 170;
const HEIGHT = 44;

type StepNode = Node<{ name: string; line: string; kind: string; isBad: boolean }, 'step'>;

function StepBox({ data }: NodeProps<StepNode>) {
  return (
    <div className={classes.node} data-kind={data.kind} data-bad={data.isBad || undefined} title={data.name}>
      <Handle type="target" position={Position.Left} />
      {data.name}
      <small>{data.line}</small>
      <Handle type="source" position={Position.Right} />
    </div>
  );
}
const NODE_TYPES = { step: StepBox };

/** The steps that wait for each other: what was drawn, and from the ends of each part to the beginnings of the next. */
function listArrows({ legs, steps }: ServicePlan): { from: string; to: string; isDrawn: boolean }[] {
  const drawn = steps.flatMap(({ id, after = [] }) => after.map((from) => ({ from, to: id, isDrawn: true })));
  const between = legs.slice(1).flatMap(({ id }, i) => {
    const before = steps.filter(({ leg }) => leg === legs[i]!.id);
    const ends = before.filter((step) => !before.some(({ after = [] }) => after.includes(step.id)));
    const begins = steps.filter(({ leg, after = [] }) => leg === id && after.length === 0);
    return ends.flatMap((from) => begins.map((to) => ({ from: from.id, to: to.id, isDrawn: false })));
  });
  return [...drawn, ...between].filter(({ from }) => steps.some(({ id }) => id === from));
}

/** Where each step's box stands, and how much room they take, in pixels. */
type Layout = { places: Map<string, { x: number; y: number }>; width: number; height: number };

async function layOut(plan: ServicePlan): Promise<Layout> {
  const graph: ElkNode = await elk.layout({
    id: 'plan',
    layoutOptions: {
      'elk.algorithm': 'layered',
      'elk.direction': 'RIGHT',
      'elk.layered.spacing.nodeNodeBetweenLayers': '46',
      'elk.spacing.nodeNode': '12',
    },
    children: plan.steps.map(({ id }) => ({ id, width: WIDTH, height: HEIGHT })),
    edges: listArrows(plan).map(({ from, to }, i) => ({ id: `e${i}`, sources: [from], targets: [to] })),
  });
  const places = new Map((graph.children ?? []).map(({ id, x = 0, y = 0 }) => [id, { x, y }]));
  return { places, width: graph.width ?? 0, height: graph.height ?? 0 };
}

type Props = {
  plan: ServicePlan;
  bad: Set<string>;
  isFixed: boolean;
  onOpen(stepId: string): void;
  onConnect(from: ServiceStep, to: ServiceStep): void;
  onDisconnect(from: string, to: string): void;
};

/** A plan as it runs, from left to right; arrows are drawn by dragging, and taken away with the Delete key. */
export function PlanGraph({ plan, bad, isFixed, onOpen, onConnect, onDisconnect }: Props) {
  const { t, local } = useWords();
  const { data: teams = [] } = useTeams();
  const [{ places, width, height }, setLayout] = useState<Layout>({ places: new Map(), width: 0, height: 0 });
  const shape = JSON.stringify([
    plan.legs.map(({ id }) => id),
    plan.steps.map(({ id, leg, after }) => [id, leg, after]),
  ]);
  useEffect(() => {
    let isCurrent = true;
    void layOut(plan).then((found) => {
      if (isCurrent) setLayout(found);
    });
    return () => {
      isCurrent = false;
    };
    // Where boxes stand rests on the shape alone.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [shape]);
  const nodes = useMemo<StepNode[]>(
    () =>
      plan.steps
        .filter(({ id }) => places.has(id))
        .map((step) => ({
          id: step.id,
          type: 'step',
          position: places.get(step.id)!,
          draggable: false,
          data: {
            name: local(step.name) || step.id,
            line:
              step.kind === 'task' || step.kind === 'ranking'
                ? local(teams.find(({ id }) => id === step.teamId)?.name ?? { en: '?', pt: '?' })
                : t(`services/plan/kinds/${step.kind}`),
            kind: step.kind,
            isBad: bad.has(step.name.en),
          },
        })),
    [plan, places, teams, bad, local, t],
  );
  const edges: Edge[] = listArrows(plan).map(({ from, to, isDrawn }) => ({
    id: `${from}>${to}`,
    source: from,
    target: to,
    deletable: isDrawn && !isFixed,
    focusable: isDrawn,
    markerEnd: { type: MarkerType.ArrowClosed },
    style: isDrawn ? {} : { strokeDasharray: '4 3' },
  }));
  const stepOf = (id: string): ServiceStep | undefined => plan.steps.find((step) => step.id === id);
  const isSound = ({ source, target }: Connection | Edge): boolean =>
    source !== target && stepOf(source)?.leg === stepOf(target)?.leg;
  return (
    <div className={classes.graph} aria-label={t('services/plan/graph')} role="group" tabIndex={0}>
      {/* As large as its boxes are: the letters stay as they are, and what has no room is scrolled to. */}
      <div className={classes.canvas} style={{ width, height }}>
        <ReactFlow
          panOnDrag={false}
          zoomOnScroll={false}
          zoomOnPinch={false}
          zoomOnDoubleClick={false}
          preventScrolling={false}
          minZoom={1}
          maxZoom={1}
          nodes={nodes}
          edges={edges}
          nodeTypes={NODE_TYPES}
          nodesConnectable={!isFixed}
          isValidConnection={isSound}
          onNodeClick={(_, { id }) => onOpen(id)}
          onConnect={({ source, target }) => onConnect(stepOf(source)!, stepOf(target)!)}
          onEdgesDelete={(gone) => gone.forEach(({ source, target }) => onDisconnect(source, target))}
          proOptions={{ hideAttribution: true }}
        />
      </div>
    </div>
  );
}
