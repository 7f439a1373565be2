import { zoneWithOffset } from '@zonal/core/forms';
import type { ZoneName } from '@zonal/core/zones';
import { ChevronDown } from 'lucide-react';
import { useState } from 'react';
import { Button, ComboBox, Group, Input, Label, ListBox, ListBoxItem, Popover } from 'react-aria-components';
import styled from 'styled-components';
import { fieldLook, labelLook, openedLook, signButtonLook } from './Field';
import { Faded } from './layout';
import { useNow } from './useNow';
import { zoneFits, zoneItem, zoneItems, type ZoneItem } from './zoneItems';
import { t } from '../texts/base';
import { clockChangeText } from '../texts/formWords';

const Look = styled(ComboBox)`
  min-width: 0;
  label {
    ${labelLook}
  }
  .line {
    display: flex;
    position: relative;
  }
  input {
    ${fieldLook}
    padding-right: 2rem;
  }
  .line button {
    position: absolute;
    right: 0.25rem;
    top: 50%;
    translate: 0 -50%;
    ${signButtonLook}
  }
` as typeof ComboBox;

const Sheet = styled(Popover)`
  width: max(var(--trigger-width), 20rem);
  max-height: 18rem;
  overflow: auto;
  ${openedLook}
  [role='option'] {
    padding: 0.3rem 0.6rem;
    cursor: pointer;
    outline: none;
    &[data-focused],
    &[data-hovered] {
      background: var(--shade);
    }
    &[data-selected] {
      font-weight: 700;
    }
    small {
      display: block;
      color: var(--faded);
      font-weight: 400;
    }
  }
`;

interface ZoneSelectProps<T extends ZoneName | ''> {
  label: string;
  value: T;
  onChange: (zone: T) => void;
  /** What choosing no zone is called, where that can be chosen. */
  none?: string;
  /** Without the offset and the next clock change below it. */
  bare?: boolean;
}

/** A time zone, found by city, country, abbreviation or offset, with its next clock change beside it. */
export function ZoneSelect<T extends ZoneName | ''>({
  label,
  value,
  onChange,
  none,
  bare,
}: ZoneSelectProps<T>) {
  const now = useNow();
  const [typed, setTyped] = useState<string | null>(null);
  const [open, setOpen] = useState(false);
  const chosen = value ? zoneItem(value, now).text : (none ?? '');
  // All zones are looked up only when they are to be seen.
  const items = open ? zoneItems(now, none) : [];
  return (
    <div>
      <Look
        selectedKey={value}
        onSelectionChange={(key) => {
          setTyped(null);
          if (key !== null) onChange(String(key) as T);
        }}
        inputValue={typed ?? chosen}
        onInputChange={setTyped}
        onOpenChange={(next) => {
          setOpen(next);
          if (!next) setTyped(null);
        }}
        items={items.filter((item) => typed === null || zoneFits(item.text, typed))}
        allowsEmptyCollection
        menuTrigger="focus"
      >
        <Label>{label}</Label>
        <Group className="line">
          <Input onFocus={(e) => e.target.select()} />
          <Button aria-label={t('allZones', { label })}>
            <ChevronDown aria-hidden="true" />
          </Button>
        </Group>
        <Sheet>
          <ListBox renderEmptyState={() => <Faded>{t('noZone')}</Faded>}>
            {({ zone, text, words }: ZoneItem) => (
              <ListBoxItem id={zone} textValue={text}>
                {text}
                {words && <small>{words}</small>}
              </ListBoxItem>
            )}
          </ListBox>
        </Sheet>
      </Look>
      {value && !bare && (
        <Faded>
          {zoneWithOffset(value, now)}. {clockChangeText(value, now)}
        </Faded>
      )}
    </div>
  );
}
