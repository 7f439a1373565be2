import type { WindowInput } from '@zonal/core/glass';
import { Plus, X } from 'lucide-react';
import { useRef } from 'react';
import { QuietButton } from '../ui/Button';
import { Field } from '../ui/Field';
import { Pair, Row, Stack } from '../ui/layout';
import { useFocusAdded } from '../ui/useFocusAdded';
import { t } from '../texts/glass';

interface LanguagesFormProps {
  readonly draft: WindowInput;
  readonly set: (part: Partial<WindowInput>) => void;
}

/** The language of a window's texts, and the same texts in further languages. */
export function LanguagesForm({ draft: { language, translations }, set }: LanguagesFormProps) {
  const list = useRef<HTMLDivElement>(null);
  const focusAdded = useFocusAdded(list);
  return (
    <Stack>
      <Field
        label={t('textsLanguage')}
        value={language}
        onChange={(tag) => set({ language: tag })}
        placeholder="en"
        maxLength={35}
      />
      <Stack ref={list}>
        {translations.map((text, i) => {
          const change = (part: Partial<typeof text>) =>
            set({ translations: translations.map((x, k) => (k === i ? { ...x, ...part } : x)) });
          return (
            <Stack key={i} role="group" aria-label={t('languageNamed', { language: text.language || i + 2 })}>
              <Pair>
                <Field
                  label={t('language')}
                  value={text.language}
                  onChange={(tag) => change({ language: tag })}
                  placeholder="fr"
                  maxLength={35}
                />
                <Field
                  label={t('name')}
                  value={text.name}
                  onChange={(name) => change({ name })}
                  maxLength={120}
                />
              </Pair>
              <Field
                label={t('description')}
                value={text.description}
                onChange={(description) => change({ description })}
                lines
              />
              <Row>
                <Field label={t('topic')} value={text.topic} onChange={(topic) => change({ topic })} />
                <QuietButton
                  aria-label={t('removeLanguage', { language: text.language })}
                  onPress={() => set({ translations: translations.filter((_, k) => k !== i) })}
                >
                  <X aria-hidden="true" />
                </QuietButton>
              </Row>
            </Stack>
          );
        })}
      </Stack>
      <QuietButton
        onPress={() => {
          focusAdded();
          set({ translations: [...translations, { language: '', name: '', description: '', topic: '' }] });
        }}
      >
        <Plus aria-hidden="true" /> {t('addLanguage')}
      </QuietButton>
    </Stack>
  );
}
