import { say, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import {
  colorOfValue,
  shadeTold,
  handSet,
  hexOf,
  isStandardRole,
  type Pair,
  type RoleName,
  roleNamed,
  rolesInOrder,
} from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { Select } from 'primeng/select';
import { levelWords } from './level-words';
import { InTurn } from '../shared/drawing/in-turn';
import { SiteStore } from '../shared/site/site-store';
import { StandingMark } from '../shared/ui/standing-mark';
import { roleWords } from '../shared/site/role-words';

/** Shades a role can take of its swatch, lightness points in OKLCH. */
const SHADES = [30, 24, 18, 12, 8, 4, 0, -4, -8, -12, -18, -24, -30];

/** Every role with the swatch or shade that fills it, and the pairs it is meant for. */
@Component({
  selector: 'uv-roles-panel',
  imports: [Button, FormsModule, InTurn, InputText, Select, StandingMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header>
      <h2 i18n>Roles{{ isInverted() ? wordsOf('palette.inverted-too') : '' }}</h2>
      @if (assumed().length > 0) {
        <button type="button" class="confirm" (click)="confirmed.emit(assumed())" i18n>Confirm all {{ assumed().length }} assumed</button>
      }
      @else { <span class="uv-soft" i18n>a job, filled by a swatch or a shade of one</span> }
    </header>
    <div class="wide" role="region" tabindex="0" aria-label="Roles" i18n-aria-label><table>
      <tbody>
        @for (row of rows(); track row.role) {
          <tr *uvInTurn>
            <th scope="row">{{ row.label }}@if (row.isAssumed) {
              <button
                type="button" class="assumed" title="Filled by a suggestion, chosen by nobody yet. Press to confirm it." i18n-title
                [attr.aria-label]="wordsOf('palette.confirm-which-assumed', { label: row.label })" (click)="confirmed.emit([row.role])"
               i18n>assumed</button>
            }</th>
            <td><i [style.background]="row.hex" [class.none]="row.hex === null"></i></td>
            <td><p-select
                [options]="$any(site.palette().swatches)" optionLabel="name" optionValue="id" [ngModel]="row.swatchId"
                (ngModelChange)="filled.emit({ role: row.role, swatchId: $event, shade: $event === row.swatchId ? row.shade : 0 })"
                [showClear]="row.swatchId !== null" [placeholder]="row.isDerived ? wordsOf('palette.derived', { hex: row.hex ?? '' }) : wordsOf('palette.not-filled')"
                size="small" [ariaLabel]="wordsOf('palette.swatch-fills', { label: row.label })"
              >
              <ng-template #selectedItem let-option>{{ option.name }}</ng-template>
              <ng-template #item let-option>
                <span class="option"><i [style.background]="option.css"></i>{{ option.name }}</span>
              </ng-template>
            </p-select></td>
            <td>
              @if (row.swatchId !== null) {
                <p-select
                  [options]="shades" optionLabel="label" optionValue="shade" [ngModel]="row.shade"
                  (ngModelChange)="filled.emit({ role: row.role, swatchId: row.swatchId, shade: $event })" size="small"
                  [ariaLabel]="wordsOf('palette.shade', { label: row.label })"
                />
              }
            </td>
            <td class="pairs">
              @for (pair of row.pairs; track pair.words) {
                <span [title]="pair.title"><uv-standing [standing]="pair.standing" /> {{ pair.words }}</span>
              }
            </td>
          </tr>
        }
      </tbody>
    </table></div>
    @if (!isInverted()) {
      <form class="own" (ngSubmit)="add()">
        <label><ng-container i18n>A role of your own </ng-container><input
          pInputText pSize="small" name="own" maxlength="40" autocomplete="off" placeholder="heading, link hover, sale" i18n-placeholder
          [attr.aria-invalid]="problem() !== ''" [ngModel]="own()" (ngModelChange)="own.set($event)"
        /></label>
        <p-select
          name="swatch" [options]="$any(site.palette().swatches)" optionLabel="name" optionValue="id"
          [ngModel]="ownSwatch()" (ngModelChange)="ownSwatch.set($event)" placeholder="Swatch" i18n-placeholder size="small"
          ariaLabel="Swatch that fills it" i18n-ariaLabel
        />
        <p-button type="submit" label="Add" i18n-label [outlined]="true" size="small" [disabled]="own().trim() === '' || ownSwatch() === null" />
        @if (problem()) { <span class="problem" role="alert">{{ problem() }}</span> }
      </form>
    }
  `,
  styles: `
    header { display: flex; justify-content: space-between; margin-bottom: 6px; font-size: 12.5px; }
    h2 { font-weight: 700; font-size: 13.5px; }
    .wide { position: relative; overflow-x: auto; }
    @media (max-width: 900px) { table { min-width: 560px; } header { flex-wrap: wrap; } }
    table { width: 100%; border-collapse: collapse; background: var(--uv-paper); }
    th, td { height: 34px; padding: 2px 6px; border: 1px solid var(--uv-line); border-width: 1px 0; text-align: left; font-weight: 400; }
    th { width: 78px; padding-left: 10px; }
    .assumed { display: block; padding: 0; border: 0; background: none; color: var(--uv-soft); font: inherit; font-size: 11.5px; text-decoration: underline dashed; cursor: pointer; }
    .confirm { padding: 0; border: 0; background: none; color: inherit; font: inherit; text-decoration: underline; cursor: pointer; }
    i { display: block; width: 30px; height: 22px; border: 1px solid color-mix(in srgb, var(--uv-ink) 35%, transparent); }
    i.none { border-style: dashed; }
    td:nth-child(2) { width: 42px; }
    td:nth-child(3) { width: 138px; }
    td:nth-child(4) { width: 118px; }
    td p-select { width: 100%; }
    .option { display: flex; align-items: center; gap: 8px; }
    .option i { width: 18px; height: 14px; }
    .own { display: flex; flex-wrap: wrap; align-items: center; gap: 8px; padding: 8px 10px; font-size: 12.5px; }
    .own label { display: flex; align-items: center; gap: 8px; }
    .own input { width: 190px; }
    .own p-select { width: 138px; }
    .problem { flex-basis: 100%; color: var(--uv-fails); font-size: 12px; }
    .pairs { font-size: 12px; }
    .pairs span { margin-right: 8px; white-space: nowrap; }
  `,
})
export class RolesPanel {
  protected readonly wordsOf = wordsOf;

  protected readonly site = inject(SiteStore);
  readonly pairs = input.required<readonly Pair[]>();
  /** Emits what is to fill a role; no swatch empties it. */
  readonly filled = output<{ readonly role: RoleName; readonly swatchId: number | null; readonly shade: number }>();

  /** Emits roles whose assumed filling is right. */
  readonly confirmed = output<readonly RoleName[]>();

  protected readonly own = signal('');
  protected readonly ownSwatch = signal<number | null>(null);
  protected readonly problem = signal('');

  protected readonly isInverted = computed(() => this.site.palette().lighting === 'inverted');
  protected readonly assumed = computed(() =>
    this.site.palette().roles.flatMap(({ role, isAssumed }) => (isAssumed && !this.isInverted() ? [role] : [])),
  );
  protected readonly rows = computed(() => {
    const palette = this.site.palette();
    const isInverted = this.isInverted();
    return rolesInOrder(palette)
      .filter((role) => !isInverted || palette.roles.some((fill) => fill.role === role))
      .map((role) => {
        const fill = isInverted ? handSet(palette, role) : palette.roles.find((candidate) => candidate.role === role);
        const color = colorOfValue({ kind: 'role', role, shade: 0 }, palette);
        const pairs = this.pairs()
          // What a role of one's own is for is not known: it is held against the grounds.
          .filter(
            ({ text, isMeant, ground }) =>
              text === role && (isMeant || (!isStandardRole(role) && (ground === 'ground' || ground === 'panel'))),
          )
          .map((pair) => ({
            standing: pair.standing,
            words: `${roleWords(pair.ground)} ${(Math.floor(pair.ratio * 10) / 10).toFixed(1)}`,
            title: wordsOf('palette.1', {
              textHex: pair.textHex,
              groundHex: pair.groundHex,
              ratio: pair.ratio.toFixed(2),
              level: levelWords(pair.level),
            }),
          }));
        return {
          role,
          label: roleWords(role),
          swatchId: fill?.swatchId ?? null,
          shade: fill?.shade ?? 0,
          isAssumed: this.assumed().includes(role),
          isDerived: isInverted && !fill,
          hex: color ? hexOf(color) : null,
          pairs,
        };
      });
  });
  /** Fills a role that is called as the designer calls it. */
  protected add(): void {
    const role = roleNamed(this.own());
    const swatchId = this.ownSwatch();
    const isThere = role !== null && this.site.palette().roles.some((fill) => fill.role === role);
    this.problem.set(
      role === null
        ? wordsOf('palette.role-needs-word')
        : isThere
          ? wordsOf('palette.filled-already', { role: roleWords(role) })
          : '',
    );
    if (role === null || isThere || swatchId === null) return;
    this.filled.emit({ role, swatchId, shade: 0 });
    this.own.set('');
  }

  protected readonly shades = SHADES.map((shade) => ({
    shade,
    label: shade === 0 ? wordsOf('palette.as') : say(shadeTold(shade)),
  }));
}
