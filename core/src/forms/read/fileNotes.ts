import { sentence, type Problem } from '../../problems';
import type { InsideLanguage } from '../../texts/languages';
import type { ValuesOf } from '../../texts/message';
import { fileTexts, type FILE_TEXTS } from './fileTexts';

type English = (typeof FILE_TEXTS)['en'];

/** What was changed or left out when a file, or a part of it, was read: sentences in one language, each once. */
export class FileNotes implements Iterable<string> {
  private readonly sentences = new Set<string>();

  constructor(readonly language: InsideLanguage) {}

  add<Key extends keyof English>(key: Key, ...values: ValuesOf<English[Key]>): void {
    this.sentences.add(fileTexts(this.language)(key, ...values));
  }

  /** Adds a sentence that is in the language already. */
  addText(text: string): void {
    this.sentences.add(text);
  }

  addProblem({ code, details }: Problem): void {
    this.sentences.add(sentence(code, details, this.language));
  }

  get size(): number {
    return this.sentences.size;
  }

  [Symbol.iterator](): Iterator<string> {
    return this.sentences.values();
  }
}
