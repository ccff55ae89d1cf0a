-- The pieces of an address or a text, whatever stands between them; and whatever begins with each of some pieces.
create function words_of(said text) returns tsvector language sql immutable parallel safe as $$
  select to_tsvector('simple', regexp_replace(said, '[^[:alnum:]]+', ' ', 'g')) $$;
--> statement-breakpoint
create function beginnings_of(asked text) returns tsquery language sql immutable parallel safe as $$
  select to_tsquery('simple', coalesce(string_agg(quote_literal(piece) || ':*', ' & '), ''))
  from regexp_split_to_table(lower(asked), '[^[:alnum:]]+') as piece where piece <> '' $$;
--> statement-breakpoint
ALTER TABLE "admissions" ADD COLUMN "words" "tsvector" GENERATED ALWAYS AS (words_of(given::text)) STORED;--> statement-breakpoint
ALTER TABLE "contacts" ADD COLUMN "words" "tsvector" GENERATED ALWAYS AS (words_of(email)) STORED;--> statement-breakpoint
CREATE INDEX "admissions_words" ON "admissions" USING gin ("words") WITH (fastupdate=false);--> statement-breakpoint
CREATE INDEX "contacts_words" ON "contacts" USING gin ("words") WITH (fastupdate=false);