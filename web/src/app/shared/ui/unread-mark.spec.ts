import type { Spoken } from '@upper-veneer/words';
import { TestBed } from '@angular/core/testing';
import type { UnreadPage } from '@upper-veneer/core';
import { UnreadMark } from './unread-mark';

function shown(pages: readonly Spoken<UnreadPage>[]): HTMLElement {
  const fixture = TestBed.createComponent(UnreadMark);
  fixture.componentRef.setInput('pages', pages);
  fixture.detectChanges();
  return fixture.nativeElement as HTMLElement;
}

describe('UnreadMark', () => {
  it('says nothing where all was read', () => {
    expect(shown([]).textContent?.trim()).toBe('');
  });

  it('says how much the figures leave out, and why', () => {
    const host = shown([
      { pageId: 1, name: 'Home', elements: 1, reasons: ['Stylesheet "lost.css" was not captured'] },
      { pageId: 2, name: 'Trips', elements: 0, reasons: ['Stylesheet "lost.css" was not captured'] },
    ]);
    expect(host.textContent).toContain('1 element and 1 sheet or rule not read');
    const title = host.querySelector('[title]')?.getAttribute('title') ?? '';
    expect(title).toContain('Home: matching');
    expect(title.match(/lost\.css/g)?.length).toBe(1);
  });
});
