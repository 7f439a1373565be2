import type { Sequelize, Transaction } from 'sequelize';

/**
 * The house journal. What is changed is noted by the database itself, in the transaction that changes it: no route can
 * forget it, and none can change what is noted. Which columns are noted stands in core's table, and is set at each start
 * (db/journal.ts); whose change it is, is said by the setting `zonal.user` of the transaction.
 */
export const name = '017-journal';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query(
    `
    CREATE TABLE journal (
      id bigserial PRIMARY KEY,
      at timestamptz NOT NULL DEFAULT clock_timestamp(),
      tx bigint NOT NULL DEFAULT txid_current(),
      user_id uuid,
      user_name text NOT NULL,
      area text NOT NULL,
      kind text NOT NULL,
      item jsonb NOT NULL,
      before jsonb,
      after jsonb
    );
    CREATE INDEX journal_by_tx ON journal (tx);
    CREATE INDEX journal_by_area ON journal (area, id DESC);
    CREATE INDEX journal_by_user ON journal (user_id, id DESC);

    CREATE FUNCTION journal_part(whole jsonb, names text[]) RETURNS jsonb LANGUAGE plpgsql IMMUTABLE AS $$
    BEGIN
      IF '*settings' = ANY (names) THEN
        RETURN (SELECT jsonb_object_agg(key, value) FROM (
          SELECT key, value FROM jsonb_each(whole) WHERE key = ANY (names)
          UNION ALL SELECT key, value FROM jsonb_each(whole -> 'settings')
        ) AS parts);
      END IF;
      RETURN (SELECT jsonb_object_agg(key, value) FROM jsonb_each(whole) WHERE key = ANY (names));
    END $$;

    -- Arguments: area, names of what is noted, names by which one is told from another.
    CREATE FUNCTION journal_note() RETURNS trigger LANGUAGE plpgsql AS $$
    DECLARE
      noted text[] := string_to_array(TG_ARGV[1], ',');
      was jsonb := CASE WHEN TG_OP = 'INSERT' THEN NULL ELSE journal_part(to_jsonb(OLD), noted) END;
      became jsonb := CASE WHEN TG_OP = 'DELETE' THEN NULL ELSE journal_part(to_jsonb(NEW), noted) END;
      one jsonb;
      who text := nullif(current_setting('zonal.user', true), '');
      earlier journal%ROWTYPE;
    BEGIN
      IF was IS NOT DISTINCT FROM became THEN RETURN NULL; END IF;
      IF TG_OP = 'DELETE' THEN one := to_jsonb(OLD); ELSE one := to_jsonb(NEW); END IF;
      one := journal_part(one, string_to_array(TG_ARGV[2], ','));
      -- What is done to one thing in one transaction is one change; what comes to nothing is none.
      SELECT * INTO earlier FROM journal WHERE tx = txid_current() AND kind = TG_TABLE_NAME AND item = one;
      IF FOUND THEN
        was := CASE WHEN was IS NULL OR earlier.before IS NULL THEN earlier.before ELSE was || earlier.before END;
        DELETE FROM journal WHERE id = earlier.id;
        IF earlier.before IS NULL AND became IS NULL THEN RETURN NULL; END IF;
      END IF;
      IF was IS NOT NULL AND became IS NOT NULL THEN
        SELECT jsonb_object_agg(field, was -> field), jsonb_object_agg(field, became -> field) INTO was, became
          FROM jsonb_object_keys(was || became) AS field WHERE was -> field IS DISTINCT FROM became -> field;
        IF was IS NULL THEN RETURN NULL; END IF;
      END IF;
      INSERT INTO journal (user_id, user_name, area, kind, item, before, after)
        VALUES (who::uuid, coalesce((SELECT name FROM users WHERE id = who::uuid), ''), TG_ARGV[0], TG_TABLE_NAME, one, was, became);
      RETURN NULL;
    END $$;

    CREATE FUNCTION journal_stays() RETURNS trigger LANGUAGE plpgsql AS $$
    BEGIN
      IF TG_OP = 'DELETE' AND OLD.tx = txid_current() THEN RETURN OLD; END IF;
      RAISE EXCEPTION 'the journal is not changed';
    END $$;
    CREATE TRIGGER journal_stays BEFORE UPDATE OR DELETE ON journal FOR EACH ROW EXECUTE FUNCTION journal_stays();
    CREATE TRIGGER journal_stays_whole BEFORE TRUNCATE ON journal FOR EACH STATEMENT EXECUTE FUNCTION journal_stays();
  `,
    { transaction },
  );
}
