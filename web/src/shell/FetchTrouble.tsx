import { RotateCw } from 'lucide-react';
import { selectFailedQueries } from '../api/fetchTrouble';
import { queryByName } from '../api/baseApi';
import { useAppDispatch, useAppSelector } from '../store';
import { QuietButton } from '../ui/Button';
import { Row } from '../ui/layout';
import { Notice } from '../ui/Notice';
import { t } from '../texts/base';

/** Says that something on the screen could not be fetched. What was fetched before stays shown. */
export function FetchTrouble() {
  const dispatch = useAppDispatch();
  const failed = useAppSelector(selectFailedQueries);
  if (!failed.length) return null;
  const tryAgain = () => {
    for (const { endpoint, args } of failed)
      void dispatch(queryByName(endpoint, args, { forceRefetch: true, subscribe: false }));
  };
  const [{ problem }] = failed as [(typeof failed)[number]];
  return (
    <Notice>
      <Row>
        <span>
          {problem.message} {failed.some((query) => query.hasData) && t('outOfDate')}
        </span>
        <QuietButton onPress={tryAgain}>
          <RotateCw aria-hidden="true" /> {t('tryAgain')}
        </QuietButton>
      </Row>
    </Notice>
  );
}
