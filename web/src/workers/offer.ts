import { expose } from 'comlink';
import { problemText } from '../texts/problemText';

/** Offers functions to the page that started this worker. What they throw arrives with a sentence in the language of the page. */
export function offer(functions: object): void {
  expose(
    Object.fromEntries(
      Object.entries(functions as Readonly<Record<string, (...args: never[]) => unknown>>).map(
        ([name, work]) => [
          name,
          async (...args: never[]) => {
            try {
              return await work(...args);
            } catch (error) {
              throw new Error(problemText(error), { cause: error });
            }
          },
        ],
      ),
    ),
  );
}
