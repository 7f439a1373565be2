import { useId, type ReactNode } from 'react';
import { Label, Radio, RadioGroup } from 'react-aria-components';
import styled from 'styled-components';
import { fieldLook, labelLook } from './Field';

const SelectBox = styled.div`
  min-width: 0;
  label {
    ${labelLook}
  }
  select {
    ${fieldLook}
  }
`;

interface SelectProps<T extends string> {
  label: string;
  value: T;
  options: readonly { readonly value: T; readonly text: string }[];
  onChange: (value: T) => void;
  hideLabel?: boolean;
  isDisabled?: boolean;
}

/** One of several things, as the browser's own list: it opens as people know it on each device. */
export function SelectOne<T extends string>({
  label,
  value,
  options,
  onChange,
  hideLabel,
  isDisabled,
}: SelectProps<T>) {
  const id = useId();
  return (
    <SelectBox>
      <label htmlFor={id} {...(hideLabel ? { className: 'unseen' } : {})}>
        {label}
      </label>
      <select id={id} value={value} disabled={isDisabled} onChange={(e) => onChange(e.target.value as T)}>
        {options.map((o) => (
          <option key={o.value} value={o.value}>
            {o.text}
          </option>
        ))}
      </select>
    </SelectBox>
  );
}

const Strip = styled(RadioGroup)`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.25rem 0.75rem;
  > span {
    ${labelLook}
    margin: 0;
  }
  > div {
    display: inline-flex;
    flex-wrap: wrap;
    border: 1px solid var(--line);
    border-radius: 2px;
    background: var(--sheet);
  }
`;

const Part = styled(Radio)`
  position: relative;
  display: inline-flex;
  align-items: center;
  gap: 0.4rem;
  padding: 0.25rem 0.65rem;
  min-height: 2rem;
  cursor: pointer;
  border-right: 1px solid var(--hair);
  &:last-child {
    border-right: 0;
  }
  &[data-hovered] {
    background: var(--shade);
  }
  &[data-selected] {
    background: var(--ink);
    color: var(--paper);
  }
  &[data-disabled] {
    opacity: 0.5;
  }
`;

interface StripProps<T extends string> {
  label: string;
  value: T;
  options: readonly { readonly value: T; readonly text: ReactNode; readonly help?: string }[];
  onChange: (value: T) => void;
  hideLabel?: boolean;
  isDisabled?: boolean;
}

/** One of a few things, all in sight. */
export function ChoiceStrip<T extends string>({
  label,
  value,
  options,
  onChange,
  hideLabel,
  isDisabled,
}: StripProps<T>) {
  return (
    <Strip
      {...(hideLabel ? { 'aria-label': label } : {})}
      value={value}
      isDisabled={isDisabled ?? false}
      onChange={(v) => onChange(v as T)}
    >
      {!hideLabel && <Label>{label}</Label>}
      <div>
        {options.map((o) => (
          <Part
            key={o.value}
            value={o.value}
            {...(o.help ? { 'aria-label': `${String(o.value)}: ${o.help}` } : {})}
          >
            {o.text}
          </Part>
        ))}
      </div>
    </Strip>
  );
}
