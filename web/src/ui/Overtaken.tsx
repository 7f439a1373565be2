import { Button } from './Button';
import { Row } from './layout';
import { Notice } from './Notice';

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
      <p>Somebody else changed this {what} while you had it open. Nothing of yours is lost.</p>
      <Row>
        <Button onPress={onMine}>Go on with mine</Button>
        <Button onPress={onTheirs}>Take theirs into the form</Button>
      </Row>
    </Notice>
  );
}
