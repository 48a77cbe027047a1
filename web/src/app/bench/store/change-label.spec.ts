import { describeChange } from './change-label';

describe('describeChange', () => {
  it('says state, row, element and value', () => {
    expect(describeChange('hover', 'background-color', 'Hold my place', 'Willow, 12 darker')).toBe(
      'Hover fill of Hold my place: Willow, 12 darker',
    );
    expect(describeChange('active', 'border-color', 'x', 'Ink')).toBe('Pressed edge of x: Ink');
  });

  it('stays within what the server takes', () => {
    expect(describeChange('rest', 'color', 'n'.repeat(5000), 'v'.repeat(5000)).length).toBeLessThanOrEqual(200);
  });
});
