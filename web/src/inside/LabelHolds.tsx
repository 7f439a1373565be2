import type { Label } from '@zonal/core/api';
import type { LabelHold } from '@zonal/core/glass';
import { X } from 'lucide-react';
import { QuietButton } from '../ui/Button';
import { SelectOne } from '../ui/Choice';
import { Row, Stack } from '../ui/layout';
import { t } from '../texts/labels';
import { HOLD_WORDS } from '../texts/entryWords';

interface LabelHoldsProps {
  labels: readonly Label[];
  value: readonly LabelHold[];
  onChange: (value: readonly LabelHold[]) => void;
}

/** Labels whose entries are held back: frosted, or kept in. */
export function LabelHolds({ labels, value, onChange }: LabelHoldsProps) {
  return (
    <Stack style={{ gap: '0.4rem' }}>
      {value.map((h, i) => (
        <Row key={h.label} style={{ flexWrap: 'nowrap' }}>
          <strong>{h.label}</strong>
          <SelectOne
            label={t('holdOfLabel', { label: h.label })}
            value={h.hold}
            options={(['frost', 'keep-in'] as const).map((o) => ({ value: o, text: HOLD_WORDS[o].word }))}
            onChange={(hold) => onChange(value.map((x, k) => (k === i ? { ...x, hold } : x)))}
          />
          <QuietButton
            aria-label={t('removeLabelHold', { label: h.label })}
            onPress={() => onChange(value.filter((_, k) => k !== i))}
          >
            <X aria-hidden="true" />
          </QuietButton>
        </Row>
      ))}
      <SelectOne
        label={t('addLabel')}
        value=""
        options={[
          { value: '', text: t('chooseOne') },
          ...labels
            .filter((l) => !value.some((h) => h.label === l.name))
            .map((l) => ({ value: l.name, text: `${l.name} (${l.count})` })),
        ]}
        onChange={(label) => label && onChange([...value, { label, hold: 'keep-in' }])}
      />
    </Stack>
  );
}
