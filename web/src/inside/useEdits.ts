import { useCallback, useRef, useState } from 'react';
import { useMakeEditMutation, useTurnEditMutation } from '../api/zonalApi';
import type { ApiProblem, EditAnswer, EntryChange } from '@zonal/core/api';
import { useAppDispatch, useAppSelector, useAppStore } from '../store';
import { stepDone, stepLost, stepRedone, stepUndone } from './historySlice';
import { t } from '../texts/inside';

/** A change with the name that it has where it can be taken back. */
export interface Edit {
  readonly label: string;
  readonly changes: readonly EntryChange[];
}

/** Makes edits and takes them back. `said` tells what was done last, `problem` what was refused. */
export function useEdits() {
  const dispatch = useAppDispatch();
  const { done, undone } = useAppSelector((state) => state.history);
  const store = useAppStore();
  const line = useRef(Promise.resolve());
  const [make, making] = useMakeEditMutation();
  const [turn, turning] = useTurnEditMutation();
  const [said, setSaid] = useState('');
  const [problem, setProblem] = useState<ApiProblem | null>(null);

  const edit = useCallback(
    async ({ label, changes }: Edit): Promise<EditAnswer | ApiProblem> => {
      setProblem(null);
      const { data, error } = await make({ label, changes });
      if (!data) {
        setProblem(error as ApiProblem);
        return error as ApiProblem;
      }
      dispatch(stepDone({ id: data.id, label }));
      setSaid(`${label}.`);
      return data;
    },
    [dispatch, make],
  );

  const turnNext = async (way: 'take-back' | 'again') => {
    const { history } = store.getState();
    const one = (way === 'take-back' ? history.done : history.undone).at(-1);
    if (!one) return;
    setProblem(null);
    const { error } = await turn({ id: one.id, way });
    if (error) {
      setProblem(error as ApiProblem);
      if ('code' in error && error.code !== 'unexpected' && error.code !== 'storage-away')
        dispatch(stepLost(one.id));
      return;
    }
    dispatch(way === 'take-back' ? stepUndone() : stepRedone());
    setSaid(
      way === 'take-back' ? t('undoneStep', { label: one.label }) : t('redoneStep', { label: one.label }),
    );
  };

  /** One after the other, however fast the keys come. */
  const step = (way: 'take-back' | 'again') => (line.current = line.current.then(() => turnNext(way)));

  return {
    edit,
    undo: () => step('take-back'),
    redo: () => step('again'),
    next: { undo: done.at(-1)?.label ?? null, redo: undone.at(-1)?.label ?? null },
    busy: making.isLoading || turning.isLoading,
    said,
    /** Tells more of what was just done. */
    say: setSaid,
    problem,
    dismiss: () => setProblem(null),
  };
}

export type Edits = ReturnType<typeof useEdits>;
