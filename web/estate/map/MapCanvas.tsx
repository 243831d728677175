import { Button } from '@mantine/core';
import { useElementSize } from '@mantine/hooks';
import { quadtree } from 'd3-quadtree';
import { select } from 'd3-selection';
import { zoom, zoomIdentity, type ZoomTransform } from 'd3-zoom';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useWords } from '../../messages/useWords';
import classes from '../Estate.module.css';
import { draw, readColours, toPoint, type Drawn } from './draw';

/** So near has one to point, in the units of the map. */
const NEAR = 22;
const MARGIN = 60;

type Props = Drawn & {
  label: string;
  onPoint(id: string | null): void;
  onOpen(id: string): void;
};

/** The transform by which all is in sight. */
function fitting(points: { x: number; y: number }[], width: number, height: number): ZoomTransform {
  const [xs, ys] = [points.map(({ x }) => x), points.map(({ y }) => y)];
  const [left, right] = [Math.min(...xs) - MARGIN, Math.max(...xs) + MARGIN];
  const [top, bottom] = [Math.min(...ys) - MARGIN, Math.max(...ys) + MARGIN];
  const k = Math.min(1.4, width / (right - left), height / (bottom - top));
  return zoomIdentity.translate((width - k * (left + right)) / 2, (height - k * (top + bottom)) / 2).scale(k);
}

/** The map, to be moved and come nearer to. The list below it says the same. */
export function MapCanvas({ label, onPoint, onOpen, ...drawn }: Props) {
  const { t } = useWords();
  const { ref, width, height } = useElementSize<HTMLDivElement>();
  const canvas = useRef<HTMLCanvasElement>(null);
  const [view, setView] = useState<ZoomTransform>(zoomIdentity);
  const { spots } = drawn;
  const points = useMemo(() => [...spots].map(([id, spot]) => ({ id, ...toPoint(spot) })), [spots]);
  const tree = useMemo(
    () =>
      quadtree<(typeof points)[number]>()
        .x(({ x }) => x)
        .y(({ y }) => y)
        .addAll(points),
    [points],
  );
  const moving = useMemo(
    () =>
      zoom<HTMLCanvasElement, unknown>()
        .scaleExtent([0.02, 3])
        .on('zoom', ({ transform }: { transform: ZoomTransform }) => setView(transform)),
    [],
  );
  const fit = (): void => {
    if (canvas.current && points.length > 0 && width > 0)
      moving.transform(select(canvas.current), fitting(points, width, height));
  };
  useEffect(() => {
    if (canvas.current) select(canvas.current).call(moving);
  }, [moving]);
  const fitNow = useRef(fit);
  useEffect(() => {
    fitNow.current = fit;
  });
  useEffect(() => fitNow.current(), [points, width, height]);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context || !canvas.current || width === 0) return undefined;
    const colours = readColours(canvas.current);
    // Several moves within one frame are drawn once.
    const frame = requestAnimationFrame(() => draw(context, drawn, { view, width, height, colours }));
    return () => cancelAnimationFrame(frame);
  });
  const at = ({ nativeEvent }: { nativeEvent: MouseEvent }): string | null => {
    const [x, y] = view.invert([nativeEvent.offsetX, nativeEvent.offsetY]);
    return tree.find(x, y, NEAR / Math.min(1, view.k))?.id ?? null;
  };
  const ratio = window.devicePixelRatio || 1;
  return (
    <>
      <Button size="compact-xs" variant="subtle" onClick={fit}>
        {t('estate/fit')}
      </Button>
      <div className={classes.map} ref={ref}>
        <canvas
          ref={canvas}
          role="img"
          aria-label={label}
          width={Math.round(width * ratio)}
          height={Math.round(height * ratio)}
          onMouseMove={(event) => onPoint(at(event))}
          onMouseLeave={() => onPoint(null)}
          onClick={(event) => {
            const id = at(event);
            if (id !== null) onOpen(id);
          }}
        />
      </div>
      <Pointed {...drawn} />
      <p className={classes.quiet}>{t('estate/legend')}</p>
    </>
  );
}

/** What falls with the one that is pointed at, in words. */
function Pointed({ map, pointed, fallen }: Drawn) {
  const { t } = useWords();
  const thing = map.things.find(({ id }) => id === pointed);
  return (
    <output className={classes.pointed}>
      {thing && fallen
        ? t('estate/hoverFalls', {
            ...{ name: thing.name, down: fallen.down.length, weakened: fallen.weakened.length },
          })
        : t('estate/hover')}
    </output>
  );
}
