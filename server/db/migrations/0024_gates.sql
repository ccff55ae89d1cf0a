CREATE TABLE "admissions" (
	"id" bigserial PRIMARY KEY NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"gate_id" text,
	"gate_name" text NOT NULL,
	"pass" text NOT NULL,
	"contact_id" text,
	"given" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "contacts" (
	"id" text PRIMARY KEY NOT NULL,
	"email" text NOT NULL,
	"created" timestamp with time zone DEFAULT now() NOT NULL,
	"confirmed" timestamp with time zone,
	"unsubscribed" timestamp with time zone,
	CONSTRAINT "contacts_email_unique" UNIQUE("email")
);
--> statement-breakpoint
CREATE TABLE "gate_passwords" (
	"id" text PRIMARY KEY NOT NULL,
	"gate_id" text NOT NULL,
	"label" text NOT NULL,
	"hash" text NOT NULL,
	"created" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "gate_takes" (
	"gate_id" text NOT NULL,
	"pass" text NOT NULL,
	"file_id" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "gates" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"rule" jsonb NOT NULL,
	"epoch" integer DEFAULT 1 NOT NULL,
	"wrong" integer DEFAULT 0 NOT NULL,
	"wrong_since" timestamp with time zone,
	"created" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "gates_name_unique" UNIQUE("name")
);
--> statement-breakpoint
CREATE TABLE "outbox" (
	"id" text PRIMARY KEY NOT NULL,
	"to" text NOT NULL,
	"subject" text NOT NULL,
	"text" text NOT NULL,
	"html" text NOT NULL,
	"headers" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"state" text DEFAULT 'waiting' NOT NULL,
	"tries" integer DEFAULT 0 NOT NULL,
	"next" timestamp with time zone DEFAULT now() NOT NULL,
	"error" text,
	"created" timestamp with time zone DEFAULT now() NOT NULL,
	"sent" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "personal_links" (
	"id" text PRIMARY KEY NOT NULL,
	"token" text NOT NULL,
	"file_id" text NOT NULL,
	"note" text NOT NULL,
	"email" text DEFAULT '' NOT NULL,
	"until" timestamp with time zone,
	"most" integer,
	"revoked" timestamp with time zone,
	"created" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "personal_links_token_unique" UNIQUE("token")
);
--> statement-breakpoint
CREATE TABLE "unconfirmed" (
	"token" text PRIMARY KEY NOT NULL,
	"gate_id" text NOT NULL,
	"asked" jsonb NOT NULL,
	"until" timestamp with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "bundles" ADD COLUMN "gated" text DEFAULT 'behind' NOT NULL;--> statement-breakpoint
ALTER TABLE "bundles" ADD COLUMN "gates" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "files" ADD COLUMN "gate" text;--> statement-breakpoint
ALTER TABLE "folders" ADD COLUMN "gate" text;--> statement-breakpoint
ALTER TABLE "pages" ADD COLUMN "gate" text;--> statement-breakpoint
ALTER TABLE "admissions" ADD CONSTRAINT "admissions_gate_id_gates_id_fk" FOREIGN KEY ("gate_id") REFERENCES "public"."gates"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "admissions" ADD CONSTRAINT "admissions_contact_id_contacts_id_fk" FOREIGN KEY ("contact_id") REFERENCES "public"."contacts"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "gate_passwords" ADD CONSTRAINT "gate_passwords_gate_id_gates_id_fk" FOREIGN KEY ("gate_id") REFERENCES "public"."gates"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "personal_links" ADD CONSTRAINT "personal_links_file_id_files_id_fk" FOREIGN KEY ("file_id") REFERENCES "public"."files"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "unconfirmed" ADD CONSTRAINT "unconfirmed_gate_id_gates_id_fk" FOREIGN KEY ("gate_id") REFERENCES "public"."gates"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "admissions_contact" ON "admissions" USING btree ("contact_id");--> statement-breakpoint
CREATE INDEX "admissions_gate" ON "admissions" USING btree ("gate_id","at");--> statement-breakpoint
CREATE INDEX "admissions_pass" ON "admissions" USING btree ("pass");--> statement-breakpoint
CREATE INDEX "contacts_created" ON "contacts" USING btree ("created");--> statement-breakpoint
CREATE INDEX "gate_passwords_gate" ON "gate_passwords" USING btree ("gate_id");--> statement-breakpoint
CREATE INDEX "gate_takes_gate" ON "gate_takes" USING btree ("gate_id","at");--> statement-breakpoint
CREATE INDEX "gate_takes_pass" ON "gate_takes" USING btree ("pass");--> statement-breakpoint
CREATE INDEX "outbox_created" ON "outbox" USING btree ("created");--> statement-breakpoint
CREATE INDEX "outbox_waiting" ON "outbox" USING btree ("next") WHERE "outbox"."state" in ('waiting', 'sending');--> statement-breakpoint
CREATE INDEX "personal_links_file" ON "personal_links" USING btree ("file_id");--> statement-breakpoint
CREATE INDEX "unconfirmed_until" ON "unconfirmed" USING btree ("until");--> statement-breakpoint
ALTER TABLE "files" ADD CONSTRAINT "files_gate_gates_id_fk" FOREIGN KEY ("gate") REFERENCES "public"."gates"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "folders" ADD CONSTRAINT "folders_gate_gates_id_fk" FOREIGN KEY ("gate") REFERENCES "public"."gates"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pages" ADD CONSTRAINT "pages_gate_gates_id_fk" FOREIGN KEY ("gate") REFERENCES "public"."gates"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "files_gate" ON "files" USING btree ("gate");--> statement-breakpoint
-- What everybody passes: said of what shall be open below something that is not.
insert into gates (id, name, rule) values ('open', 'Open to everyone', '{"kind": "terms"}');
--> statement-breakpoint
create trigger told_added after insert or delete on gates for each statement execute function told_topics('gates', 'live');
--> statement-breakpoint
-- That somebody guesses changes nothing that is kept.
create trigger told_changed after update of name, rule, epoch on gates for each statement execute function told_topics('gates', 'live');
--> statement-breakpoint
create trigger told after insert or update or delete on gate_passwords for each statement execute function told_topics('gates');
--> statement-breakpoint
create trigger told after insert or update or delete on personal_links for each statement execute function told_topics('links');
--> statement-breakpoint
create trigger told after insert or update or delete on contacts for each statement execute function told_topics('contacts');
--> statement-breakpoint
create trigger told after insert on admissions for each statement execute function told_topics('contacts');
--> statement-breakpoint
create trigger told after insert or update or delete on outbox for each statement execute function told_topics('outbox');
--> statement-breakpoint
create or replace function told_changed_files() returns trigger language plpgsql as $$ begin
  perform tell('library', (select array_agg(distinct id) from new_rows));
  -- Buttons to what went to the bin, came back, or stands behind another gate are drawn otherwise.
  if exists (select 1 from old_rows o join new_rows n using (id) where (o.deleted, o.gate) is distinct from (n.deleted, n.gate)) then
    perform tell('live'); perform tell('uses');
  end if;
  return null;
end $$;
--> statement-breakpoint
create or replace function told_changed_pages() returns trigger language plpgsql as $$ begin
  perform tell('uses');
  if exists (select 1 from old_rows o join new_rows n using (id)
    where (o.live, o.slug, o.edge, o.title, o.description, o.in_menu, o.picture, o.gate)
      is distinct from (n.live, n.slug, n.edge, n.title, n.description, n.in_menu, n.picture, n.gate)) then
    perform tell('live');
  end if;
  return null;
end $$;
