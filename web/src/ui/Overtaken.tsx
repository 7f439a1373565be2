import { Button } from './Button';
import { Row } from './layout';
import { Notice } from './Notice';
import { t } from '../texts/base';

interface OvertakenProps {
  /** What somebody else has changed meanwhile. */
  what: string;
  onMine: () => void;
  onTheirs: () => void;
}

/** Says that somebody else was first, and lets both go on: with what is in the form, or with what is kept now. */
export function Overtaken({ what, onMine, onTheirs }: OvertakenProps) {
  return (
    <Notice>
      <p>{t('overtaken', { what })}</p>
      <Row>
        <Button onPress={onMine}>{t('keepMine')}</Button>
        <Button onPress={onTheirs}>{t('copyTheirs')}</Button>
      </Row>
    </Notice>
  );
}
