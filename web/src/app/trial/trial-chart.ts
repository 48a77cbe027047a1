import { wordsOf } from '@upper-veneer/words';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  type ElementRef,
  afterRenderEffect,
  inject,
  input,
  viewChild,
} from '@angular/core';
import type { TrialPair } from '@upper-veneer/core';
import {
  BarController,
  BarElement,
  CategoryScale,
  Chart,
  Filler,
  LineController,
  LineElement,
  LinearScale,
  PointElement,
  Tooltip,
  type Plugin,
} from 'chart.js';
import { ThemeService } from '../theme/theme-service';
import { dayWords, points, rangeWords } from './trial-words';

Chart.register(
  BarController,
  BarElement,
  CategoryScale,
  Filler,
  LineController,
  LineElement,
  LinearScale,
  PointElement,
  Tooltip,
);

/** The difference with the range it can be trusted in, after each day; and how many saw each variation on each. */
@Component({
  selector: 'uv-trial-chart',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3 i18n>Difference {{ pair().variation }} − {{ first() }}, in points, with the range it can be trusted in</h3>
    <div class="line"><canvas #line role="img" [attr.aria-label]="words()"></canvas></div>
    <h3 i18n>Seen by day</h3>
    <div class="bars"><canvas #bars role="img" [attr.aria-label]="wordsOf('trial.visitors-who-saw-each')"></canvas></div>
    <table class="uv-hidden">
      <caption i18n>By day</caption>
      <thead><tr><th scope="col" i18n>Day</th><th scope="col" i18n>Difference</th><th scope="col" i18n>Range</th><th scope="col" i18n>Seen {{ first() }}</th><th scope="col" i18n>Seen {{ pair().variation }}</th></tr></thead>
      <tbody>
        @for (day of pair().days; track day.day) {
          <tr>
            <th scope="row">{{ day.day }}</th>
            <td>{{ figure(day.difference) }}</td>
            <td>{{ range(day.anytime) }}</td>
            <td>{{ day.seen[0] }}</td>
            <td>{{ day.seen[1] }}</td>
          </tr>
        }
      </tbody>
    </table>
  `,
  styles: `
    :host { display: grid; grid-template-rows: auto minmax(0, 1fr) auto 110px; min-height: 0; padding: 12px 16px; background: var(--uv-paper); }
    h3 { margin-bottom: 6px; font-weight: 700; font-size: 13.5px; }
    .line, .bars { position: relative; min-height: 0; min-width: 0; }
    .bars + table { position: absolute; }
    @media (max-width: 900px) { :host { grid-template-rows: auto 260px auto 130px; } }
  `,
})
export class TrialChart {
  protected readonly wordsOf = wordsOf;

  readonly first = input.required<string>();
  readonly pair = input.required<TrialPair>();
  private readonly line = viewChild.required<ElementRef<HTMLCanvasElement>>('line');
  private readonly bars = viewChild.required<ElementRef<HTMLCanvasElement>>('bars');
  readonly #theme = inject(ThemeService);

  constructor() {
    let charts: readonly Chart[] = [];
    const close = (): void => {
      for (const chart of charts) chart.destroy();
    };
    afterRenderEffect(() => {
      // The colours of the drawing are those of the interface.
      this.#theme.isDark();
      close();
      const inks = inksOf(this.line().nativeElement);
      charts = [
        lineChart(this.line().nativeElement, this.pair(), inks),
        barChart(this.bars().nativeElement, this.first(), this.pair(), inks),
      ];
    });
    inject(DestroyRef).onDestroy(close);
  }

  protected words(): string {
    const { difference, anytime, days } = this.pair();
    return days.length === 0
      ? wordsOf('trial.nothing-counted-yet')
      : wordsOf('trial.after-days-difference-points', {
          days: days.length,
          points: points(difference),
          range: rangeWords(anytime),
        });
  }

  protected figure(difference: number): string {
    return points(difference);
  }

  protected range(range: readonly [number, number]): string {
    return rangeWords(range);
  }
}

interface Inks {
  readonly ink: string;
  readonly soft: string;
  readonly line: string;
  readonly band: string;
  readonly paper: string;
  readonly font: string;
}

function inksOf(element: HTMLElement): Inks {
  const style = getComputedStyle(element);
  const of = (name: string): string => style.getPropertyValue(name).trim();
  return {
    ink: of('--uv-ink'),
    soft: of('--uv-soft'),
    line: of('--uv-line'),
    // The line at zero is seen through it.
    band: `${of('--uv-line-strong')}59`,
    paper: of('--uv-paper'),
    font: of('--uv-mono'),
  };
}

const MOST_TICKS = 8;

/** Days along the foot. */
function dayAxis({ soft, font }: Inks) {
  return {
    ticks: {
      color: soft,
      font: { family: font, size: 12 },
      maxTicksLimit: MOST_TICKS,
      maxRotation: 0,
      autoSkipPadding: 14,
    },
    grid: { display: false },
  };
}

function lineChart(canvas: HTMLCanvasElement, { days, clearFrom }: TrialPair, inks: Inks): Chart {
  const percent = (values: readonly number[]): number[] => values.map((value) => 100 * value);
  const lows = percent(days.map(({ anytime }) => anytime[0]));
  const highs = percent(days.map(({ anytime }) => anytime[1]));
  const middle = percent(days.map(({ difference }) => difference));
  // A first day's range can be many times the rest: what is beyond this is cut, and said so by the edge.
  const reach = Math.max(1, ...middle.map(Math.abs)) * 4;
  const edge = { borderWidth: 0, pointRadius: 0, pointHitRadius: 0 };
  return new Chart(canvas, {
    type: 'line',
    data: {
      labels: days.map(({ day }) => dayWords(day)),
      datasets: [
        { data: highs, order: 1, ...edge },
        { data: lows, order: 1, ...edge, fill: 0, backgroundColor: inks.band },
        {
          data: middle,
          order: 0,
          borderColor: inks.ink,
          borderWidth: 2.5,
          pointRadius: days.map((_, i) => (i === days.length - 1 ? 4 : 0)),
          pointBackgroundColor: inks.ink,
          pointHitRadius: 12,
        },
      ],
    },
    options: {
      animation: false,
      maintainAspectRatio: false,
      interaction: { mode: 'index', intersect: false },
      plugins: {
        tooltip: {
          displayColors: false,
          filter: ({ datasetIndex }) => datasetIndex === 2,
          callbacks: {
            label: ({ dataIndex }) => [
              wordsOf('trial.difference', { points: points(days[dataIndex].difference) }),
              wordsOf('trial.range', { range: rangeWords(days[dataIndex].anytime) }),
            ],
          },
        },
      },
      scales: {
        x: dayAxis(inks),
        y: {
          min: Math.floor(Math.max(-reach, Math.min(0, ...lows))),
          max: Math.ceil(Math.min(reach, Math.max(0, ...highs))),
          ticks: {
            color: inks.soft,
            font: { family: inks.font, size: 12 },
            callback: (value) =>
              Number(value) === 0 ? '0' : `${Number(value) > 0 ? '+' : '−'}${Math.abs(Number(value)).toFixed(1)}`,
          },
          grid: { color: ({ tick }) => (tick.value === 0 ? inks.ink : inks.line) },
        },
      },
    },
    plugins: [
      clearLine(
        days.findIndex(({ day }) => day === clearFrom),
        inks,
      ),
    ],
  });
}

/** A dashed line at the day from which the difference was clear. */
function clearLine(at: number, { ink, paper, font }: Inks): Plugin<'line'> {
  return {
    id: 'clear',
    afterDatasetsDraw({ ctx, chartArea, scales }) {
      if (at < 0) return;
      const x = scales['x'].getPixelForValue(at);
      ctx.save();
      ctx.strokeStyle = ink;
      ctx.setLineDash([4, 4]);
      ctx.beginPath();
      ctx.moveTo(x, chartArea.top);
      ctx.lineTo(x, chartArea.bottom);
      ctx.stroke();
      const words = wordsOf('trial.clear-from-here');
      ctx.font = `12.5px ${font}`;
      const { width } = ctx.measureText(words);
      const left = x + 6 + width > chartArea.right ? x - 6 - width : x + 6;
      ctx.fillStyle = paper;
      ctx.fillRect(left - 2, chartArea.top + 2, width + 4, 18);
      ctx.fillStyle = ink;
      ctx.fillText(words, left, chartArea.top + 15);
      ctx.restore();
    },
  };
}

function barChart(canvas: HTMLCanvasElement, first: string, { variation, days }: TrialPair, inks: Inks): Chart {
  return new Chart(canvas, {
    type: 'bar',
    data: {
      labels: days.map(({ day }) => dayWords(day)),
      datasets: [
        { label: first, data: days.map(({ seen }) => seen[0]), backgroundColor: inks.soft },
        // Told apart by form too: one is filled, the other outlined.
        {
          label: variation,
          data: days.map(({ seen }) => seen[1]),
          backgroundColor: inks.paper,
          borderColor: inks.ink,
          borderWidth: 1.5,
        },
      ],
    },
    options: {
      animation: false,
      maintainAspectRatio: false,
      interaction: { mode: 'index', intersect: false },
      plugins: {
        tooltip: { callbacks: { label: ({ dataset, formattedValue }) => `${dataset.label ?? ''} ${formattedValue}` } },
      },
      scales: {
        x: dayAxis(inks),
        y: {
          beginAtZero: true,
          ticks: { color: inks.soft, font: { family: inks.font, size: 12 }, maxTicksLimit: 3 },
          grid: { color: inks.line },
        },
      },
    },
  });
}
