import type { ReactNode } from 'react';
import {
  FieldError,
  Input,
  Label,
  Text,
  TextArea,
  TextField,
  type TextFieldProps,
} from 'react-aria-components';
import styled, { css } from 'styled-components';

export const fieldLook = css`
  width: 100%;
  padding: 0.35rem 0.5rem;
  min-height: 2.1rem;
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: 2px;
  &[data-invalid],
  &:user-invalid {
    border-color: var(--warn);
    border-width: 2px;
  }
`;

/** What opens from a field. */
export const openedLook = css`
  background: var(--sheet);
  border: 1px solid var(--line);
  box-shadow: 0 6px 20px rgb(0 0 0 / 0.18);
`;

/** A button with a sign alone, in a field or beside one. */
export const signButtonLook = css`
  display: inline-flex;
  align-items: center;
  justify-content: center;
  min-width: 24px;
  min-height: 24px;
  padding: 0.2rem;
  border: 0;
  background: none;
  color: inherit;
  cursor: pointer;
  svg {
    width: 1rem;
    height: 1rem;
  }
`;

export const labelLook = css`
  display: block;
  font-size: 0.85rem;
  color: var(--faded);
  margin-bottom: 0.15rem;
`;

const Look = styled(TextField)`
  min-width: 0;
  label {
    ${labelLook}
  }
  input,
  textarea {
    ${fieldLook}
  }
  textarea {
    min-height: 5.5rem;
    resize: vertical;
    display: block;
  }
  [slot='description'] {
    font-size: 0.8rem;
    color: var(--faded);
  }
  [slot='errorMessage'] {
    font-size: 0.85rem;
    color: var(--warn);
  }
`;

interface FieldProps extends Omit<TextFieldProps, 'children'> {
  label: string;
  help?: ReactNode;
  error?: string | undefined;
  lines?: boolean;
  hideLabel?: boolean;
  placeholder?: string;
}

/** A line or a box of text with its label, help and error. */
export function Field({ label, help, error, lines, hideLabel, placeholder, ...props }: FieldProps) {
  return (
    <Look {...props} isInvalid={!!error}>
      <Label {...(hideLabel ? { className: 'unseen' } : {})}>{label}</Label>
      {lines ? <TextArea /> : <Input {...(placeholder ? { placeholder } : {})} />}
      {help && <Text slot="description">{help}</Text>}
      <FieldError>{error}</FieldError>
    </Look>
  );
}
