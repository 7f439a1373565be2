import type { ApiProblem } from '@zonal/core/api';
import { ENTRY_LIMITS, type EntryImage } from '@zonal/core/entries';
import { Image, X } from 'lucide-react';
import { useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import { problemOf, useUploadImageMutation } from '../api/zonalApi';
import { t } from '../texts/inside';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { Group } from '../ui/Group';
import { Faded, Row, Stack } from '../ui/layout';
import { ProblemNotice } from '../ui/ProblemNotice';
import { Picture } from './Picture';

const IMAGE_TYPES = ['image/jpeg', 'image/png', 'image/webp', 'image/gif'];

interface ImageFieldProps {
  value: EntryImage | null;
  /** The calendar that the image is uploaded to. */
  calendarId: string;
  error?: string | undefined;
  onChange: (image: EntryImage | null) => void;
}

/** The image of an entry, uploaded as soon as it is chosen, and the text that stands for it. */
export function ImageField({ value, calendarId, error, onChange }: ImageFieldProps) {
  const [upload, { isLoading }] = useUploadImageMutation();
  const [problem, setProblem] = useState<ApiProblem | null>(null);
  const send = async (file: File | undefined) => {
    if (!file) return;
    setProblem(null);
    const answer = await upload({ calendarId, file });
    if ('error' in answer) setProblem(problemOf(answer.error));
    else onChange({ ...answer.data, alt: value?.alt ?? '' });
  };
  return (
    <Group>
      <legend>{t('image')}</legend>
      <Stack>
        {value && (
          <>
            <Picture image={value} calendarId={calendarId} />
            <Field
              label={t('imageAlt')}
              help={t('imageAltHelp')}
              value={value.alt}
              maxLength={ENTRY_LIMITS.altLetters}
              error={error}
              onChange={(alt) => onChange({ ...value, alt })}
            />
          </>
        )}
        <ProblemNotice problem={problem} />
        <Row>
          <FileTrigger acceptedFileTypes={IMAGE_TYPES} onSelect={(files) => void send(files?.[0])}>
            <Button isDisabled={isLoading}>
              <Image aria-hidden="true" />{' '}
              {isLoading ? t('imageUploading') : value ? t('imageReplace') : t('imageChoose')}
            </Button>
          </FileTrigger>
          {value && (
            <Button onPress={() => onChange(null)}>
              <X aria-hidden="true" /> {t('imageRemove')}
            </Button>
          )}
        </Row>
        {!value && <Faded>{t('imageHelp')}</Faded>}
      </Stack>
    </Group>
  );
}
