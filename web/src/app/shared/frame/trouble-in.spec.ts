import { troubleIn } from './trouble-in';

describe('troubleIn', () => {
  const saying = (text: string): Document => {
    const content = document.implementation.createHTMLDocument();
    content.body.textContent = text;
    return content;
  };

  // Source: RFC 9457, problem details.
  it('gives the reason of a problem document', () => {
    expect(troubleIn(saying('{"title":"Not drawn","status":422,"detail":"it nests 5,000 deep"}'))).toBe(
      'It nests 5,000 deep',
    );
    expect(troubleIn(saying('{"status":500}'))).toBe('The server refused it.');
  });

  it('says so where nobody answered, and repeats other texts, cut', () => {
    expect(troubleIn(null)).toBe('The server does not answer.');
    expect(troubleIn(saying(''))).toBe('The server does not answer.');
    expect(troubleIn(saying('x'.repeat(900)))).toBe('x'.repeat(200));
  });
});
