import { spoken, type Spoken } from '@upper-veneer/words';

/** The same questions, with answers in which each message has become its words. */
export type InWords<Api> = {
  [Name in keyof Api]: Api[Name] extends (...given: infer Given) => infer Answer
    ? (...given: Given) => Answer extends Promise<infer Later> ? Promise<Spoken<Later>> : Spoken<Answer>
    : Api[Name];
};

/** Has what the core answers by codes and data said in the language of the page, before it leaves the worker. */
export function inWords<Api extends object>(api: Api): InWords<Api> {
  const acts = Object.entries(api).map(([name, act]) => [
    name,
    typeof act !== 'function'
      ? act
      : (...given: readonly unknown[]): unknown => {
          const answer = (act as (...own: readonly unknown[]) => unknown)(...given);
          return answer instanceof Promise ? answer.then(spoken) : spoken(answer);
        },
  ]);
  return Object.fromEntries(acts) as InWords<Api>;
}
