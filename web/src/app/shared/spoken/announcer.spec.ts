import { TestBed } from '@angular/core/testing';
import { Announcer } from './announcer';

describe('Announcer', () => {
  beforeEach(() => jasmine.clock().install());
  afterEach(() => jasmine.clock().uninstall());

  it('says what is said last, once, and the same again as something new', () => {
    const announcer = TestBed.inject(Announcer);
    announcer.say('Apply');
    announcer.say('Apply chosen');
    expect(announcer.text()).toBe('');
    jasmine.clock().tick(400);
    expect(announcer.text()).toBe('Apply chosen');
    announcer.say('Apply chosen');
    jasmine.clock().tick(400);
    expect(announcer.text()).not.toBe('Apply chosen');
    expect(announcer.text().trim()).toBe('Apply chosen');
  });
});
