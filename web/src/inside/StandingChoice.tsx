import { READ_THROUGH } from '@zonal/core/glass';
import type { WishInput } from '@zonal/core/api';
import { STANDINGS, type Standing } from '@zonal/core/rights';
import { SelectOne } from '../ui/Choice';
import { glassText } from '../ui/glassText';
import { Pair } from '../ui/layout';
import { t } from '../texts/inside';

const WORDS: Readonly<Record<Standing, string>> = {
  reader: t('readerSay'),
  editor: t('editorSay'),
  publisher: t('publisherSay'),
};

interface StandingChoiceProps {
  label: string;
  value: Pick<WishInput, 'standing' | 'glass'>;
  onChange: (value: Pick<WishInput, 'standing' | 'glass'>) => void;
}

/** What somebody is to be to a calendar, and through which glass a reader looks. */
export function StandingChoice({ label, value, onChange }: StandingChoiceProps) {
  const { standing, glass } = value;
  return (
    <Pair>
      <SelectOne
        label={label}
        value={standing}
        options={[...STANDINGS].reverse().map((s) => ({ value: s, text: WORDS[s] }))}
        onChange={(next) =>
          onChange({ standing: next, glass: next === 'reader' ? (glass ?? 'tinted') : null })
        }
      />
      {standing === 'reader' && (
        <SelectOne
          label={t('throughGlass')}
          value={glass ?? 'tinted'}
          options={READ_THROUGH.map((g) => ({ value: g, text: glassText(g) }))}
          onChange={(next) => onChange({ standing, glass: next })}
        />
      )}
    </Pair>
  );
}
