import { withProgress } from './with-progress';

describe('withProgress', () => {
  it('tells how far it is until the answer is there, and nothing after it', async () => {
    const told: number[] = [];
    let tell: (share: number) => void = () => undefined;
    const answer = await withProgress(
      (share: number) => told.push(share),
      (listener) => {
        tell = listener;
        listener(0.5);
        return Promise.resolve('counted');
      },
    );
    // Its port may be slower than the one of the answer.
    tell(0.9);
    expect([answer, told]).toEqual(['counted', [0.5]]);
  });

  it('tells nothing more after a failure either', async () => {
    const told: number[] = [];
    let tell: (share: number) => void = () => undefined;
    await expectAsync(
      withProgress(
        (share: number) => told.push(share),
        (listener) => {
          tell = listener;
          return Promise.reject(new Error('broken'));
        },
      ),
    ).toBeRejectedWithError('broken');
    tell(0.9);
    expect(told).toEqual([]);
  });
});
